import { join } from 'node:path';
import type { ExportQuery, StudyDocument, StudyReport, TextErrors } from '@schritt/core/document';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import { ApiError, type ApiFault } from '../errors/api-error.ts';
import { Lane, LaneTimeout } from './lane.ts';
import type { PictureRequest } from '../tasks/first-picture.ts';
import type { JobRequest, Plan } from '../tasks/task.ts';
import type { RequestAnswer, RequestTask } from './request.worker.ts';
import { ranOutOfMemory, resourceLimits, THREAD_OPTIONS, type ThreadOptions } from './thread-options.ts';

/** Errors of the texts of a study as faults with their places. */
export function textFaults(errors: readonly TextErrors[]): readonly ApiFault[] {
  return errors.flatMap(({ title, errors: own }) =>
    own.map((e) => ({ place: `${title}, line ${e.line}, column ${e.column}`, message: e.message })),
  );
}

/** Requests that may wait for a lane. */
const MAX_WAITING = 16;
/** Requests behind which no picture is made. */
const MAX_BEFORE_PICTURE = 2;
/** Seconds that work within a request may take on its lane. */
const LIMIT = 10;

function busy(): ApiError {
  return new ApiError(
    'busy',
    'The server has more to compute than it can do at once. Try again in a moment.',
  );
}

function tooLong(seconds: number, what: RequestTask['what']): ApiError {
  return new ApiError(
    'bad-request',
    what === 'plan'
      ? `this study was not read within ${seconds} seconds; its texts are too large, or the server has too much to do`
      : 'this study is too long to be run within a request; post it to /api/jobs, or run it in a terminal',
  );
}

/**
 * Two threads for work within requests, apart from those of long jobs: studies that are estimated to be short have a
 * lane of their own and never wait for a long one. What answers requests stays free.
 */
@Injectable()
export class RequestPool implements OnModuleDestroy {
  readonly #options: ThreadOptions;
  readonly #short: Lane<RequestTask, RequestAnswer>;
  readonly #long: Lane<RequestTask, RequestAnswer>;

  constructor(@Inject(THREAD_OPTIONS) options: ThreadOptions) {
    this.#options = options;
    const make = (): Piscina<RequestTask, RequestAnswer> =>
      new Piscina<RequestTask, RequestAnswer>({
        filename: join(options.workers, 'request.worker.js'),
        minThreads: 0,
        maxThreads: 1,
        idleTimeout: 30_000,
        resourceLimits: resourceLimits(options),
      });
    this.#short = new Lane(make);
    this.#long = new Lane(make);
  }

  /** @throws ApiError where texts have errors, or it takes too long */
  async report(document: StudyDocument): Promise<StudyReport> {
    const answer = await this.#ask({ what: 'report', document, lane: 'short' });
    if (answer.kind === 'report') return answer.report;
    throw tooLong(this.#seconds, 'report');
  }

  /** @throws ApiError where it cannot be made, with the reason, or takes too long */
  async taken(document: StudyDocument, asked: ExportQuery): Promise<Uint8Array> {
    const answer = await this.#ask({ what: 'taken', document, asked, lane: 'short' });
    if (answer.kind === 'taken') return answer.content;
    if (answer.kind === 'refused') throw new ApiError('bad-request', answer.why);
    throw tooLong(this.#seconds, 'taken');
  }

  /** @throws ApiError where a text of the study has errors */
  async plan(request: JobRequest): Promise<Plan> {
    const answer = await this.#ask({ what: 'plan', document: request.document, request, lane: 'short' });
    if (answer.kind === 'plan') return answer.plan;
    if (answer.kind === 'refused') throw new ApiError('bad-request', answer.why);
    throw tooLong(this.#seconds, 'plan');
  }

  /**
   * The first picture of the page of a study; null where it would take long.
   *
   * @throws ApiError where a text of the study has errors, or what others wait for comes first
   */
  async picture(document: StudyDocument, asked: PictureRequest): Promise<string | null> {
    if (this.#short.waiting > MAX_BEFORE_PICTURE) throw busy();
    const answer = await this.#runOn(this.#short, { what: 'picture', document, asked, lane: 'short' });
    return answer.kind === 'picture' ? answer.html : null;
  }

  async onModuleDestroy(): Promise<void> {
    await Promise.all([this.#short.close(), this.#long.close()]);
  }

  async #ask(task: RequestTask): Promise<RequestAnswer> {
    const answer = await this.#runOn(this.#short, task);
    return answer.kind === 'long' ? this.#runOn(this.#long, { ...task, lane: 'long' }) : answer;
  }

  async #runOn(lane: Lane<RequestTask, RequestAnswer>, task: RequestTask): Promise<RequestAnswer> {
    if (lane.waiting >= MAX_WAITING) throw busy();
    try {
      const answer = await lane.run(task, 1000 * this.#seconds);
      if (answer.kind === 'text errors')
        throw new ApiError('bad-request', 'the texts of this study have errors', textFaults(answer.errors));
      return answer;
    } catch (thrown) {
      if (thrown instanceof LaneTimeout) throw tooLong(this.#seconds, task.what);
      if (ranOutOfMemory(thrown))
        throw new ApiError('bad-request', 'this study needs more memory than it may have');
      throw thrown;
    }
  }

  /** Seconds that work within a request may take. */
  get #seconds(): number {
    return this.#options.requestLimit ?? LIMIT;
  }
}
