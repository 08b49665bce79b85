import { join } from 'node:path';
import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import type { StudyDocument } from '@schritt/core/document';
import type { MethodRun } from '@schritt/core/study';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import type { MethodAnswer, MethodTask, Sign } from './run-method.worker.ts';
import { ranOutOfMemory, resourceLimits, THREAD_OPTIONS, type ThreadOptions } from './thread-options.ts';

/** Bytes that the results of one job may take. */
const MAX_BYTES = 32e6;

/** A job that was ended because of what it needs: a sentence for the person who asked for it. */
export class JobRefusal extends Error {
  override readonly name = 'JobRefusal';
}

/** Worker threads that run methods of studies; the thread that answers requests stays free. */
@Injectable()
export class StudyPool implements OnModuleDestroy {
  readonly #options: ThreadOptions;
  #pool: Piscina<MethodTask, MethodAnswer> | null = null;

  constructor(@Inject(THREAD_OPTIONS) options: ThreadOptions) {
    this.#options = options;
  }

  /**
   * Runs all methods of a study, as many at a time as there are threads.
   *
   * @param progress told the part of all that is done, and what each method has come to
   * @throws JobRefusal where it needs more memory or its results more room than they may have
   * @throws Error named AbortError when the signal ends it
   */
  async run(
    document: StudyDocument,
    signal: AbortSignal,
    progress: (part: number, runs: readonly MethodRun[]) => void,
  ): Promise<readonly MethodRun[]> {
    this.#pool ??= new Piscina<MethodTask, MethodAnswer>({
      filename: join(this.#options.workers, 'run-method.worker.js'),
      resourceLimits: resourceLimits(this.#options),
      minThreads: 0,
      maxThreads: Math.max(1, availableParallelism() - 1),
      idleTimeout: 10_000,
    });
    const pool = this.#pool;
    const failed = new AbortController();
    const ends = AbortSignal.any([signal, failed.signal]);
    const parts = document.methods.map(() => 0);
    const runs = document.methods.map(({ title }): MethodRun => ({ title, rungs: [], refused: null }));
    const runOne = async (method: number): Promise<MethodRun> => {
      const { port1, port2 } = new MessageChannel();
      const tell = (part: number): void => {
        parts[method] = part;
        progress(parts.reduce((sum, one) => sum + one, 0) / parts.length, runs);
      };
      port1.on('message', ({ part, finished }: Sign) => {
        const { title, rungs } = runs[method]!;
        runs[method] = { title, rungs: [...rungs, ...finished], refused: null };
        tell(part);
      });
      try {
        const task = { document, method, port: port2, mostBytes: MAX_BYTES / document.methods.length };
        const run = await pool.run(task, { signal: ends, transferList: [port2] });
        if (run === null)
          throw new JobRefusal(
            `its results take more than ${MAX_BYTES / 1e6} megabytes; use fewer step sizes, methods or components`,
          );
        runs[method] = run;
        tell(1);
        return run;
      } catch (thrown) {
        if (ranOutOfMemory(thrown))
          throw new JobRefusal('it needs more memory than a thread may have; use fewer steps or components');
        throw thrown;
      } finally {
        port1.close();
      }
    };
    const failures: Error[] = [];
    const all = await Promise.all(
      document.methods.map(async (_, method) => {
        try {
          return await runOne(method);
        } catch (thrown) {
          // what one method cannot have ends the others, too; theirs is no reason of its own
          failures.push(thrown instanceof Error ? thrown : new Error(String(thrown)));
          failed.abort();
          return null;
        }
      }),
    );
    const [first] = failures;
    if (first !== undefined) throw first;
    return all.filter((run) => run !== null);
  }

  async onModuleDestroy(): Promise<void> {
    await this.#pool?.destroy();
  }
}
