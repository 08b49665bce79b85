import type { Decimal } from 'decimal.js';
import type { DecimalLoop, DecimalSteps } from '../compile/decimal/decimal-loop.ts';
import type { Decimals } from '../decimal/decimals.ts';
import type { Grid } from './grid.ts';

/** Grid and values of a run in decimals, with all their digits. */
export interface DecimalState {
  readonly loop: DecimalLoop;
  readonly start: Decimal;
  readonly h: Decimal;
  /** The size of the last step where it is shorter than h; null where all steps are alike. */
  readonly shorter: Decimal | null;
  readonly steps: number;
  /** The state of the problem, and what the run keeps: changed in place. */
  readonly values: Decimal[];
}

/** The step sizes of a grid, from the ends of the interval and the number of steps, or as typed. */
export function decimalGrid(
  loop: Pick<DecimalLoop, 'decimals' | 'numbers'>,
  grid: Grid,
): Pick<DecimalState, 'start' | 'h' | 'shorter' | 'steps'> {
  const { decimals, numbers } = loop;
  const { start, end } = numbers;
  const { steps } = grid;
  // a size that divides the interval, or that was fitted to it, is its length over the steps
  const isTyped = !grid.divides && grid.h === grid.wished;
  const h = decimals.stored(
    isTyped ? decimals.fromDouble(grid.wished) : end.minus(start).div(decimals.fromDouble(steps)),
  );
  const before = start.plus(h.times(decimals.fromDouble(steps - 1)));
  return {
    start,
    h,
    shorter: grid.shorter === null ? null : decimals.stored(end.minus(before)),
    steps,
  };
}

/** A run in decimals at its initial values. */
export function beginInDecimals(loop: DecimalLoop, grid: Grid, length: number): DecimalState {
  const { decimals, numbers } = loop;
  return {
    loop,
    ...decimalGrid(loop, grid),
    values: Array.from({ length }, (_, j) => numbers.initial[j] ?? decimals.zero),
  };
}

/** A run in decimals on another grid that is the same up to where it is. */
export function onGrid(at: DecimalState, grid: Grid): DecimalState {
  return { ...at, ...decimalGrid(at.loop, grid) };
}

/** The time of grid point n. */
export function decimalTime(
  { start, h, shorter, steps }: Pick<DecimalState, 'start' | 'h' | 'shorter' | 'steps'>,
  decimals: Decimals,
  n: number,
): Decimal {
  const at = (k: number): Decimal => decimals.stored(start.plus(decimals.fromDouble(k).times(h)));
  return shorter !== null && n === steps ? at(n - 1).plus(shorter) : at(n);
}

/** Which steps are done from grid point n on: a shorter last step comes alone. */
function stepsFrom(
  { loop, start, h, shorter, steps }: DecimalState,
  n: number,
  count: number,
): Pick<DecimalSteps, 'origin' | 'h' | 'first' | 'count'> {
  return shorter !== null && n === steps - 1
    ? { origin: start.plus(loop.decimals.fromDouble(n).times(h)), h: shorter, first: 0, count: 1 }
    : { origin: start, h, first: n, count };
}

/** Steps on the grid from grid point n on; the caller sees to it that a shorter last step comes alone. */
export function advanceInDecimals(at: DecimalState, numbers: Float64Array, n: number, count: number): void {
  at.loop.advance({ state: at.values, numbers, ...stepsFrom(at, n, count) });
}

/** The stages of the step from grid point n on; the run stays where it is. */
export function stagesInDecimals(at: DecimalState, numbers: Float64Array, n: number): readonly Decimal[] {
  return at.loop.trace({ state: [...at.values], numbers: numbers.slice(), ...stepsFrom(at, n, 1) });
}

/** The doubles nearest to the values of a run in decimals. */
export function intoDoubles({ values }: DecimalState, state: Float64Array): void {
  for (let j = 0; j < values.length; j += 1) state[j] = values[j]!.toNumber();
}
