import { Piscina } from 'piscina';

/** Runs tasks one after another on a worker thread; the time limit of a task begins when its turn comes. */
export class Lane<Task, Answer> {
  readonly #make: () => Piscina<Task, Answer>;
  #pool: Piscina<Task, Answer> | null = null;
  #last: Promise<unknown> = Promise.resolve();
  #waiting = 0;

  /** @param make builds a pool of at most one thread when the first task comes */
  constructor(make: () => Piscina<Task, Answer>) {
    this.#make = make;
  }

  /** Tasks that wait or run. */
  get waiting(): number {
    return this.#waiting;
  }

  /**
   * @param limit milliseconds that the task may run
   * @throws LaneTimeout where it takes longer; whatever the task itself throws
   */
  async run(task: Task, limit: number): Promise<Answer> {
    this.#waiting += 1;
    const turn = this.#last.then(() => this.#runNow(task, limit));
    this.#last = turn.catch(() => undefined);
    try {
      return await turn;
    } finally {
      this.#waiting -= 1;
    }
  }

  async close(): Promise<void> {
    await this.#pool?.destroy();
  }

  async #runNow(task: Task, limit: number): Promise<Answer> {
    this.#pool ??= this.#make();
    const signal = AbortSignal.timeout(limit);
    try {
      return await this.#pool.run(task, { signal });
    } catch (thrown) {
      throw signal.aborted ? new LaneTimeout() : thrown;
    }
  }
}

/** A task was stopped because it ran longer than it may. */
export class LaneTimeout extends Error {
  override readonly name = 'LaneTimeout';
}
