import { LRUCache } from 'lru-cache';
import { throttle } from 'throttle-debounce';
import type { StudentMarking, Submission } from '@schritt/core/marking';
import type { MarkingKeys } from '../worker/marking-answers.ts';
import { Computer, Superseded } from '../worker/computer.ts';

/** What is to be marked. */
export interface ClassWork {
  readonly keys: MarkingKeys;
  readonly submissions: readonly Submission[];
  /** Sheets that a person has set, by student. */
  readonly sheets: Readonly<Record<string, number>>;
}

/** Students whose marking is remembered, so that a change marks again only what it touches. */
const MAX_REMEMBERED = 1_000;

/** Milliseconds between two reports: a page that renders its list for each student has no time for anything else. */
const BETWEEN = 250;

/**
 * Marks a class on several workers, one student on each at a time. A newer class makes the older one void.
 * One core is left to the page: while all are busy, it is the frames that wait.
 */
export class MarkingComputer {
  readonly #runners: readonly Computer[];
  readonly #known = new LRUCache<string, StudentMarking>({ max: MAX_REMEMBERED });
  #asked = 0;

  constructor(cores: number = navigator.hardwareConcurrency) {
    this.#runners = Array.from({ length: Math.max(1, Math.min(8, cores - 1)) }, () => new Computer());
  }

  /**
   * @param soFar receives the part of the students that is marked, and those, in their order
   * @throws Superseded where a newer class was asked for, Error where the program failed
   */
  async run(
    { keys, submissions, sheets }: ClassWork,
    soFar: (part: number, students: readonly StudentMarking[]) => void,
  ): Promise<readonly StudentMarking[]> {
    this.cancel();
    const asked = this.#asked;
    const run = JSON.stringify(keys);
    const tasks = submissions.map((submission) => {
      const sheet = sheets[submission.student] ?? null;
      return { submission, sheet, key: JSON.stringify([run, submission, sheet]) };
    });
    const marked = tasks.map(({ key }) => this.#known.get(key) ?? null);
    const there = (): readonly StudentMarking[] => marked.filter((one) => one !== null);
    const report = throttle(BETWEEN, () => {
      const done = there();
      soFar(done.length / tasks.length, done);
    });
    let next = 0;
    const work = async (runner: Computer): Promise<void> => {
      while (next < tasks.length) {
        const at = next;
        next += 1;
        const task = tasks[at];
        if (task === undefined || marked[at] !== null) continue;
        const { submission, sheet, key } = task;
        const student = await runner.ask('marked', { keys, submission, sheet });
        if (asked !== this.#asked) throw new Superseded();
        this.#known.set(key, student);
        marked[at] = student;
        report();
      }
    };
    try {
      await Promise.all(this.#runners.map(work));
    } finally {
      report.cancel();
    }
    return there();
  }

  cancel(): void {
    this.#asked += 1;
    for (const runner of this.#runners) runner.cancel();
  }

  close(): void {
    this.#asked += 1;
    for (const runner of this.#runners) runner.close();
  }
}
