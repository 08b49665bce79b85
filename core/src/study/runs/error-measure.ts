import type { Decimal } from 'decimal.js';
import { decimalNumbers } from '../../compile/decimal/decimal-numbers.ts';
import { wider } from '../../decimal/decimal-precision.ts';
import { decimalsOf } from '../../decimal/decimals.ts';
import type { Problem } from '../../problem/problem.ts';
import { decimalGrid, decimalTime } from '../../run/decimal-state.ts';
import { type Grid, timeAt } from '../../run/grid.ts';
import { type DecimalKnot, hermite, hermiteInDecimals, type Knot } from '../../run/hermite.ts';
import { fillRows, goTo, roomForRows, type RunState } from '../../run/integrate.ts';
import { travel } from '../../run/long-run.ts';
import { rhsInDecimals, systemRightHandSides } from '../../compile/right-hand-sides.ts';
import type { GridMeasure } from '../measures/measure.ts';
import { type ErrorChoice, isRelative, measureOf } from './error-choice.ts';
import type { DecimalTruth, Truth } from './truth.ts';

/** An error at one time, with the size of what it is an error of. */
export interface PointError {
  readonly error: number;
  /** With its sign, for a single component: the value less the exact one. */
  readonly signed: number | null;
  /** Size of the exact values. */
  readonly size: number;
  /** Estimated error of what it is taken against, on the same scale; 0 for the exact solution. */
  readonly doubt: number;
}

/** All digits of the values of a run in decimals, at a grid point or at a time between. */
export interface PointDigits {
  readonly values: readonly Decimal[];
  readonly at: { readonly grid: Grid; readonly n: number } | { readonly t: Decimal };
}

/** The error at a time and state; of a run in decimals with all digits of the state. */
export type PointErrors = (t: number, state: ArrayLike<number>, digits: PointDigits | null) => PointError;

/**
 * The errors of many rows of values at once.
 *
 * @param rows all components of the values at each time
 * @param errors takes an error a row
 * @returns the largest size of exact values, and the largest doubt, among them
 */
export type RowErrors = (
  times: Float64Array,
  rows: Float64Array,
  errors: Float64Array,
  count: number,
) => Pick<PointError, 'size' | 'doubt'>;

/** How errors are taken: at one point, and of many rows at once. */
export interface Errors {
  readonly at: PointErrors;
  readonly over: RowErrors;
}

/** All digits of the values of a run, where it has more than those of doubles. */
export function pointDigits({ decimals, run, grid, n }: RunState): PointDigits | null {
  return decimals && { values: decimals.values.slice(0, run.shape.size), at: { grid, n } };
}

/** The times of grid points to the digits of exact values. */
function exactTimes({ decimals, numbers }: DecimalTruth): (at: PointDigits['at']) => Decimal {
  let known: { readonly of: Grid; readonly grid: ReturnType<typeof decimalGrid> } | null = null;
  return (at) => {
    if ('t' in at) return at.t;
    if (known?.of !== at.grid) known = { of: at.grid, grid: decimalGrid({ decimals, numbers }, at.grid) };
    return decimalTime(known.grid, decimals, at.n);
  };
}

/** The errors of runs in decimals: differences with more digits than these have. */
function decimalErrors(
  truth: DecimalTruth,
  places: readonly number[],
  choice: ErrorChoice,
): (digits: PointDigits) => PointError {
  const { decimals } = truth;
  const timeOf = exactTimes(truth);
  const isOne = places.length === 1;
  return ({ values, at }) => {
    const t = timeOf(at);
    let [sum, squares, difference] = [decimals.zero, decimals.zero, decimals.zero];
    for (const place of places) {
      const value = truth.value(place, t);
      difference = decimals.from(values[place] ?? decimals.notANumber).minus(value);
      sum = sum.plus(difference.times(difference));
      squares = squares.plus(value.times(value));
    }
    const size = squares.sqrt();
    const scale = isRelative(choice) ? size : decimals.one;
    return {
      error: (isOne ? difference.abs() : sum.sqrt()).div(scale).toNumber(),
      signed: isOne ? difference.div(scale).toNumber() : null,
      size: size.toNumber(),
      doubt: truth.error * (isRelative(choice) ? 1 : size.toNumber()),
    };
  };
}

/**
 * The error of some components at a time and state: absolute, or relative to the size of the exact values.
 *
 * @param inDecimals what runs in decimals are compared with; null for runs in binary arithmetic, and where nothing is
 *   known with more digits
 */
export function pointErrors(
  truth: Truth,
  places: readonly number[],
  choice: ErrorChoice,
  inDecimals: DecimalTruth | null = null,
): PointErrors {
  const relative = isRelative(choice);
  const withDigits = inDecimals && decimalErrors(inDecimals, places, choice);
  return (t, state, digits) => {
    if (withDigits !== null && digits !== null) return withDigits(digits);
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
      doubt: truth.error * (relative ? 1 : size),
    };
  };
}

/** The errors of some components of rows: the same numbers as those of `pointErrors` at each of them. */
function rowErrors(size: number, truth: Truth, places: readonly number[], choice: ErrorChoice): RowErrors {
  const relative = isRelative(choice);
  const width = places.length;
  const at = Int32Array.from(places);
  let exact = new Float64Array(0);
  return (times, rows, errors, count) => {
    if (exact.length < count * width) exact = new Float64Array(count * width);
    truth.fill(places, times, count, exact);
    // the root of the largest is the largest root
    let most = 0;
    for (let r = 0; r < count; r += 1) {
      let sum = 0;
      let squares = 0;
      let difference = NaN;
      for (let k = 0; k < width; k += 1) {
        const value = exact[r * width + k]!;
        difference = rows[r * size + at[k]!]! - value;
        sum += difference * difference;
        squares += value * value;
      }
      const error = width === 1 ? Math.abs(difference) : Math.sqrt(sum);
      errors[r] = relative ? error / Math.sqrt(squares) : error;
      most = Math.max(most, squares);
    }
    const largest = Math.sqrt(most);
    return { size: largest, doubt: truth.error * (relative ? 1 : largest) };
  };
}

/** How the errors of the runs of a problem are taken; see `pointErrors`. */
export function errorsOf(
  { size }: Problem,
  truth: Truth,
  places: readonly number[],
  { choice, inDecimals }: { readonly choice: ErrorChoice; readonly inDecimals: DecimalTruth | null },
): Errors {
  return {
    at: pointErrors(truth, places, choice, inDecimals),
    over: rowErrors(size, truth, places, choice),
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
  const { problem, errors, order } = taking;
  const { grid } = at;
  const place = Math.min(grid.steps, Math.max(0, (t - grid.start) / grid.h));
  const nearest = Math.round(place);
  const onGrid = Math.abs(place - nearest) <= ON_GRID * Math.max(1, nearest);
  const count = order === null ? Infinity : knotsFor(order);
  if (onGrid || count > grid.steps + 1) {
    yield* travel(at, nearest);
    const reached = timeAt(grid, at.n);
    return at.stopped === null
      ? { ...errors.at(reached, at.state, pointDigits(at)), t: reached, how: onGrid ? 'grid' : 'nearest' }
      : null;
  }
  if (at.decimals !== null) return yield* errorBetween(at, t, taking, count);
  const rightHandSides = systemRightHandSides(problem);
  const first = Math.min(grid.steps + 1 - count, Math.max(0, Math.floor(place) + 1 - (count >> 1)));
  const knots: Knot[] = [];
  for (let n = first; n < first + count; n += 1) {
    yield* travel(at, n);
    if (at.stopped !== null) return null;
    const [time, values] = [timeAt(grid, n), at.state.slice(0, problem.size)];
    knots.push({ t: time, values, slopes: rightHandSides(time, values) });
  }
  return { ...errors.at(t, hermite(knots, t), null), t, how: 'between' };
}

/** Steps in decimals between two progress reports. */
const DECIMAL_STEPS = 200;

/** The same for a run in decimals, by a polynomial with more digits than it has. */
function* errorBetween(
  at: RunState,
  t: number,
  { problem, errors }: ErrorTaking,
  count: number,
): Generator<number, RunError | null> {
  const { grid, run } = at;
  const own = at.decimals;
  if (own === null) throw new Error('this run is not in decimals');
  const decimals = decimalsOf(wider(own.loop.decimals.workingDigits + MORE_DIGITS));
  const rightHandSides = rhsInDecimals(
    { problem, program: run.program, precision: decimals.precision },
    'first order',
  );
  const exact = { decimals, numbers: decimalNumbers(problem, decimals) };
  const times = decimalGrid(exact, grid);
  const place = Math.min(grid.steps, Math.max(0, (t - grid.start) / grid.h));
  const first = Math.min(grid.steps + 1 - count, Math.max(0, Math.floor(place) + 1 - (count >> 1)));
  const knots: DecimalKnot[] = [];
  for (let n = first; n < first + count; n += 1) {
    yield* travel(at, n);
    if (at.stopped !== null) return null;
    const values = own.values.slice(0, problem.size).map((value) => decimals.from(value));
    const time = decimalTime(times, decimals, n);
    knots.push({ t: time, values, slopes: rightHandSides(time, values) });
  }
  const wanted = decimals.fromDouble(t);
  const values = hermiteInDecimals(knots, wanted);
  const doubles = values.map((value) => value.toNumber());
  return { ...errors.at(t, doubles, { values, at: { t: wanted } }), t, how: 'between' };
}

/** Digits of a polynomial beyond those of the run it goes through. */
const MORE_DIGITS = 15;

/** Steps in doubles between two progress reports. */
const DOUBLE_STEPS = 20_000;

/** The errors at all grid points as one number. */
function* errorOverGrid(at: RunState, errors: Errors, measure: GridMeasure): Generator<number, RunError> {
  if (at.decimals !== null) return yield* errorOverDecimals(at, errors.at, measure);
  const { grid } = at;
  const summary = measure.begin();
  const first = errors.at(timeAt(grid, at.n), at.state, null);
  summary.add(first.error);
  let { size, doubt } = first;
  const rows = roomForRows(at.run);
  const room = rows.length / at.run.shape.size;
  const [times, own] = [new Float64Array(room), new Float64Array(room)];
  let sinceSign = 0;
  while (at.n < grid.steps && at.stopped === null) {
    const before = at.n;
    const count = fillRows(at, grid.steps, rows);
    for (let r = 0; r < count; r += 1) times[r] = timeAt(grid, before + 1 + r);
    const block = errors.over(times, rows, own, count);
    for (let r = 0; r < count; r += 1) summary.add(own[r]!);
    size = Math.max(size, block.size);
    doubt = Math.max(doubt, block.doubt);
    sinceSign += count;
    if (sinceSign < DOUBLE_STEPS) continue;
    yield sinceSign;
    sinceSign = 0;
  }
  return { error: summary.value(), signed: null, size, doubt, t: null, how: 'grid' };
}

/** The same for a run in decimals. */
function* errorOverDecimals(
  at: RunState,
  errorAt: PointErrors,
  measure: GridMeasure,
): Generator<number, RunError> {
  const { grid } = at;
  const summary = measure.begin();
  let [size, doubt] = [0, 0];
  for (;;) {
    const here = errorAt(timeAt(grid, at.n), at.state, pointDigits(at));
    summary.add(here.error);
    size = Math.max(size, here.size);
    doubt = Math.max(doubt, here.doubt);
    if (at.n === grid.steps || at.stopped !== null) break;
    goTo(at, at.n + 1);
    if (at.n % DECIMAL_STEPS === 0) yield DECIMAL_STEPS;
  }
  return { error: summary.value(), signed: null, size, doubt, t: null, how: 'grid' };
}

/** Which error of a run is taken. */
export interface ErrorTaking {
  readonly problem: Problem;
  readonly errors: Errors;
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
  const { errors, choice } = taking;
  const { grid } = at;
  const measure = measureOf(choice);
  let result: RunError | null;
  if (measure?.kind === 'grid') result = yield* errorOverGrid(at, errors, measure);
  else if (typeof choice.at === 'object') {
    result = yield* errorAtTime(at, choice.at.t, taking);
    yield* travel(at, grid.steps);
  } else {
    const isLocal = measure?.kind === 'local';
    yield* travel(at, isLocal ? Math.min(grid.steps, at.run.program.depth + 1) : grid.steps);
    const t = timeAt(grid, at.n);
    result = { ...errors.at(t, at.state, pointDigits(at)), t, how: 'grid' };
  }
  // an error at a time that was reached is valid, even if the values became infinite later
  const isReached = at.stopped === null || (typeof choice.at === 'object' && result !== null);
  return !isReached || result === null || Number.isNaN(result.error) ? null : result;
}
