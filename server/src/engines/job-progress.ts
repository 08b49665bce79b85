import { type Plan, type PlannedTask, type TaskKey, taskKey, tasksByKey } from '../tasks/task.ts';
import type { TaskEvent } from './engine.ts';

/** How far a job is, from what happens to its tasks. */
export class JobProgress {
  readonly #plan: Plan;
  readonly #tasks: ReadonlyMap<TaskKey, PlannedTask>;
  readonly #results = new Map<TaskKey, string>();
  /** Parts of tasks under way, and when they were begun. */
  readonly #parts = new Map<TaskKey, number>();
  readonly #begun = new Map<TaskKey, number>();
  #seconds = 0;
  #bytes = 0;
  #part = 0;

  constructor(plan: Plan) {
    this.#plan = plan;
    this.#tasks = tasksByKey(plan);
  }

  /** @param now in milliseconds */
  hear(event: TaskEvent, now: number): void {
    const { key } = event;
    if (!this.#tasks.has(key) || this.#results.has(key)) return;
    switch (event.kind) {
      case 'begun':
        this.#begun.set(key, now);
        break;
      case 'part':
        this.#parts.set(key, event.part);
        break;
      case 'lost':
        this.#begun.delete(key);
        this.#parts.delete(key);
        break;
      case 'done':
        this.#seconds += (now - (this.#begun.get(key) ?? now)) / 1000;
        this.#begun.delete(key);
        this.#results.set(key, event.text);
        this.#bytes += event.text.length;
    }
  }

  /** The part of all time that is done; it never falls, also where a task is done once more. */
  get part(): number {
    let [done, all] = [0, 0];
    for (const [key, { seconds }] of this.#tasks) {
      const part = this.#results.has(key) ? 1 : (this.#parts.get(key) ?? 0);
      done += part * seconds;
      all += seconds;
    }
    this.#part = Math.max(this.#part, all > 0 ? Math.min(1, done / all) : 0);
    return this.#part;
  }

  /** Runs that are done, and all. */
  get runs(): { readonly done: number; readonly of: number } {
    let [done, of] = [0, 0];
    for (const [key, { runs }] of this.#tasks) {
      of += runs;
      if (this.#results.has(key)) done += runs;
    }
    return { done, of };
  }

  /**
   * Seconds that all tasks have taken so far, one after another.
   *
   * @param now in milliseconds
   */
  seconds(now: number): number {
    let seconds = this.#seconds;
    for (const begun of this.#begun.values()) seconds += (now - begun) / 1000;
    return seconds;
  }

  /** Bytes of all results so far. */
  get bytes(): number {
    return this.#bytes;
  }

  /** The results so far of each group: that of its last task, or those of the others. */
  get results(): readonly GroupResults[] {
    return this.#plan.map(({ tasks }, group) => ({
      last: this.#results.get(taskKey(group, null)) ?? null,
      pieces: tasks.flatMap((_, i) => this.#results.get(taskKey(group, i)) ?? []),
    }));
  }
}

/** What there is of a group of tasks. */
export interface GroupResults {
  readonly last: string | null;
  readonly pieces: readonly string[];
}
