/** Seconds of work that one unit of the order stands for. */
const UNIT = 0.1;

/**
 * In which order tasks of several owners are done, so that each gets the same share of time while they compete, however many tasks
 * one of them has. An owner's tasks are placed one after another by their time, beginning at where the queue is.
 *
 * Source: start-time fair queueing; P. Goyal, H. M. Vin, H. Cheng, IEEE/ACM Transactions on Networking 5 (1997) 690.
 */
export class FairOrder {
  readonly #limit: number;
  /** The place of the task that was begun last. */
  #now = 0;
  /** Where the next task of an owner is placed. */
  readonly #next = new Map<string, number>();

  /** @param limit the largest place; tasks beyond it share that place */
  constructor(limit = Infinity) {
    this.#limit = limit;
  }

  /**
   * The places of tasks: a task with a smaller place is done first.
   *
   * @param seconds about how long each takes
   */
  places(owner: string, seconds: readonly number[]): readonly number[] {
    let next = Math.max(this.#now, this.#next.get(owner) ?? 0);
    const places = seconds.map((one) => {
      const own = next;
      next += Math.max(1, Math.round(one / UNIT));
      return Math.min(this.#limit, own);
    });
    this.#next.set(owner, next);
    return places;
  }

  /** A task at that place was begun. */
  begun(place: number): void {
    this.#now = Math.max(this.#now, place);
  }

  /** No task is left: the order begins anew. */
  reset(): void {
    this.#now = 0;
    this.#next.clear();
  }
}
