import { join } from 'node:path';
import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import type { TaskInput, TaskOutcome } from '../tasks/task.ts';
import type { ThreadTask } from './task.worker.ts';
import { ranOutOfMemory, resourceLimits, THREAD_OPTIONS, type ThreadOptions } from './thread-options.ts';

/** Worker threads that do tasks of jobs; the thread that answers requests stays free. */
@Injectable()
export class TaskPool implements OnModuleDestroy {
  readonly #options: ThreadOptions;
  /** Tasks that are done at a time. */
  readonly threads: number;
  #pool: Piscina<ThreadTask, TaskOutcome> | null = null;

  constructor(@Inject(THREAD_OPTIONS) options: ThreadOptions) {
    this.#options = options;
    this.threads = options.threads ?? Math.max(1, availableParallelism() - 1);
  }

  /**
   * Does a task when a thread is free.
   *
   * @param report told the part of the task that is done, now and then
   * @throws Error named AbortError when the signal ends it
   */
  async run(input: TaskInput, signal: AbortSignal, report: (part: number) => void): Promise<TaskOutcome> {
    this.#pool ??= new Piscina<ThreadTask, TaskOutcome>({
      filename: join(this.#options.workers, 'task.worker.js'),
      resourceLimits: resourceLimits(this.#options),
      minThreads: 0,
      maxThreads: this.threads,
      idleTimeout: 10_000,
    });
    const { port1, port2 } = new MessageChannel();
    port1.on('message', report);
    try {
      return await this.#pool.run({ ...input, port: port2 }, { signal, transferList: [port2] });
    } catch (thrown) {
      if (ranOutOfMemory(thrown))
        return {
          kind: 'refused',
          why: 'it needs more memory than a thread may have; use fewer steps or components',
        };
      throw thrown;
    } finally {
      port1.close();
    }
  }

  async onModuleDestroy(): Promise<void> {
    await this.#pool?.destroy();
  }
}
