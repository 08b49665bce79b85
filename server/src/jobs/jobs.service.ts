import { createHash } from 'node:crypto';
import { type StudyDocument, studyKey } from '@schritt/core/document';
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
import { ApiError } from '../errors/api-error.ts';
import type { JobDto } from './job.dto.ts';
import { Job } from './job.entity.ts';
import { JobRefusal, StudyPool } from '../threads/study-pool.ts';
import { THREAD_OPTIONS, type ThreadOptions } from '../threads/thread-options.ts';

/** A job under way. */
interface Active {
  readonly news: BehaviorSubject<JobDto>;
  readonly abort: AbortController;
  /** What its methods have come to so far. */
  runs: readonly MethodRun[];
}

/** How a job ended. */
interface End {
  readonly state: Job['state'];
  readonly runs: string | null;
  readonly why: string | null;
}

/** Finished jobs that are kept, and the bytes of all their results; the oldest go. */
const MAX_KEPT = 200;
const MAX_BYTES_KEPT = 256e6;
/** Jobs that wait or run at once. */
const MAX_OPEN = 100;
/** Times that a job is begun. */
const MAX_BEGUN = 2;

/** The key of a study's runs, short enough to be looked up. */
function keyOf(document: StudyDocument): string {
  return createHash('sha256').update(studyKey(document)).digest('hex');
}

/** The study of a stored job; null where what is stored is damaged. */
function storedStudy({ document }: Pick<Job, 'document'>): StudyDocument | null {
  const reading = readDocumentText(document);
  return reading.ok && reading.document.kind === 'study' ? reading.document : null;
}

/** Long studies as jobs: run one after another on worker threads, told of while they run, kept when they are done. */
@Injectable()
export class JobsService implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #jobs: Repository<Job>;
  readonly #pool: StudyPool;
  readonly #options: ThreadOptions;
  readonly #active = new Map<string, Active>();
  readonly #logger = new Logger('jobs');
  #last: Promise<void> = Promise.resolve();
  #closing = false;

  constructor(
    @InjectRepository(Job) jobs: Repository<Job>,
    @Inject(StudyPool) pool: StudyPool,
    @Inject(THREAD_OPTIONS) options: ThreadOptions,
  ) {
    this.#jobs = jobs;
    this.#pool = pool;
    this.#options = options;
  }

  /** Jobs that were under way when the server ended are begun again. */
  async onApplicationBootstrap(): Promise<void> {
    const open = await this.#jobs.find({
      where: { state: In(['waiting', 'running']) },
      order: { createdAt: 'ASC' },
    });
    for (const job of open) {
      const document = storedStudy(job);
      const why =
        document === null
          ? 'the stored study is damaged'
          : job.begun >= MAX_BEGUN
            ? 'the server stopped twice while it ran this study; it is not started again'
            : null;
      if (document === null || why !== null) await this.#jobs.update(job.id, { state: 'failed', why });
      else this.#enqueue(job.id, document);
    }
  }

  async onModuleDestroy(): Promise<void> {
    this.#closing = true;
    for (const { abort } of this.#active.values()) abort.abort();
    await this.#last;
  }

  /** The job of a study: one that is there already where its runs are the same, or a new one. */
  async create(document: StudyDocument): Promise<JobDto> {
    const key = keyOf(document);
    const known = await this.#jobs.findOne({
      where: { key, state: In(['waiting', 'running', 'done']) },
      order: { createdAt: 'DESC' },
    });
    if (known !== null) return this.#dto(known);
    if (this.#active.size >= MAX_OPEN)
      throw new ApiError('busy', `${MAX_OPEN} studies are already waiting; try again later`);
    const job = await this.#jobs.save(
      this.#jobs.create({ key, state: 'waiting', document: JSON.stringify(document), why: null }),
    );
    this.#enqueue(job.id, document);
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
    const soFar = this.#active.get(id)?.runs ?? [];
    if (soFar.length > 0) return JSON.stringify(soFar);
    const job = await this.#jobs.findOne({ where: { id }, select: { id: true, runs: true } });
    if (job === null) throw new ApiError('not-found', 'there is no such job');
    if (job.runs === null) throw new ApiError('not-found', 'this job has no results');
    return job.runs;
  }

  /** Where a job is, told again whenever that changes; it ends with the job. */
  async news(id: string): Promise<Observable<JobDto>> {
    const job = await this.#find(id);
    return this.#active.get(id)?.news ?? of(this.#dto(job));
  }

  async cancel(id: string): Promise<void> {
    await this.#find(id);
    this.#active.get(id)?.abort.abort();
  }

  #enqueue(id: string, document: StudyDocument): void {
    const news = new BehaviorSubject<JobDto>({ id, state: 'waiting', part: 0, rungs: 0, why: null });
    const active: Active = { news, abort: new AbortController(), runs: [] };
    this.#active.set(id, active);
    this.#last = this.#last.then(() => this.#work(id, document, active));
  }

  async #work(id: string, document: StudyDocument, active: Active): Promise<void> {
    const { news, abort } = active;
    try {
      const end = await this.#outcome(id, document, active);
      if (end !== null) await this.#finish(id, active, end);
    } catch (thrown) {
      // the store cannot take it: clients are notified, and the next jobs are run
      this.#logger.error(thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown));
      const { part, rungs } = news.value;
      news.next({ id, state: 'failed', part, rungs, why: 'its results could not be stored' });
    } finally {
      news.complete();
      abort.abort();
      this.#active.delete(id);
    }
  }

  /** What a job comes to; null where the server ends, and the job is to go on later. */
  async #outcome(id: string, document: StudyDocument, active: Active): Promise<End | null> {
    const { news, abort } = active;
    const limit = AbortSignal.timeout(1000 * this.#options.limit);
    const cancelled: End = { state: 'cancelled', runs: null, why: 'it was cancelled' };
    const isAborted = (): boolean => abort.signal.aborted;
    if (isAborted()) return this.#closing ? null : cancelled;
    await this.#jobs.update(id, { state: 'running', begun: () => '"begun" + 1' });
    news.next({ id, state: 'running', part: 0, rungs: 0, why: null });
    try {
      const runs = await this.#pool.run(document, AbortSignal.any([abort.signal, limit]), (part, soFar) => {
        active.runs = [...soFar];
        const rungs = soFar.reduce((sum, run) => sum + run.rungs.length, 0);
        news.next({ id, state: 'running', part, rungs, why: null });
      });
      return { state: 'done', runs: JSON.stringify(runs), why: null };
    } catch (thrown) {
      if (limit.aborted)
        return { state: 'too long', runs: null, why: `it took more than ${this.#options.limit} seconds` };
      if (isAborted()) {
        // a server that ends in good order has not failed this job
        if (this.#closing) await this.#jobs.update(id, { begun: () => '"begun" - 1' });
        return this.#closing ? null : cancelled;
      }
      if (thrown instanceof JobRefusal) return { state: 'failed', runs: null, why: thrown.message };
      this.#logger.error(thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown));
      return { state: 'failed', runs: null, why: thrown instanceof Error ? thrown.message : String(thrown) };
    }
  }

  async #finish(id: string, { news }: Active, { state, runs, why }: End): Promise<void> {
    await this.#jobs.update(id, { state, runs, why, bytes: runs?.length ?? 0 });
    const { part, rungs } = news.value;
    news.next({ id, state, part: state === 'done' ? 1 : part, rungs, why });
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

  #dto({ id, state, why }: Job): JobDto {
    return this.#active.get(id)?.news.value ?? { id, state, part: state === 'done' ? 1 : 0, rungs: 0, why };
  }
}
