import { setMaxListeners } from 'node:events';
import { Inject, Injectable } from '@nestjs/common';
import PQueue from 'p-queue';
import { type PlannedTask, taskKey, type TaskKey } from '../tasks/task.ts';
import { TaskPool } from '../threads/task-pool.ts';
import { Engine, type EngineState, resultOf, type TaskEvent, type Work } from './engine.ts';
import { FairOrder } from './fair-order.ts';

/** Does tasks on threads of this process; what is under way ends with it. */
@Injectable()
export class EmbeddedEngine extends Engine {
  readonly outlivesServer = false;
  readonly state: EngineState = { workers: null, isReached: true };
  readonly #pool: TaskPool;
  readonly #queue: PQueue;
  readonly #order = new FairOrder();

  constructor(@Inject(TaskPool) pool: TaskPool) {
    super();
    this.#pool = pool;
    this.#queue = new PQueue({ concurrency: pool.threads });
    this.#queue.on('idle', () => this.#order.reset());
  }

  async run(
    { owner, request, plan }: Work,
    signal: AbortSignal,
    hear: (event: TaskEvent) => void,
  ): Promise<readonly string[]> {
    const failed = new AbortController();
    const ends = AbortSignal.any([signal, failed.signal]);
    // each task listens
    setMaxListeners(0, ends);
    const done = (
      { task }: PlannedTask,
      key: TaskKey,
      place: number,
      results: readonly string[],
    ): Promise<string> =>
      this.#queue.add(
        async () => {
          this.#order.begun(place);
          hear({ kind: 'begun', key });
          const outcome = await this.#pool.run({ request, task, results }, ends, (part) =>
            hear({ kind: 'part', key, part }),
          );
          const text = resultOf(outcome);
          hear({ kind: 'done', key, text });
          return text;
        },
        { priority: -place, signal: ends },
      );
    const groups = plan.map(async ({ tasks, last }, group) => {
      const places = this.#order.places(
        owner,
        tasks.map(({ seconds }) => seconds),
      );
      const results = await Promise.all(
        tasks.map((task, i) => done(task, taskKey(group, i), places[i] ?? 0, [])),
      );
      return done(last, taskKey(group, null), places[0] ?? 0, results);
    });
    const ended = await Promise.allSettled(
      groups.map(async (group) => {
        try {
          return await group;
        } catch (thrown) {
          // what one group cannot have ends the others, too
          if (!ends.aborted) failed.abort(thrown);
          throw thrown;
        }
      }),
    );
    ends.throwIfAborted();
    return ended.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
  }
}
