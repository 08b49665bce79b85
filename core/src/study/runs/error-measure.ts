import type { Problem } from '../../problem/problem.ts';
import { timeAt } from '../../run/grid.ts';
import { hermite, type Knot } from '../../run/hermite.ts';
import { goTo, type RunState } from '../../run/integrate.ts';
import { travel } from '../../run/long-run.ts';
import { systemRightHandSides } from '../../compile/right-hand-sides.ts';
import type { GridMeasure } from '../measures/measure.ts';
import { type ErrorChoice, isRelative, measureOf } from './error-choice.ts';
import type { Truth } from './truth.ts';

/** An error at one time, with the size of what it is an error of. */
export interface PointError {
  readonly error: number;
  /** With its sign, for a single component: the value less the exact one. */
  readonly signed: number | null;
  /** Size of the exact values. */
  readonly size: number;
}

/** The error at a time and state. */
export type PointErrors = (t: number, state: ArrayLike<number>) => PointError;

/** The error of some components at a time and state: absolute, or relative to the size of the exact values. */
export function pointErrors(truth: Truth, places: readonly number[], choice: ErrorChoice): PointErrors {
  const relative = isRelative(choice);
  return (t, state) => {
    let sum = 0;
    let squares = 0;
    let difference = NaN;
    for (const place of places) {
      const value = truth.value(place, t);
      difference = state[place]! - value;
      sum += difference * difference;
      squares += value * value;
    }
    const size = Math.sqrt(squares);
    const error = places.length === 1 ? Math.abs(difference) : Math.sqrt(sum);
    return {
      error: relative ? error / size : error,
      signed: places.length === 1 ? (relative ? difference / size : difference) : null,
      size,
    };
  };
}

/** The error of a run, and where it was taken. */
export interface RunError extends PointError {
  /** The time of the error; null for a maximum or mean over the grid. */
  readonly t: number | null;
  /**
   * `between`: by a polynomial through the points about it. `nearest`: at the grid point nearest to the time asked for.
   */
  readonly how: 'grid' | 'between' | 'nearest';
}

/** Points whose values and slopes give a polynomial that adds far less than the error of a method of an order is. */
function knotsFor(order: number): number {
  return Math.max(2, Math.floor(order / 2) + 2);
}

/** A requested time this near to a grid point, in steps, is that point. */
const ON_GRID = 1e-9;

/** The error at a time that need be no grid point; the run goes on to the grid point after it. */
function* errorAtTime(at: RunState, t: number, taking: ErrorTaking): Generator<number, RunError | null> {
  const { problem, errorAt, order } = taking;
  const { grid } = at;
  const place = Math.min(grid.steps, Math.max(0, (t - grid.start) / grid.h));
  const nearest = Math.round(place);
  const onGrid = Math.abs(place - nearest) <= ON_GRID * Math.max(1, nearest);
  const count = order === null ? Infinity : knotsFor(order);
  if (onGrid || count > grid.steps + 1) {
    yield* travel(at, nearest);
    const reached = timeAt(grid, at.n);
    return at.stopped === null
      ? { ...errorAt(reached, at.state), t: reached, how: onGrid ? 'grid' : 'nearest' }
      : null;
  }
  const rightHandSides = systemRightHandSides(problem);
  const first = Math.min(grid.steps + 1 - count, Math.max(0, Math.floor(place) + 1 - (count >> 1)));
  const knots: Knot[] = [];
  for (let n = first; n < first + count; n += 1) {
    yield* travel(at, n);
    if (at.stopped !== null) return null;
    const [time, values] = [timeAt(grid, n), at.state.slice(0, problem.size)];
    knots.push({ t: time, values, slopes: rightHandSides(time, values) });
  }
  return { ...errorAt(t, hermite(knots, t)), t, how: 'between' };
}

/** The errors at all grid points as one number. */
function* errorOverGrid(
  at: RunState,
  errorAt: PointErrors,
  measure: GridMeasure,
): Generator<number, RunError> {
  const { grid } = at;
  const summary = measure.begin();
  let size = 0;
  for (;;) {
    const here = errorAt(timeAt(grid, at.n), at.state);
    summary.add(here.error);
    size = Math.max(size, here.size);
    if (at.n === grid.steps || at.stopped !== null) break;
    goTo(at, at.n + 1);
    if (at.n % 20_000 === 0) yield 20_000;
  }
  return { error: summary.value(), signed: null, size, t: null, how: 'grid' };
}

/** Which error of a run is taken. */
export interface ErrorTaking {
  readonly problem: Problem;
  readonly errorAt: PointErrors;
  readonly choice: ErrorChoice;
  /**
   * The order of the method, as far as it is known: it decides how many points a polynomial goes through that is good
   * enough for an error at a given time.
   */
  readonly order: number | null;
}

/**
 * Runs to the end and answers the chosen error; null where the values became infinite or undefined before it could be
 * taken, or nothing is known to compare with. Yields the steps that were done, many times a second.
 */
export function* errorOfRun(at: RunState, taking: ErrorTaking): Generator<number, RunError | null> {
  const { errorAt, choice } = taking;
  const { grid } = at;
  const measure = measureOf(choice);
  let result: RunError | null;
  if (measure?.kind === 'grid') result = yield* errorOverGrid(at, errorAt, measure);
  else if (typeof choice.at === 'object') {
    result = yield* errorAtTime(at, choice.at.t, taking);
    yield* travel(at, grid.steps);
  } else {
    const isLocal = measure?.kind === 'local';
    yield* travel(at, isLocal ? Math.min(grid.steps, at.run.program.depth + 1) : grid.steps);
    const t = timeAt(grid, at.n);
    result = { ...errorAt(t, at.state), t, how: 'grid' };
  }
  // an error at a time that was reached is valid, even if the values became infinite later
  const isReached = at.stopped === null || (typeof choice.at === 'object' && result !== null);
  return !isReached || result === null || Number.isNaN(result.error) ? null : result;
}
