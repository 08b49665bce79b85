import { createHash } from 'node:crypto';
import { setTimeout } from 'node:timers/promises';
import { isDeepStrictEqual } from 'node:util';
import { NUMBERS_VERSION, type StudyDocument, studyKey } from '@schritt/core/document';
import { readDocumentText } from '@schritt/core/format';
import type { MethodRun } from '@schritt/core/study';
import {
  Inject,
  Injectable,
  Logger,
  type OnApplicationBootstrap,
  type OnModuleDestroy,
} from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { BehaviorSubject, type Observable, of } from 'rxjs';
import { In, type Repository } from 'typeorm';
import { Engine, JobRefusal, JobTooLong, Leaving } from '../engines/engine.ts';
import { JobProgress } from '../engines/job-progress.ts';
import { ApiError } from '../errors/api-error.ts';
import { isPieceRun } from '../tasks/piece-run.ts';
import { hasField, readJson } from '../tasks/read-json.ts';
import type { JobRequest, Plan } from '../tasks/task.ts';
import { RequestPool } from '../threads/request-pool.ts';
import { THREAD_OPTIONS, type ThreadOptions } from '../threads/thread-options.ts';
import type { JobDto } from './job.dto.ts';
import { Job } from './job.entity.ts';

/** A job under way. */
interface Active {
  readonly owner: string;
  readonly request: JobRequest;
  readonly news: BehaviorSubject<JobNow>;
  readonly abort: AbortController;
  /** Null until its plan is made. */
  progress: JobProgress | null;
  /** Settles when it is stored that the job runs; null until its first task is begun. */
  begun: Promise<void> | null;
  /** Settles when the job has ended here. */
  ended: Promise<void>;
}

/** Where a job is. */
type JobNow = Pick<JobDto, keyof JobDto>;

/** How a job ended. */
interface End {
  readonly state: Job['state'];
  readonly runs: string | null;
  readonly why: string | null;
}

/** Finished jobs that are kept, and the bytes of all their results; the oldest go. */
const MAX_KEPT = 200;
const MAX_BYTES_KEPT = 256e6;
/** Jobs that wait or run at once: of one owner, and of all. */
const MAX_OPEN_OF_ONE = 100;
const MAX_OPEN = 1000;
/** Bytes that the results of one job may take. */
const MAX_BYTES = 32e6;
/** Times that a job is begun, where it can end the server. */
const MAX_BEGUN = 2;
/** Milliseconds between two looks at a job under way. */
const LOOK = 250;

/** A job was cancelled by the person who asked for it. */
class Cancelled extends Error {
  override readonly name = 'Cancelled';
}

/** A job of which nothing is known but its state. */
const NOTHING = { part: 0, done: 0, of: 0, workers: null, isReached: true, why: null } as const;

/** A key of all that the result of a job depends on, short enough to be looked up. */
function keyOf(request: JobRequest): string {
  const text =
    request.kind === 'study' ? studyKey(request.document) : JSON.stringify([NUMBERS_VERSION, request]);
  return createHash('sha256').update(text).digest('hex');
}

/** A request without its document. */
type Rest = JobRequest extends infer R ? (R extends JobRequest ? Omit<R, 'document'> : never) : never;

function isRest(value: unknown): value is Rest {
  return hasField(value, 'kind') && ['study', 'sheets', 'marking'].includes(String(value.kind));
}

/** The request of a stored job; null where what is stored is damaged. */
function storedRequest({ document, request }: Pick<Job, 'document' | 'request'>): JobRequest | null {
  const reading = readDocumentText(document);
  if (!reading.ok || reading.document.kind !== 'study') return null;
  try {
    // it was checked when it came
    const rest = readJson(request, isRest);
    return { ...rest, document: reading.document };
  } catch {
    return null;
  }
}

/** The finished rungs of a job under way, one entry per method. */
function runsSoFar({ methods }: StudyDocument, progress: JobProgress): string {
  const runs = progress.results.map(({ last, pieces }, method): string => {
    if (last !== null) return last;
    const rungs = pieces.flatMap((text) => {
      const piece = readJson(text, isPieceRun);
      return piece.kind === 'runs' ? piece.rungs : [];
    });
    const title = methods[method]?.title ?? '';
    return JSON.stringify({ title, rungs, refused: null } satisfies MethodRun);
  });
  return `[${runs.join(',')}]`;
}

/** Long studies, many sheets and whole classes as jobs: done by an engine, reported while they run, kept when they are done. */
@Injectable()
export class JobsService implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #jobs: Repository<Job>;
  readonly #engine: Engine;
  readonly #pool: RequestPool;
  readonly #options: ThreadOptions;
  readonly #active = new Map<string, Active>();
  readonly #logger = new Logger('jobs');

  constructor(
    @InjectRepository(Job) jobs: Repository<Job>,
    @Inject(Engine) engine: Engine,
    @Inject(RequestPool) pool: RequestPool,
    @Inject(THREAD_OPTIONS) options: ThreadOptions,
  ) {
    this.#jobs = jobs;
    this.#engine = engine;
    this.#pool = pool;
    this.#options = options;
  }

  /** Jobs that were under way when the server ended are begun again, or followed again where they went on. */
  async onApplicationBootstrap(): Promise<void> {
    const open = await this.#jobs.find({
      where: { state: In(['waiting', 'running']) },
      order: { createdAt: 'ASC' },
    });
    for (const job of open) {
      const request = storedRequest(job);
      const why =
        request === null
          ? 'the stored study is damaged'
          : job.begun >= MAX_BEGUN && !this.#engine.outlivesServer
            ? 'the server stopped twice while it ran this study; it is not started again'
            : null;
      if (request === null || why !== null) await this.#jobs.update(job.id, { state: 'failed', why });
      else this.#start(job, request, null);
    }
  }

  async onModuleDestroy(): Promise<void> {
    const active = [...this.#active.values()];
    for (const { abort } of active) abort.abort(new Leaving());
    await Promise.all(active.map(({ ended }) => ended));
  }

  /** The job of a request: one that is there already where its result is the same, or a new one. */
  async create(request: JobRequest, plan: Plan, owner: string): Promise<JobDto> {
    const key = keyOf(request);
    const { document, ...rest } = request;
    const known = await this.#jobs.findOne({
      where: { key, state: In(['waiting', 'running', 'done']) },
      order: { createdAt: 'DESC' },
    });
    if (known !== null) return this.#dto(known);
    const own = [...this.#active.values()].filter((one) => one.owner === owner).length;
    const tooMany = own >= MAX_OPEN_OF_ONE ? own : this.#active.size >= MAX_OPEN ? this.#active.size : null;
    if (tooMany !== null) throw new ApiError('busy', `${tooMany} jobs are already waiting; try again later`);
    const job = await this.#jobs.save(
      this.#jobs.create({
        key,
        owner,
        state: 'waiting',
        document: JSON.stringify(document),
        request: JSON.stringify(rest),
        why: null,
      }),
    );
    this.#start(job, request, plan);
    await this.#tidy();
    return this.#dto(job);
  }

  async read(id: string): Promise<JobDto> {
    return this.#dto(await this.#find(id));
  }

  /**
   * The runs of a job as JSON, one entry per method: all of them when it is done, the rungs that are finished while it
   * is under way.
   */
  async runs(id: string): Promise<string> {
    const active = this.#active.get(id);
    if (active?.request.kind === 'study' && active.progress !== null && active.progress.runs.done > 0)
      return runsSoFar(active.request.document, active.progress);
    return this.#result(id, (kind) => kind === 'study');
  }

  /** The archive that a job has made. */
  async file(id: string): Promise<Buffer> {
    const isText = (value: unknown): value is string => typeof value === 'string';
    return Buffer.from(readJson(await this.#result(id, (kind) => kind !== 'study'), isText), 'base64');
  }

  /** What came of a job of some kinds. */
  async #result(id: string, isOf: (kind: JobRequest['kind']) => boolean): Promise<string> {
    const job = await this.#jobs.findOne({
      where: { id },
      select: { id: true, runs: true, document: true, request: true },
    });
    if (job === null) throw new ApiError('not-found', 'there is no such job');
    const request = storedRequest(job);
    if (job.runs === null || request === null || !isOf(request.kind))
      throw new ApiError('not-found', 'this job has no such results');
    return job.runs;
  }

  /** Where a job is, told again whenever that changes; it ends with the job. */
  async news(id: string): Promise<Observable<JobDto>> {
    const job = await this.#find(id);
    return this.#active.get(id)?.news ?? of(this.#dto(job));
  }

  async cancel(id: string): Promise<void> {
    await this.#find(id);
    this.#active.get(id)?.abort.abort(new Cancelled('it was cancelled'));
  }

  #start({ id, owner }: Pick<Job, 'id' | 'owner'>, request: JobRequest, plan: Plan | null): void {
    const news = new BehaviorSubject<JobNow>({ id, state: 'waiting', ...NOTHING });
    const active: Active = {
      owner,
      request,
      news,
      abort: new AbortController(),
      progress: null,
      begun: null,
      ended: Promise.resolve(),
    };
    this.#active.set(id, active);
    active.ended = this.#work(id, active, plan);
  }

  async #work(id: string, active: Active, plan: Plan | null): Promise<void> {
    const { news } = active;
    const looks = setInterval(() => this.#look(active), LOOK);
    try {
      const end = await this.#outcome(id, active, plan);
      await active.begun;
      if (end !== null) await this.#finish(id, active, end);
      // a server that ends in good order has not failed this job
      else if (active.begun !== null) await this.#jobs.update(id, { begun: () => '"begun" - 1' });
    } catch (thrown) {
      // the store cannot take it: clients are notified
      this.#log(thrown);
      news.next({ ...news.value, state: 'failed', why: 'its results could not be stored' });
    } finally {
      clearInterval(looks);
      news.complete();
      this.#active.delete(id);
    }
  }

  /** What a job comes to; null where the server ends, and the job is to go on without it or later. */
  async #outcome(id: string, active: Active, known: Plan | null): Promise<End | null> {
    const { request, abort, owner } = active;
    try {
      const plan = known ?? (await this.#planOf(request, abort.signal));
      abort.signal.throwIfAborted();
      const progress = new JobProgress(plan);
      active.progress = progress;
      this.#tell(active);
      const texts = await this.#engine.run({ id, owner, request, plan }, abort.signal, (event) => {
        progress.hear(event, Date.now());
        if (progress.bytes > MAX_BYTES)
          abort.abort(
            new JobRefusal(
              `its results take more than ${MAX_BYTES / 1e6} megabytes; use fewer step sizes, methods or components`,
            ),
          );
        if (event.kind === 'begun') active.begun ??= this.#begin(id, active);
        this.#tell(active);
      });
      const runs = request.kind === 'study' ? `[${texts.join(',')}]` : (texts[0] ?? '');
      return { state: 'done', runs, why: null };
    } catch (thrown) {
      return this.#endOf(thrown);
    }
  }

  #endOf(thrown: unknown): End | null {
    if (thrown instanceof Leaving) return null;
    if (thrown instanceof Cancelled) return { state: 'cancelled', runs: null, why: thrown.message };
    if (thrown instanceof JobTooLong)
      return { state: 'too long', runs: null, why: `it took more than ${this.#options.limit} seconds` };
    if (!(thrown instanceof JobRefusal)) this.#log(thrown);
    return { state: 'failed', runs: null, why: thrown instanceof Error ? thrown.message : String(thrown) };
  }

  /** The plan of a stored job, made when the threads that open studies have room. */
  async #planOf(request: JobRequest, signal: AbortSignal): Promise<Plan> {
    for (;;) {
      try {
        return await this.#pool.plan(request);
      } catch (thrown) {
        if (!(thrown instanceof ApiError) || thrown.body.code !== 'busy') throw thrown;
        await setTimeout(LOOK, undefined, { signal });
      }
    }
  }

  /** The first of its tasks is under way. */
  async #begin(id: string, { news }: Active): Promise<void> {
    news.next({ ...news.value, state: 'running' });
    await this.#jobs.update(id, { state: 'running', begun: () => '"begun" + 1' });
  }

  /** What no task reports: the time that all of them take together, and workers that come and go. */
  #look(active: Active): void {
    const { progress, abort } = active;
    if (progress !== null && progress.seconds(Date.now()) > this.#options.limit)
      abort.abort(new JobTooLong());
    const { workers, isReached } = this.#engine.state;
    const { value } = active.news;
    if (value.workers !== workers || value.isReached !== isReached) this.#tell(active);
  }

  #tell({ news, progress }: Active): void {
    const { workers, isReached } = this.#engine.state;
    const { done, of: all } = progress?.runs ?? { done: 0, of: 0 };
    const now = { ...news.value, part: progress?.part ?? 0, done, of: all, workers, isReached };
    if (!isDeepStrictEqual(now, news.value)) news.next(now);
  }

  async #finish(id: string, { news }: Active, { state, runs, why }: End): Promise<void> {
    const { part, of: total } = news.value;
    await this.#jobs.update(id, { state, runs, why, total, bytes: runs?.length ?? 0 });
    news.next({ ...news.value, state, part: state === 'done' ? 1 : part, why });
    await this.#tidy();
  }

  /** Deletes the oldest finished jobs, where there are too many or their results take too much room. */
  async #tidy(): Promise<void> {
    const finished = await this.#jobs.find({
      select: { id: true, bytes: true },
      where: { state: In(['done', 'failed', 'cancelled', 'too long']) },
      order: { createdAt: 'DESC' },
    });
    let bytes = 0;
    const old = finished.filter((job, i) => {
      bytes += job.bytes;
      return i >= MAX_KEPT || bytes > MAX_BYTES_KEPT;
    });
    if (old.length > 0) await this.#jobs.delete(old.map(({ id }) => id));
  }

  async #find(id: string): Promise<Job> {
    const job = await this.#jobs.findOneBy({ id });
    if (job === null) throw new ApiError('not-found', 'there is no such job');
    return job;
  }

  #log(thrown: unknown): void {
    this.#logger.error(thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown));
  }

  #dto({ id, state, total, why }: Job): JobDto {
    const active = this.#active.get(id);
    if (active !== undefined) return active.news.value;
    const isDone = state === 'done';
    return { id, state, ...NOTHING, part: isDone ? 1 : 0, done: isDone ? total : 0, of: total, why };
  }
}
