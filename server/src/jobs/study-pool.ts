import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import type { StudyDocument } from '@schritt/core/document';
import type { MethodRun } from '@schritt/core/study';
import { Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import type { MethodTask, Sign } from './run-method.worker.ts';

/** How jobs are run. */
export interface JobOptions {
  /** The compiled worker file. */
  readonly worker: string;
  /** After this many seconds a job is ended. */
  readonly limit: number;
}

export const JOB_OPTIONS = Symbol('job options');

/** Worker threads that run methods of studies; the thread that answers requests stays free. */
@Injectable()
export class StudyPool implements OnModuleDestroy {
  readonly #worker: string;
  #pool: Piscina<MethodTask, MethodRun> | null = null;

  constructor(@Inject(JOB_OPTIONS) options: JobOptions) {
    this.#worker = options.worker;
  }

  /**
   * Runs all methods of a study, as many at a time as there are threads.
   *
   * @param progress told the part of all that is done, and what each method has come to
   * @throws Error named AbortError when the signal ends it
   */
  async run(
    document: StudyDocument,
    signal: AbortSignal,
    progress: (part: number, runs: readonly MethodRun[]) => void,
  ): Promise<readonly MethodRun[]> {
    this.#pool ??= new Piscina<MethodTask, MethodRun>({
      filename: this.#worker,
      minThreads: 0,
      maxThreads: Math.max(1, availableParallelism() - 1),
      idleTimeout: 10_000,
    });
    const pool = this.#pool;
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
        const run = await pool.run({ document, method, port: port2 }, { signal, transferList: [port2] });
        runs[method] = run;
        tell(1);
        return run;
      } finally {
        port1.close();
      }
    };
    return Promise.all(document.methods.map((_, method) => runOne(method)));
  }

  async onModuleDestroy(): Promise<void> {
    await this.#pool?.destroy();
  }
}
