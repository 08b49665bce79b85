import type { CompiledRun } from '../compile/compile.ts';
import { type Grid, timeAt } from './grid.ts';
import {
  begin,
  copyOf,
  goTo,
  type Outcome,
  outcomeOf,
  type RunState,
  watchTo,
  type ErrorOf,
} from './integrate.ts';
import { type Rows, rowsOf } from './rows.ts';

/** The points that are kept of one component: never an extreme is lost. */
export interface Thinned {
  readonly t: readonly number[];
  readonly values: readonly number[];
  /** Errors with more digits than a difference of doubles has; null where they are just that. */
  readonly errors: readonly number[] | null;
}

/** What is kept of a run, however long it was. */
export interface LongRun {
  readonly run: CompiledRun;
  readonly grid: Grid;
  /** One for each of the first components, at most MAX_KEPT. */
  readonly components: readonly Thinned[];
  /** Points to go on from, in the order of the grid; the first is the start. */
  readonly checkpoints: readonly RunState[];
  readonly outcome: Outcome;
}

/** Points that are kept of a component, about. */
export const KEPT_POINTS = 4_000;
/** Components whose points are kept; of a larger system the first ones. */
export const MAX_KEPT = 12;
/** Numbers that all checkpoints of a run may hold together, and how many there are at most. */
const CHECKPOINT_ROOM = 2_000_000;
const MAX_CHECKPOINTS = 500;
/** Work between two progress reports, in component steps: in doubles, and in decimals. */
const SLICE = 400_000;
const DECIMAL_SLICE = 400;

function sliceOf({ decimal, shape }: CompiledRun): number {
  return decimal === null
    ? Math.max(1, Math.floor(SLICE / shape.size))
    : Math.max(1, Math.floor(DECIMAL_SLICE / shape.size));
}

/**
 * Does a whole run and keeps a thinned trajectory and checkpoints. Up to KEPT_POINTS steps every point is kept; of
 * longer runs the smallest and the largest value of each component in every stretch.
 *
 * @param errorOf what the error of a component is at a point that is kept; null where nothing is to be said of it
 * @returns a generator that yields the part that is done, from 0 to 1, many times a second; the caller may stop
 * @throws Refusal as `begin`, when it is first pulled
 * @example [...keepRun(run, grid)]
 */
export function* keepRun(
  run: CompiledRun,
  grid: Grid,
  errorOf: ErrorOf | null = null,
): Generator<number, LongRun> {
  const at = begin(run, grid);
  const count = Math.min(run.shape.size, MAX_KEPT);
  const stretch = grid.steps <= KEPT_POINTS ? 1 : Math.ceil(grid.steps / (KEPT_POINTS / 2));
  const checkpointEvery = Math.ceil(
    grid.steps / Math.max(2, Math.min(MAX_CHECKPOINTS, Math.floor(CHECKPOINT_ROOM / run.shape.length))),
  );
  const kept = Array.from({ length: count }, (_, j) => ({
    t: [timeAt(grid, 0)],
    values: [at.state[j]!],
    errors: errorOf === null ? null : [errorOf(at, j)],
  }));
  const checkpoints: RunState[] = [copyOf(at)];
  const slice = sliceOf(run);
  let sinceYield = 0;
  let nextCheckpoint = checkpointEvery;
  while (at.n < grid.steps) {
    const from = at.n;
    const extremes = watchTo(at, Math.min(grid.steps, at.n + stretch), count, errorOf);
    if (at.n === from) break;
    kept.forEach((list, j) => {
      for (const { n, value, error = NaN } of extremes[j]!) {
        list.t.push(timeAt(grid, n));
        list.values.push(value);
        list.errors?.push(error);
      }
    });
    sinceYield += at.n - from;
    if (at.n >= nextCheckpoint) {
      checkpoints.push(copyOf(at));
      nextCheckpoint = at.n + checkpointEvery;
    }
    if (at.stopped !== null) break;
    if (sinceYield >= slice) {
      sinceYield = 0;
      yield at.n / grid.steps;
    }
  }
  const last = timeAt(grid, at.n);
  kept.forEach((list, j) => {
    if (list.t.at(-1) === last) return;
    list.t.push(last);
    list.values.push(at.state[j]!);
    if (errorOf !== null) list.errors?.push(errorOf(at, j));
  });
  return { run, grid, components: kept, checkpoints, outcome: outcomeOf(at) };
}

/**
 * Any window of rows of a kept run, computed again from the nearest checkpoint: the same bits as the first time.
 *
 * @example rowsAgain(longRun, 0, 3).rows.length // 3
 */
export function rowsAgain(longRun: LongRun, from: number, count: number, every = 1): Rows {
  const { run, grid, checkpoints } = longRun;
  const nearest = checkpoints.findLast((point) => point.n <= from) ?? checkpoints[0];
  const at = nearest === undefined ? begin(run, grid) : copyOf(nearest);
  return rowsOf(run, grid, { from, count, every }, at);
}

/** Goes on to a grid point, with a progress report after every slice of the work. */
export function* travel(at: RunState, until: number): Generator<number, void> {
  const slice = Math.max(at.decimals === null ? 64 : 1, sliceOf(at.run));
  while (at.n < until && at.stopped === null) {
    const from = at.n;
    goTo(at, Math.min(until, at.n + slice));
    yield at.n - from;
  }
}
