import { LRUCache } from 'lru-cache';
import type { Method } from '../../method/method.ts';
import { precisionKey } from '../../compile/precision.ts';
import type { TitledMethod } from '../../compile/starting-chain.ts';
import type { Problem } from '../../problem/problem.ts';
import { attempt } from '../../text/refusal.ts';
import { runTrial, type Trial } from '../trial-run.ts';
import type { Change } from './change.ts';
import { methodChanges } from './method-changes.ts';
import { problemChanges } from './problem-changes.ts';
import { runChanges } from './run-changes.ts';

/** Values of the first rows of a run after the initial ones, row by row; null where it cannot be run. */
export type FirstRows = readonly number[] | null;

/** First rows that are kept at most: those by starting methods, and the first one by the method itself. */
const MAX_ROWS = 5;

/** The run with some changes; null where they cannot be made in it. */
export function changedTrial(trial: Trial, changes: readonly Change[]): Trial | null {
  const withAll = (list: readonly Change[]): Trial | null =>
    list.reduce<Trial | null>((changed, change) => changed && change.apply(changed), trial);
  // what is changed within a changed part has to be changed first
  return withAll(changes) ?? withAll([...changes].reverse());
}

/**
 * What is known of a run whatever the rows of a student are: the mistakes that may be made in it, and the first rows with each of
 * them. A class is held against one run, so that what takes long is done for its first student alone.
 */
export class KnownRun {
  readonly changes: readonly Change[];
  readonly #trial: Trial;
  readonly #places: ReadonlyMap<Change, number>;
  readonly #first = new Map<number, FirstRows>();

  constructor(trial: Trial, method: Method, others: readonly TitledMethod[], title: string) {
    this.#trial = trial;
    this.changes = [
      ...methodChanges(method),
      ...problemChanges(trial.problem),
      ...runChanges(trial, others, title),
    ];
    this.#places = new Map(this.changes.map((change, i) => [change, i]));
  }

  /** The first rows with some changes; undefined where one of them is not of this run, or shifts rows. */
  firstRows(changes: readonly Change[]): FirstRows | undefined {
    const places = changes.map((change) => (change.shift === 0 ? (this.#places.get(change) ?? -1) : -1));
    if (places.includes(-1)) return undefined;
    const key = places.reduce((sum, place) => sum * (this.changes.length + 1) + place + 1, 0);
    const known = this.#first.get(key);
    if (known !== undefined) return known;
    const found = this.#run(changes);
    this.#first.set(key, found);
    return found;
  }

  #run(changes: readonly Change[]): FirstRows {
    const changed = changedTrial(this.#trial, changes);
    if (changed === null) return null;
    const depth = Math.max(0, ...this.#trial.methods.map((method) => method.depth));
    const steps = Math.min(MAX_ROWS, depth + 1);
    const rows: number[] = [];
    const run = attempt(() =>
      runTrial({ ...changed, steps }, ({ n, values }) => {
        for (let j = 0; n > 0 && j < values.length; j += 1) rows.push(values[j] ?? NaN);
        return true;
      }),
    );
    // what cannot be run with a change is not what a student did
    return run.ok ? rows : null;
  }
}

const known = new WeakMap<Problem, WeakMap<Method, LRUCache<string, KnownRun>>>();

/** Runs of one method for one problem that are remembered. */
const MAX_RUNS = 4;

/**
 * What is known of a run.
 *
 * @param others methods that may have been used instead, such as those of the study
 */
export function knownRun(
  trial: Trial,
  method: Method,
  others: readonly TitledMethod[],
  title: string,
): KnownRun {
  const { problem, initial, h, steps, shorter, precision, exactStart, methods } = trial;
  const ofProblem = known.get(problem) ?? new WeakMap<Method, LRUCache<string, KnownRun>>();
  known.set(problem, ofProblem);
  const runs = ofProblem.get(method) ?? new LRUCache<string, KnownRun>({ max: MAX_RUNS });
  ofProblem.set(method, runs);
  const key = JSON.stringify([
    [initial, h, steps, shorter, precisionKey(precision), exactStart, title],
    methods.map(({ text }) => text),
    others.map((one) => [one.title, one.method.text]),
  ]);
  const found = runs.get(key) ?? new KnownRun(trial, method, others, title);
  runs.set(key, found);
  return found;
}
