import { InjectQueue, OnWorkerEvent, Processor, WorkerHost } from '@nestjs/bullmq';
import { Inject, Logger } from '@nestjs/common';
import { type Job, type Queue, UnrecoverableError, WaitingError } from 'bullmq';
import { LRUCache } from 'lru-cache';
import {
  type EntryData,
  type EntryResult,
  placeOf,
  type TaskData,
  type WholeData,
} from '../engines/queue/queue-data.ts';
import { TASKS } from '../engines/queue/queue-name.ts';
import type { TaskOutcome } from '../tasks/task.ts';
import { TaskPool } from '../threads/task-pool.ts';
import { WORKER_OPTIONS } from './worker-options.ts';

/** Jobs of which what all tasks share is remembered. */
const REMEMBERED = 16;
/** Milliseconds between two reports of a task. */
const REPORT = 500;

/** Why a task is ended before its time. */
const STOPPING = 'this worker stops';
const UNWANTED = 'nobody wants this job any longer';
const LOST = 'another worker has this task';

type Entry<D> = Job<D, EntryResult>;

function isTask(job: Entry<EntryData>): job is Entry<TaskData> {
  return job.data.kind === 'task';
}

/** Does tasks that it takes from the queue, on threads of this process. */
@Processor(TASKS, WORKER_OPTIONS)
export class TaskProcessor extends WorkerHost {
  @Inject(TaskPool)
  private readonly pool: TaskPool;

  @InjectQueue(TASKS)
  private readonly queue: Queue<EntryData, EntryResult>;

  readonly #wholes = new LRUCache<string, WholeData>({ max: REMEMBERED });
  /** Which tasks of which jobs are under way. */
  readonly #active = new Map<string, string>();
  readonly #logger = new Logger('worker');
  #isStopping = false;

  /** Tasks under way. */
  get active(): number {
    return this.#active.size;
  }

  override async process(job: Entry<EntryData>, token?: string, signal?: AbortSignal): Promise<EntryResult> {
    if (!isTask(job)) return null;
    if (this.#isStopping) return this.#handBack(job, token);
    const whole = await this.#wholeOf(job);
    const id = job.id ?? '';
    this.#active.set(id, job.data.whole);
    try {
      return await this.#done(job, whole, signal ?? new AbortController().signal);
    } catch (thrown) {
      if (signal?.reason === STOPPING) return await this.#handBack(job, token);
      if (signal?.aborted === true) throw new UnrecoverableError(String(signal.reason));
      throw thrown;
    } finally {
      this.#active.delete(id);
    }
  }

  /** Takes tasks from now on, so many at a time. */
  begin(threads: number): void {
    this.worker.concurrency = threads;
    // it ends when the worker is closed
    this.worker.run().catch((thrown: unknown) => this.#logger.error(String(thrown)));
  }

  /** Ends the tasks of a job that nobody wants any longer. */
  drop(whole: string): void {
    this.#wholes.delete(whole);
    for (const [id, own] of this.#active) if (own === whole) this.worker.cancelJob(id, UNWANTED);
  }

  /** Gives the tasks under way back to the queue, so that another worker takes them at once. */
  async stop(): Promise<void> {
    this.#isStopping = true;
    this.worker.cancelAllJobs(STOPPING);
    await this.worker.close();
  }

  /** A task that was taken for lost while this worker could not reach the queue is no longer its own. */
  @OnWorkerEvent('lockRenewalFailed')
  lost(ids: readonly string[]): void {
    for (const id of ids) this.worker.cancelJob(id, LOST);
    this.#logger.warn(`${ids.length} tasks were given to another worker`);
  }

  @OnWorkerEvent('error')
  error(error: Error): void {
    this.#logger.debug(error.message);
  }

  async #done(job: Entry<TaskData>, whole: WholeData, signal: AbortSignal): Promise<TaskOutcome> {
    const { request, limit } = whole;
    const tooLong = AbortSignal.timeout(1000 * limit);
    const results = await this.#resultsBefore(job);
    let reportedAt = Date.now();
    try {
      return await this.pool.run(
        { request, task: job.data.task, results },
        AbortSignal.any([signal, tooLong]),
        (part) => {
          if (Date.now() - reportedAt < REPORT) return;
          reportedAt = Date.now();
          // a report that does not arrive is followed by others
          job.updateProgress(part).catch(() => undefined);
        },
      );
    } catch (thrown) {
      if (tooLong.aborted && !signal.aborted) return { kind: 'too long' };
      throw thrown;
    }
  }

  /** The results of the other tasks of its group, in their order. */
  async #resultsBefore(job: Entry<TaskData>): Promise<readonly string[]> {
    const values = Object.entries(await job.getChildrenValues<EntryResult>());
    return values
      .map(([name, result]) => ({ place: placeOf(name), result }))
      .sort((a, b) => a.place - b.place)
      .flatMap(({ result }) => (result?.kind === 'done' ? [result.text] : []));
  }

  async #wholeOf({ data: { whole } }: Entry<TaskData>): Promise<WholeData> {
    const known = this.#wholes.get(whole);
    if (known !== undefined) return known;
    const data = await this.#read(whole);
    if (data === null || data.isDropped) throw new UnrecoverableError(UNWANTED);
    this.#wholes.set(whole, data);
    return data;
  }

  async #read(whole: string): Promise<WholeData | null> {
    const entry = await this.queue.getJob(whole);
    return entry?.data.kind === 'whole' ? entry.data : null;
  }

  async #handBack(job: Entry<EntryData>, token: string | undefined): Promise<never> {
    await job.moveToWait(token);
    throw new WaitingError();
  }
}
