import { runKey, type StudyDocument } from '@schritt/core/document';
import { LRUCache } from 'lru-cache';
import type { MethodRun, StudyResult } from '@schritt/core/study';
import { cancelJob, followJob, type FollowedJob, type ServerWork } from '../api/jobs.ts';
import { Computer, Superseded } from './computer.ts';
import { type EarlyStudy, isSameStudy, SHORT, takeEarly } from './early-study.ts';

/** A study under way: what is there so far, and the part of it that is done. */
export interface SoFar {
  readonly result: StudyResult | null;
  readonly part: number;
  /** How far it is on the server, where it goes on without this page; null where it runs here. */
  readonly onServer: ServerWork | null;
}

/** Runs of methods that are remembered, so that a change runs again only what depends on it. */
const MAX_REMEMBERED = 60;
/** Milliseconds between two looks at a study that is not finished. */
const LOOK = 250;

/** Studies that take longer than that many seconds run on the server. */
const LONG = 4;

interface Task {
  readonly key: string;
  readonly method: number;
}

/**
 * Runs studies on several workers, one method on each, and says what the runs mean on another; long ones run on the
 * server. A newer study makes the older one void; runs that both share are not done twice.
 */
export class StudyComputer {
  readonly #runners: readonly Computer[];
  /** What was asked before this was made, until the first study is run. */
  #early: EarlyStudy | null = takeEarly();
  readonly #judge = this.#early?.computer ?? new Computer();
  readonly #known = new LRUCache<string, MethodRun>({ max: MAX_REMEMBERED });
  #job: FollowedJob | null = null;
  /** Jobs that a newer study made void before the server had told of them. */
  readonly #void = new Set<string>();
  #goesOn = false;
  #asked = 0;
  /** Which of the studies that were asked for was sent to the server last. */
  #sent = 0;

  constructor(cores: number = navigator.hardwareConcurrency) {
    this.#runners = Array.from({ length: Math.max(1, Math.min(8, cores)) }, () => new Computer());
  }

  /**
   * @param soFar called with the progress of the study and its partial results
   * @throws Superseded where a newer study was asked for, Error where the program failed
   */
  async run(document: StudyDocument, soFar: (state: SoFar) => void): Promise<StudyResult> {
    const early = this.#takeEarly(document);
    if (early === null) this.#supersede();
    else this.#asked += 1;
    this.#goesOn = false;
    const asked = this.#asked;
    const tasks = document.methods.map((_, method): Task => ({ key: runKey(document, method), method }));
    const partial = document.methods.map(({ title }, method): MethodRun => {
      const known = this.#known.get(tasks[method]?.key ?? '');
      return known === undefined ? { title, rungs: [], refused: null } : { ...known, title };
    });
    const waiting = tasks.filter(({ key }) => !this.#known.has(key));
    const parts = new Map(waiting.map(({ method }) => [method, 0]));
    if (waiting.length > 0) {
      const known = tasks.map(({ key }, i) => (this.#known.has(key) ? (partial[i] ?? null) : null));
      const answer = await (early ??
        this.#judge.ask('whole', { document, known, maxSeconds: SHORT }, (part) =>
          soFar({ result: null, part, onServer: null }),
        ));
      if (asked !== this.#asked) throw new Superseded();
      if (answer.kind === 'done') {
        this.#dropJob();
        answer.runs.forEach((run, method) => this.#known.set(tasks[method]?.key ?? '', run));
        return answer.result;
      }
      if (answer.seconds > LONG) {
        const runs = await this.#onServer(document, soFar);
        if (asked !== this.#asked) throw new Superseded();
        runs.forEach((run, method) => this.#known.set(tasks[method]?.key ?? '', run));
        return this.#conclude(document, runs);
      }
    }
    this.#dropJob();
    const look = this.#looker(document, partial, parts, soFar);
    const queue = [...waiting];
    const work = async (runner: Computer): Promise<void> => {
      for (let task = queue.shift(); task !== undefined; task = queue.shift()) {
        const { key, method } = task;
        const title = document.methods[method]?.title ?? '';
        const run = await runner.ask('method', { document, method }, (part, finished) => {
          parts.set(method, part);
          const before = partial[method]?.rungs ?? [];
          partial[method] = { title, rungs: [...before, ...finished], refused: null };
          look();
        });
        parts.set(method, 1);
        this.#known.set(key, run);
        partial[method] = run;
      }
    };
    try {
      await Promise.all(this.#runners.slice(0, waiting.length).map(work));
    } catch (thrown) {
      if (asked === this.#asked) this.cancel();
      throw thrown;
    }
    if (asked !== this.#asked) throw new Superseded();
    return this.#conclude(document, partial);
  }

  /** The answer that was asked for early, where the first study is the one that it is about. */
  #takeEarly(document: StudyDocument): EarlyStudy['answer'] | null {
    const early = this.#early;
    this.#early = null;
    return early !== null && isSameStudy(early.question.document, document) ? early.answer : null;
  }

  /** Ends the study under way, on the server too. */
  cancel(): void {
    this.#supersede();
    this.#dropJob();
  }

  /** Lets a study on the server go on when the page goes, to be found again. */
  continueInBackground(): void {
    this.#goesOn = true;
  }

  /** Ends what runs here, and on the server as well unless it was to go on. */
  close(): void {
    this.#supersede();
    if (this.#goesOn) this.#job?.leave();
    else this.#dropJob();
    for (const computer of [...this.#runners, this.#judge]) computer.close();
  }

  #supersede(): void {
    this.#asked += 1;
    for (const computer of [...this.#runners, this.#judge]) computer.cancel();
  }

  #dropJob(): void {
    this.#job?.leave();
    const ended = [...this.#void, ...(this.#job === null ? [] : [this.#job.id])];
    // a job that is over already, or a server that is gone, leaves nothing to end
    for (const id of ended) cancelJob(id).catch(() => undefined);
    this.#void.clear();
    this.#job = null;
  }

  /** Ends all jobs but one, which a newer study has found again. */
  #dropOthers(id: string): void {
    this.#void.delete(id);
    if (this.#job !== null && this.#job.id !== id) this.#dropJob();
    for (const other of this.#void) cancelJob(other).catch(() => undefined);
    this.#void.clear();
  }

  async #onServer(document: StudyDocument, soFar: (state: SoFar) => void): Promise<readonly MethodRun[]> {
    const asked = this.#asked;
    let at: ServerWork = { part: 0, done: 0, of: 0, workers: null, isReached: true };
    soFar({ result: null, part: 0, onServer: at });
    this.#sent = asked;
    const job = await followJob(
      document,
      (now) => {
        at = now;
        if (asked === this.#asked) soFar({ result: null, part: now.part, onServer: now });
      },
      (runs) => {
        if (asked !== this.#asked) return;
        this.#conclude(document, runs)
          .then((result) => {
            if (asked === this.#asked) soFar({ result, part: at.part, onServer: at });
          })
          // a look that comes too late is followed by the study itself
          .catch(() => undefined);
      },
    ).catch((thrown: unknown) => {
      if (asked === this.#asked) this.#dropJob();
      throw thrown;
    });
    if (asked !== this.#asked) {
      job.leave();
      // the newest study may be the same run, of which the server has not told yet
      if (this.#sent === this.#asked && this.#job === null) this.#void.add(job.id);
      else if (this.#job?.id !== job.id && !this.#goesOn) cancelJob(job.id).catch(() => undefined);
      throw new Superseded();
    }
    // a change that touches no run, such as a strike, finds the same job again
    this.#dropOthers(job.id);
    this.#job = job;
    try {
      return await job.runs;
    } catch (thrown) {
      if (asked !== this.#asked) throw new Superseded();
      throw thrown;
    } finally {
      if (this.#job === job) this.#job = null;
    }
  }

  #conclude(document: StudyDocument, runs: readonly MethodRun[]): Promise<StudyResult> {
    return this.#judge.ask('conclude', { document, runs });
  }

  /** Now and then says what is there so far. */
  #looker(
    document: StudyDocument,
    partial: readonly MethodRun[],
    parts: ReadonlyMap<number, number>,
    soFar: (state: SoFar) => void,
  ): () => void {
    const asked = this.#asked;
    let last = -Infinity;
    let busy = false;
    return () => {
      const all = [...parts.values()];
      const part = all.reduce((sum, one) => sum + one, 0) / Math.max(1, all.length);
      soFar({ result: null, part, onServer: null });
      if (busy || performance.now() - last < LOOK) return;
      busy = true;
      this.#conclude(document, partial)
        .then((result) => {
          last = performance.now();
          if (asked === this.#asked) soFar({ result, part, onServer: null });
        })
        // a look that fails or comes too late is followed by the study itself
        .catch(() => undefined)
        .finally(() => (busy = false));
    };
  }
}
