import type { Decimal } from 'decimal.js';
import { count } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';
import type { CompiledRun } from '../compile/compile.ts';
import { exactSolution } from './exact-solution.ts';
import { type Grid, stepSizeAt, timeAt } from './grid.ts';
import { rhsInDecimals, rightHandSidesOf } from '../compile/right-hand-sides.ts';
import { exactInDecimals } from './decimal-exact.ts';
import {
  advanceInDecimals,
  beginInDecimals,
  type DecimalState,
  decimalTime,
  intoDoubles,
} from './decimal-state.ts';
import { CHECK_EVERY } from '../compile/check-interval.ts';
import { NEWTON } from '../program/state.ts';
import { findNonFinite, findNonFiniteInDecimals, type Stop } from './non-finite.ts';

/** How a run ended: the values at the last grid point reached. */
export interface Outcome {
  readonly values: Float64Array;
  readonly t: number;
  /** Steps that were done. */
  readonly steps: number;
  /** Null where the run came to its end; otherwise where and why it became non-finite. */
  readonly stopped: Stop | null;
}

/** A run under way: its state at grid point n. */
export interface RunState {
  readonly run: CompiledRun;
  readonly grid: Grid;
  /** The state of the problem in front, then what the run keeps; of a run in decimals the nearest doubles. */
  readonly state: Float64Array;
  /** The same with all digits, in a run in decimals; null in any other. */
  readonly decimals: DecimalState | null;
  /** The starting method under way, while those are being done. */
  readonly starter: RunState | null;
  n: number;
  stopped: Stop | null;
}

/**
 * A run at its initial values.
 *
 * @throws Refusal where the grid does not suit the method: fewer steps than a multistep method needs, or a
 *   shorter last step for a multistep method
 * @example begin(run, grid).n // 0
 */
export function begin(run: CompiledRun, grid: Grid): RunState {
  const { depth } = run.program;
  if (depth > 0 && grid.steps < depth)
    throw new Refusal('grid', `this method uses ${depth} earlier steps, and the grid has ${grid.steps}`);
  if (depth > 0 && grid.shorter !== null)
    throw new Refusal(
      'grid',
      'a multistep method needs a constant step size; the last step cannot be shortened',
    );
  refuseLongDecimals(run, grid);
  const state = new Float64Array(run.shape.length);
  state.set(run.problem.initial);
  const decimals = run.decimal === null ? null : beginInDecimals(run.decimal, grid, run.shape.newton);
  if (decimals !== null) intoDoubles(decimals, state);
  const starter = run.start?.kind === 'method' ? begin(run.start.run, grid) : null;
  return { run, grid, state, decimals, starter, n: 0, stopped: null };
}

/** Operations of one run in decimals, at most: some minutes. */
const MAX_DECIMAL_OPERATIONS = 1e8;

function refuseLongDecimals({ decimal }: CompiledRun, { steps }: Grid): void {
  if (decimal === null || decimal.operations * steps <= MAX_DECIMAL_OPERATIONS) return;
  const most = Math.floor(MAX_DECIMAL_OPERATIONS / decimal.operations);
  throw new Refusal(
    'grid',
    `a run with ${decimal.decimals.precision.digits} digits takes at most ${count(most)} steps of this method on this problem, and the grid has ${count(steps)}; take a larger step size, or double precision`,
  );
}

/** A copy of a run under way, to go on from the same point later. */
export function copyOf(at: RunState): RunState {
  return {
    ...at,
    state: at.state.slice(),
    decimals: at.decimals === null ? null : { ...at.decimals, values: [...at.decimals.values] },
    starter: at.starter === null ? null : copyOf(at.starter),
  };
}

/** Puts a run back to values it had. */
function putBack({ state, decimals }: RunState, before: Float64Array, digits: readonly Decimal[]): void {
  state.set(before);
  digits.forEach((value, j) => (decimals!.values[j] = value));
}

/** All digits of the values of a run in decimals; none for another. */
function digitsOf({ decimals }: RunState): readonly Decimal[] {
  return decimals === null ? [] : [...decimals.values];
}

function finite(values: Float64Array, count: number): boolean {
  for (let j = 0; j < count; j += 1) if (!Number.isFinite(values[j]!)) return false;
  return true;
}

/** Steps on the grid; the caller sees to it that a shorter last step comes alone. */
function advance(at: RunState, count: number): void {
  const { run, grid, state, n } = at;
  if (at.decimals !== null) {
    advanceInDecimals(at.decimals, state, n, count);
    intoDoubles(at.decimals, state);
    return;
  }
  if (grid.shorter !== null && n === grid.steps - 1) run.advance(state, timeAt(grid, n), grid.shorter, 0, 1);
  else run.advance(state, grid.start, grid.h, n, count);
}

/** Goes on to grid point `until`, or to where the run becomes non-finite; then `stopped` says why. */
export function goTo(at: RunState, until: number): void {
  const { run, grid, state } = at;
  const before = new Float64Array(state.length);
  const alike = grid.shorter === null ? grid.steps : grid.steps - 1;
  while (at.n < until && at.stopped === null) {
    if (at.n < run.program.depth) {
      startStep(at);
      continue;
    }
    const count = Math.min(run.atOnce, until - at.n, at.n < alike ? alike - at.n : 1);
    before.set(state);
    const digits = digitsOf(at);
    advance(at, count);
    if (finite(state, run.shape.size)) {
      at.n += count;
      continue;
    }
    putBack(at, before, digits);
    stepUntilNonFinite(at);
  }
}

/** Rows of so many numbers, about, are filled at once. */
const FILLED = 8_192;

/**
 * Goes on by some steps, at most to grid point `until`, and writes the values after each of them to `rows`, one row after
 * another; or to where the run becomes non-finite.
 *
 * @param rows room for at least one row
 * @returns rows that were written; fewer than the room is for, at most
 */
export function fillRows(at: RunState, until: number, rows: Float64Array): number {
  const { run, grid, state } = at;
  const { size } = run.shape;
  const alike = grid.shorter === null ? grid.steps : grid.steps - 1;
  const block = Math.min(Math.floor(rows.length / size), until - at.n, alike - at.n);
  if (run.rows !== null && at.decimals === null && block > 1 && at.n >= run.program.depth) {
    const before = state.slice();
    run.rows(state, grid.start, grid.h, at.n, block, rows);
    if (finite(rows, block * size)) {
      at.n += block;
      return block;
    }
    state.set(before);
    const good = Math.floor(rows.findIndex((value) => !Number.isFinite(value)) / size);
    if (good > 0) {
      goTo(at, at.n + good);
      return good;
    }
  }
  const from = at.n;
  goTo(at, from + 1);
  if (at.n > from) rows.set(state.subarray(0, size));
  return at.n - from;
}

/** Room for rows of a run, not too large for a processor's cache. */
export function roomForRows({ shape: { size } }: CompiledRun): Float64Array {
  return new Float64Array(Math.max(1, Math.floor(FILLED / size)) * size);
}

/** A value and the grid point at which it was taken. */
export interface Sample {
  readonly n: number;
  readonly value: number;
  /** What `errorOf` has said of it. */
  readonly error?: number;
}

/** The error of a component of a run where it is. */
export type ErrorOf = (at: RunState, component: number) => number;

/**
 * Goes on to a grid point and tells, for each of the first components, the smallest and the largest value on the
 * way, in the order in which they were met; one sample where they are the same.
 */
export function watchTo(
  at: RunState,
  until: number,
  count: number,
  errorOf: ErrorOf | null = null,
): readonly (readonly Sample[])[] {
  const { run, grid, state } = at;
  const low = Array.from({ length: count }, (): Sample => ({ n: at.n, value: Infinity }));
  const high = Array.from({ length: count }, (): Sample => ({ n: at.n, value: -Infinity }));
  const note = (j: number, n: number, value: number): void => {
    if (!(value < low[j]!.value || value > high[j]!.value)) return;
    const sample: Sample = errorOf === null ? { n, value } : { n, value, error: errorOf(at, j) };
    if (value < low[j]!.value) low[j] = sample;
    if (value > high[j]!.value) high[j] = sample;
  };
  const alike = grid.shorter === null ? grid.steps : grid.steps - 1;
  const before = new Float64Array(state.length);
  const out = new Float64Array(4 * run.shape.size);
  // a block that becomes non-finite is done again step by step, so that what it had seen before is not lost
  let isLeaving = false;
  while (at.n < until && at.stopped === null) {
    const block = Math.min(CHECK_EVERY, until - at.n, alike - at.n);
    if (isLeaving || run.watch === null || errorOf !== null || block < 2 || at.n < run.program.depth) {
      const n = at.n;
      goTo(at, n + 1);
      if (at.n > n) for (let j = 0; j < count; j += 1) note(j, at.n, state[j]!);
      continue;
    }
    before.set(state);
    run.watch(state, grid.start, grid.h, at.n, block, out);
    if (!finite(state, run.shape.size)) {
      state.set(before);
      isLeaving = true;
      continue;
    }
    at.n += block;
    for (let j = 0; j < count; j += 1) {
      note(j, out[4 * j + 1]!, out[4 * j]!);
      note(j, out[4 * j + 3]!, out[4 * j + 2]!);
    }
  }
  return low.map((least, j) => {
    const most = high[j]!;
    if (!Number.isFinite(least.value)) return [];
    if (least.n === most.n) return [least];
    return least.n < most.n ? [least, most] : [most, least];
  });
}

/** One of the starting steps of a multistep method: values and right-hand sides are kept for it. */
function startStep(at: RunState): void {
  const { run, grid, state, starter, decimals } = at;
  if (starter !== null) {
    goTo(starter, at.n + 1);
    if (starter.stopped !== null) {
      at.stopped = starter.stopped;
      return;
    }
  }
  if (decimals === null) startInDoubles(at);
  else startInDecimals(at, decimals);
  if (!finite(state, run.shape.size)) {
    const why = 'the exact solution is not finite there';
    at.stopped = { step: at.n + 1, t: timeAt(grid, at.n), stage: 'start', why };
    return;
  }
  at.n += 1;
}

/** Values in the order of the state, and what the run keeps behind them. */
interface Values<V> {
  [place: number]: V;
}

/** What is kept of earlier steps moves back by one, behind what the step begins with. */
function keepPast<V>(
  { program, layout, shape: { kept, width } }: CompiledRun,
  values: Values<V>,
  past: ArrayLike<V>,
  slopes: ArrayLike<V>,
): void {
  for (let k = program.kept.length - 1; k >= 0; k -= 1) {
    const { of, back } = program.kept[k]!;
    const to = kept + k * width;
    const places = layout.places[of === 'v' ? 1 : 0] ?? [];
    for (let j = 0; j < width; j += 1)
      values[to + j] = back > 1 ? values[to - width + j]! : of === 'f' ? slopes[j]! : past[places[j]!]!;
  }
}

function startInDoubles({ run, grid, state, starter, n }: RunState): void {
  const { size } = run.shape;
  const past = state.slice(0, size);
  const [t, next] = [timeAt(grid, n), timeAt(grid, n + 1)];
  const solution = run.start?.kind === 'exact' ? run.start.solution : null;
  if (starter !== null) state.set(starter.state.subarray(0, size));
  else if (solution !== null) solution(next, state);
  else {
    const exact = exactSolution(run.problem);
    for (let j = 0; j < size; j += 1) state[j] = exact.value(j, next);
  }
  keepPast(run, state, past, run.program.presentRhs === null ? [] : rightHandSidesOf(run)(t, past));
}

function startInDecimals({ run, state, starter, n }: RunState, own: DecimalState): void {
  const { size } = run.shape;
  const { decimals } = own.loop;
  const past = own.values.slice(0, size);
  const [t, next] = [decimalTime(own, decimals, n), decimalTime(own, decimals, n + 1)];
  const chosen = run.start?.kind === 'exact' ? run.start.inDecimals : null;
  const started = starter?.decimals?.values;
  const solution = started === undefined ? (chosen ?? exactInDecimals(run.problem, decimals)) : null;
  for (let j = 0; j < size; j += 1)
    own.values[j] = solution === null ? started![j]! : decimals.rounded(solution(j, next));
  keepPast(run, own.values, past, run.program.presentRhs === null ? [] : rhsInDecimals(run)(t, past));
  intoDoubles(own, state);
}

/** One step after another up to the first non-finite one; the state stays at the last good point. */
function stepUntilNonFinite(at: RunState): void {
  const { run, grid, state } = at;
  const before = new Float64Array(state.length);
  let after: Float64Array | null = null;
  while (after === null) {
    before.set(state);
    const digits = digitsOf(at);
    advance(at, 1);
    if (finite(state, run.shape.size)) at.n += 1;
    else {
      after = state.slice();
      putBack(at, before, digits);
    }
  }
  const t = timeAt(grid, at.n);
  const isShorter = stepSizeAt(grid, at.n) !== grid.h;
  const found =
    at.decimals === null
      ? findNonFinite(run, before, after, {
          origin: isShorter ? t : grid.start,
          n: isShorter ? 0 : at.n,
          h: stepSizeAt(grid, at.n),
        })
      : findNonFiniteInDecimals(run, at.decimals, after, at.n);
  at.stopped = {
    step: at.n + 1,
    t,
    stage: found?.stage ?? 'y[n+1]',
    why: found?.why ?? 'the new value is not a finite number',
  };
}

/**
 * A whole run at once.
 *
 * @returns the values at the last grid point reached, one per component, and where the run became non-finite if it did
 * @throws Refusal as `begin`
 * @example integrate(compileRun(problem, method), layGrid(0, 6, { steps: 12 })).values
 */
export function integrate(run: CompiledRun, grid: Grid): Outcome {
  const at = begin(run, grid);
  goTo(at, grid.steps);
  return outcomeOf(at);
}

/** What a run has come to so far. */
export function outcomeOf(at: RunState): Outcome {
  return {
    values: at.state.slice(0, at.run.shape.size),
    t: timeAt(at.grid, at.n),
    steps: at.n,
    stopped: at.stopped,
  };
}

/** What Newton's method has needed so far, in the starting steps, too. */
export interface NewtonWork {
  readonly iterations: number;
  /** Times that its iterations failed and had to be begun again, damped. */
  readonly damped: number;
}

export function newtonWork({ state, run: { shape }, starter }: RunState): NewtonWork {
  const before = starter === null ? { iterations: 0, damped: 0 } : newtonWork(starter);
  return {
    iterations: before.iterations + (state[shape.newton + NEWTON.iterations] ?? 0),
    damped: before.damped + (state[shape.newton + NEWTON.damped] ?? 0),
  };
}
