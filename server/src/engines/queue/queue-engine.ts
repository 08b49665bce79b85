import { InjectFlowProducer, InjectQueue } from '@nestjs/bullmq';
import { Inject, Injectable, Logger, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { FlowProducer, type FlowJob, Job, PRIORITY_LIMIT, Queue, QueueEventsProducer } from 'bullmq';
import { taskKey, type TaskKey } from '../../tasks/task.ts';
import { THREAD_OPTIONS, type ThreadOptions } from '../../threads/thread-options.ts';
import {
  Engine,
  type EngineState,
  JobRefusal,
  Leaving,
  resultOf,
  type TaskEvent,
  type Work,
} from '../engine.ts';
import { FairOrder } from '../fair-order.ts';
import {
  DROPPED,
  type EntryData,
  entryId,
  entryOf,
  type EntryResult,
  placeOf,
  type WholeData,
} from './queue-data.ts';
import { NUMERICS, TASKS } from './queue-name.ts';
import { Registry } from './registry.ts';

/** A job that this server follows. */
interface Followed {
  readonly work: Work;
  readonly hear: (event: TaskEvent) => void;
  /** The places of its tasks in the order of all. */
  readonly places: ReadonlyMap<TaskKey, number>;
  readonly end: (texts: readonly string[]) => void;
  readonly fail: (why: unknown) => void;
  /** When something of it was heard last, in milliseconds. */
  heardAt: number;
}

/** What the queue tells of an entry. */
export type EntryNews =
  | { readonly kind: 'active' | 'waiting'; readonly id: string }
  | { readonly kind: 'progress'; readonly id: string; readonly part: number }
  | { readonly kind: 'completed'; readonly id: string; readonly result: EntryResult }
  | { readonly kind: 'failed'; readonly id: string; readonly why: string };

/** Seconds after which the queue forgets a job that has ended and was not taken out. */
const FORGOTTEN = { age: 7 * 86_400 };
/** Milliseconds without news of a job after which it is asked for. */
const SILENCE = 6000;

/** Does tasks on workers that take them from a queue; they go on while this server is not there. */
@Injectable()
export class QueueEngine extends Engine implements OnModuleInit, OnModuleDestroy {
  readonly outlivesServer = true;

  @Inject(THREAD_OPTIONS)
  private readonly options: ThreadOptions;

  readonly #queue: Queue<EntryData, EntryResult>;
  readonly #flows: FlowProducer;
  readonly #events: QueueEventsProducer;
  readonly #registry: Registry;
  readonly #order = new FairOrder(PRIORITY_LIMIT - 1);
  readonly #followed = new Map<string, Followed>();
  /** Jobs that are to leave the queue as soon as no worker holds a task of theirs. */
  readonly #dropped = new Set<string>();
  readonly #logger = new Logger('queue');
  #isReached = false;
  #isTidying = false;

  constructor(
    @InjectQueue(TASKS) queue: Queue<EntryData, EntryResult>,
    @InjectFlowProducer(TASKS) flows: FlowProducer,
    @Inject(QueueEventsProducer) events: QueueEventsProducer,
    @Inject(Registry) registry: Registry,
  ) {
    super();
    this.#queue = queue;
    this.#flows = flows;
    this.#events = events;
    this.#registry = registry;
    // that it cannot be reached is said once, by the registry
    queue.on('error', quiet);
    flows.on('error', quiet);
    events.on('error', quiet);
  }

  get state(): EngineState {
    const { workers } = Registry.of(this.#registry.present, NUMERICS);
    return { workers: workers.length, isReached: this.#isReached };
  }

  onModuleInit(): void {
    this.#registry.start((present) => {
      const isBack = present !== null && !this.#isReached;
      this.#isReached = present !== null;
      if (this.#isReached) void this.#tidy(isBack);
    });
  }

  async onModuleDestroy(): Promise<void> {
    await this.#registry.close();
    await this.#events.disconnect();
  }

  async run(work: Work, signal: AbortSignal, hear: (event: TaskEvent) => void): Promise<readonly string[]> {
    try {
      return await new Promise<readonly string[]>((end, fail) => {
        const followed: Followed = {
          work,
          hear,
          places: this.#placesOf(work),
          end,
          fail,
          heardAt: Date.now(),
        };
        signal.addEventListener('abort', () => fail(reasonOfSignal(signal)), { once: true });
        if (signal.aborted) fail(reasonOfSignal(signal));
        this.#followed.set(work.id, followed);
        this.#ensure(followed).catch(fail);
      });
    } finally {
      this.#followed.delete(work.id);
      if (this.#followed.size === 0) this.#order.reset();
      if (!(signal.reason instanceof Leaving)) await this.#drop(work.id);
    }
  }

  /** What happened to an entry, as the queue tells every server. */
  hear(news: EntryNews): void {
    const { whole, key } = entryOf(news.id);
    const followed = this.#followed.get(whole);
    if (followed === undefined) return;
    followed.heardAt = Date.now();
    if (key !== null) this.#hearTask(followed, key, news);
    else if (news.kind === 'failed') followed.fail(reasonOf(news.why));
    else if (news.kind === 'completed') this.#collect(followed).catch(followed.fail);
  }

  #hearTask({ hear, places, fail }: Followed, key: TaskKey, news: EntryNews): void {
    switch (news.kind) {
      case 'active':
        this.#order.begun(places.get(key) ?? 0);
        hear({ kind: 'begun', key });
        break;
      case 'waiting':
        hear({ kind: 'lost', key });
        break;
      case 'progress':
        hear({ kind: 'part', key, part: news.part });
        break;
      case 'failed':
        fail(reasonOf(news.why));
        break;
      case 'completed':
        if (news.result === null) return;
        try {
          hear({ kind: 'done', key, text: resultOf(news.result) });
        } catch (thrown) {
          fail(thrown);
        }
    }
  }

  #placesOf({ owner, plan }: Work): ReadonlyMap<TaskKey, number> {
    const tasks = plan.flatMap(({ tasks }, group) =>
      tasks.map(({ seconds }, i) => ({ key: taskKey(group, i), seconds })),
    );
    const places = this.#order.places(
      owner,
      tasks.map(({ seconds }) => seconds),
    );
    const byKey = new Map(tasks.map(({ key }, i) => [key, places[i] ?? 0]));
    // what completes a group is done as soon as it can be
    for (const group of plan.keys())
      byKey.set(taskKey(group, null), byKey.get(taskKey(group, 0)) ?? places[0] ?? 0);
    return byKey;
  }

  /** Sees to it that the job is in the queue; what of it is done already is heard again. */
  async #ensure(followed: Followed): Promise<void> {
    const { id } = followed.work;
    this.#dropped.delete(id);
    const state = await this.#queue.getJobState(id);
    if (state === 'unknown') await this.#flows.add(this.#flowOf(followed));
    else if (state === 'completed') await this.#collect(followed);
    else if (state === 'failed') {
      const whole = await this.#queue.getJob(id);
      followed.fail(reasonOf(whole?.failedReason ?? 'it failed'));
    } else await this.#catchUp(followed);
  }

  #flowOf({ work, places }: Followed): FlowJob {
    const { id, request, plan } = work;
    const entry = (key: TaskKey, task: EntryData): Omit<FlowJob, 'children'> => ({
      name: task.kind,
      queueName: TASKS,
      data: task,
      opts: {
        jobId: entryId(id, key),
        priority: 1 + (places.get(key) ?? 0),
        failParentOnFailure: true,
        removeOnComplete: true,
      },
    });
    const whole: WholeData = { kind: 'whole', request, limit: this.options.limit, isDropped: false };
    return {
      name: 'whole',
      queueName: TASKS,
      data: whole,
      // a server that ends in between leaves it behind
      opts: { jobId: id, priority: 1, removeOnComplete: FORGOTTEN, removeOnFail: FORGOTTEN },
      children: plan.map(({ tasks, last }, group) => {
        const key = taskKey(group, null);
        return {
          ...entry(key, { kind: 'task', whole: id, key, task: last.task }),
          children: tasks.map(({ task }, i) => {
            const own = taskKey(group, i);
            return entry(own, { kind: 'task', whole: id, key: own, task });
          }),
        };
      }),
    };
  }

  /** Hears again what is done, where news may have been missed. */
  async #catchUp({ work, hear, fail }: Followed): Promise<void> {
    const told = (values: Readonly<Record<string, EntryResult>>): void => {
      for (const [name, result] of Object.entries(values)) {
        const { key } = entryOf(name.split(':').at(-1) ?? '');
        if (key !== null && result !== null) hear({ kind: 'done', key, text: resultOf(result) });
      }
    };
    try {
      const whole = await this.#queue.getJob(work.id);
      told((await whole?.getChildrenValues<EntryResult>()) ?? {});
      for (const group of work.plan.keys()) {
        const last = await this.#queue.getJob(entryId(work.id, taskKey(group, null)));
        told((await last?.getChildrenValues<EntryResult>()) ?? {});
      }
    } catch (thrown) {
      fail(thrown);
    }
  }

  /** Takes the results of a job that is done. */
  async #collect({ work, end }: Followed): Promise<void> {
    const whole = await this.#queue.getJob(work.id);
    const values = Object.entries((await whole?.getChildrenValues<EntryResult>()) ?? {})
      .map(([name, result]) => ({ place: placeOf(name), result }))
      .sort((a, b) => a.place - b.place);
    if (values.length !== work.plan.length) throw new Error('results of this job are missing in the queue');
    end(values.flatMap(({ result }) => (result === null ? [] : [resultOf(result)])));
  }

  /** Takes a job out of the queue; workers that do one of its tasks end it, and the rest follows when they are free. */
  async #drop(id: string): Promise<void> {
    this.#dropped.add(id);
    if (!this.#isReached) return;
    try {
      if ((await this.#queue.remove(id, { removeChildren: true })) === 1) this.#dropped.delete(id);
      else {
        const whole = await Job.fromId<EntryData>(this.#queue, id);
        if (whole?.data.kind === 'whole') await whole.updateData({ ...whole.data, isDropped: true });
        await this.#events.publishEvent({ eventName: DROPPED, whole: id });
      }
    } catch (thrown) {
      this.#logger.warn(`job ${id} is still in the queue: ${String(thrown)}`);
    }
  }

  /**
   * Goes after jobs that are to leave, and those of which nothing was heard: a queue that lost its memory gets them
   * again.
   *
   * @param isBack whether the queue was away before
   */
  async #tidy(isBack: boolean): Promise<void> {
    if (this.#isTidying) return;
    this.#isTidying = true;
    try {
      for (const id of this.#dropped) {
        if ((await this.#queue.getJobState(id)) === 'unknown') this.#dropped.delete(id);
        else await this.#drop(id);
      }
      for (const followed of this.#followed.values()) {
        if (!isBack && Date.now() - followed.heardAt < SILENCE) continue;
        followed.heardAt = Date.now();
        await this.#ensure(followed);
      }
    } catch (thrown) {
      this.#logger.warn(`the queue does not answer: ${String(thrown)}`);
    } finally {
      this.#isTidying = false;
    }
  }
}

/** Why a signal ends a job. */
function reasonOfSignal({ reason }: AbortSignal): Error {
  return reason instanceof Error ? reason : new Error(String(reason));
}

const quiet = (): void => undefined;

/** Why an entry failed, as a reason for the person who asked for its job. */
function reasonOf(why: string): Error {
  return /stalled/.test(why)
    ? new JobRefusal(
        'every worker that took one of its runs ended without a result; use fewer steps or components',
      )
    : new Error(why);
}
