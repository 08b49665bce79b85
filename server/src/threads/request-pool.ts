import { join } from 'node:path';
import type { Asked, StudyDocument, StudyReport } from '@schritt/core/document';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import { textFaults } from '../documents/text-faults.ts';
import { ApiError } from '../errors/api-error.ts';
import type { RequestAnswer, RequestTask } from './request.worker.ts';
import { ranOutOfMemory, resourceLimits, THREAD_OPTIONS, type ThreadOptions } from './thread-options.ts';

/** Requests that may wait for a thread. */
const MOST_WAITING = 16;
/** Seconds that heavy work within a request may take. */
const LIMIT = 10;

/** One thread for heavy work within requests, apart from those of long jobs; what answers requests stays free. */
@Injectable()
export class RequestPool implements OnModuleDestroy {
  readonly #options: ThreadOptions;
  #pool: Piscina<RequestTask, RequestAnswer> | null = null;

  constructor(@Inject(THREAD_OPTIONS) options: ThreadOptions) {
    this.#options = options;
  }

  /** @throws ApiError where texts have errors, or it takes too long */
  async report(document: StudyDocument): Promise<StudyReport> {
    const answer = await this.#ask({ what: 'report', document });
    if (answer.kind === 'report') return answer.report;
    throw this.#tooLong();
  }

  /** @throws ApiError where it cannot be made, with the reason, or takes too long */
  async taken(document: StudyDocument, asked: Asked): Promise<Uint8Array> {
    const answer = await this.#ask({ what: 'taken', document, asked });
    if (answer.kind === 'taken') return answer.content;
    if (answer.kind === 'refused') throw new ApiError('bad-request', answer.why);
    throw this.#tooLong();
  }

  /** @throws ApiError where a text of the study has errors */
  async check(document: StudyDocument): Promise<void> {
    await this.#ask({ what: 'check', document });
  }

  async onModuleDestroy(): Promise<void> {
    await this.#pool?.destroy();
  }

  async #ask(task: RequestTask): Promise<RequestAnswer> {
    this.#pool ??= new Piscina<RequestTask, RequestAnswer>({
      filename: join(this.#options.workers, 'request.worker.js'),
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 30_000,
      resourceLimits: resourceLimits(this.#options),
    });
    if (this.#pool.queueSize >= MOST_WAITING)
      throw new ApiError(
        'busy',
        'the server has more to compute than it can do at once; try again in a moment',
      );
    const signal = AbortSignal.timeout(1000 * (this.#options.requestLimit ?? LIMIT));
    try {
      const answer = await this.#pool.run(task, { signal });
      if (answer.kind === 'text errors')
        throw new ApiError('bad-request', 'the texts of this study have errors', textFaults(answer.errors));
      return answer;
    } catch (thrown) {
      if (signal.aborted) throw this.#tooLong();
      if (ranOutOfMemory(thrown))
        throw new ApiError('bad-request', 'this study needs more memory than it may have');
      throw thrown;
    }
  }

  #tooLong(): ApiError {
    return new ApiError(
      'bad-request',
      'this study is too long to be run within a request; post it to /api/jobs, or run it in a terminal',
    );
  }
}
