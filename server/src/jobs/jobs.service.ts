import { createHash } from 'node:crypto';
import { type StudyDocument, studyKey } from '@schritt/core/document';
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
import { JOB_OPTIONS, type JobOptions, StudyPool } from './study-pool.ts';

/** A job under way. */
interface Active {
  readonly news: BehaviorSubject<JobDto>;
  readonly abort: AbortController;
  /** What its methods have come to so far. */
  runs: readonly MethodRun[];
}

/** Finished jobs that are kept; the oldest go. */
const MOST_KEPT = 200;

/** The key of a study's runs, short enough to be looked up. */
function keyOf(document: StudyDocument): string {
  return createHash('sha256').update(studyKey(document)).digest('hex');
}

/** Long studies as jobs: run one after another on worker threads, told of while they run, kept when they are done. */
@Injectable()
export class JobsService implements OnApplicationBootstrap, OnModuleDestroy {
  readonly #jobs: Repository<Job>;
  readonly #pool: StudyPool;
  readonly #options: JobOptions;
  readonly #active = new Map<string, Active>();
  readonly #logger = new Logger('jobs');
  #last: Promise<void> = Promise.resolve();
  #closing = false;

  constructor(
    @InjectRepository(Job) jobs: Repository<Job>,
    @Inject(StudyPool) pool: StudyPool,
    @Inject(JOB_OPTIONS) options: JobOptions,
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
    for (const job of open) this.#enqueue(job);
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
    const job = await this.#jobs.save(
      this.#jobs.create({ key, state: 'waiting', document, runs: null, why: null }),
    );
    this.#enqueue(job);
    await this.#tidy();
    return this.#dto(job);
  }

  async read(id: string): Promise<JobDto> {
    return this.#dto(await this.#find(id));
  }

  /** The runs of a job, one a method: all of them when it is done, the rungs that are finished while it is under way. */
  async runs(id: string): Promise<readonly MethodRun[]> {
    const soFar = this.#active.get(id)?.runs ?? [];
    if (soFar.length > 0) return soFar;
    const { runs } = await this.#find(id);
    if (runs === null) throw new ApiError('not-found', 'this job has no results');
    return runs;
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

  #enqueue({ id, document }: Job): void {
    const news = new BehaviorSubject<JobDto>({ id, state: 'waiting', part: 0, rungs: 0, why: null });
    const active: Active = { news, abort: new AbortController(), runs: [] };
    this.#active.set(id, active);
    this.#last = this.#last.then(() => this.#work(id, document, active));
  }

  async #work(id: string, document: StudyDocument, active: Active): Promise<void> {
    const { news, abort } = active;
    const limit = AbortSignal.timeout(1000 * this.#options.limit);
    const finish = async (state: Job['state'], more: Pick<Job, 'runs' | 'why'>): Promise<void> => {
      await this.#jobs.update(id, { state, runs: more.runs, why: more.why });
      const { part, rungs } = news.value;
      news.next({ id, state, part: state === 'done' ? 1 : part, rungs, why: more.why });
    };
    try {
      if (abort.signal.aborted) {
        await this.#stopped(finish, false);
        return;
      }
      await this.#jobs.update(id, { state: 'running' });
      news.next({ id, state: 'running', part: 0, rungs: 0, why: null });
      const runs = await this.#pool.run(document, AbortSignal.any([abort.signal, limit]), (part, soFar) => {
        active.runs = [...soFar];
        const rungs = soFar.reduce((sum, run) => sum + run.rungs.length, 0);
        news.next({ id, state: 'running', part, rungs, why: null });
      });
      await finish('done', { runs, why: null });
    } catch (thrown) {
      if (abort.signal.aborted || limit.aborted) await this.#stopped(finish, limit.aborted);
      else {
        this.#logger.error(thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown));
        const why = thrown instanceof Error ? thrown.message : String(thrown);
        await finish('failed', { runs: null, why });
      }
    } finally {
      news.complete();
      this.#active.delete(id);
    }
  }

  /** A job that was ended: by a person, by its time limit, or because the server ends and will go on later. */
  async #stopped(
    finish: (state: Job['state'], more: Pick<Job, 'runs' | 'why'>) => Promise<void>,
    tooLong: boolean,
  ): Promise<void> {
    if (this.#closing && !tooLong) return;
    const why = tooLong ? `it took more than ${this.#options.limit} seconds` : 'it was cancelled';
    await finish(tooLong ? 'too long' : 'cancelled', { runs: null, why });
  }

  async #tidy(): Promise<void> {
    const old = await this.#jobs.find({
      select: { id: true },
      where: { state: In(['done', 'failed', 'cancelled', 'too long']) },
      order: { createdAt: 'DESC' },
      skip: MOST_KEPT,
      take: MOST_KEPT,
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
