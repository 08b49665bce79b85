import { rhsInDecimals, systemRightHandSides } from '../compile/right-hand-sides.ts';
import { wider } from '../decimal/decimal-precision.ts';
import { decimalText, roundedText } from '../decimal/decimal-text.ts';
import { decimalsOf } from '../decimal/decimals.ts';
import { exactInDecimals } from './decimal-exact.ts';
import { decimalNumbers } from '../compile/decimal/decimal-numbers.ts';
import { decimalGrid, type DecimalState, decimalTime, stagesInDecimals } from './decimal-state.ts';
import type { CompiledRun } from '../compile/compile.ts';
import { conservedQuantities } from './conserved.ts';
import { conservedInDecimals } from './decimal-conserved.ts';
import { exactSolution } from './exact-solution.ts';
import { type Grid, stepSizeAt, timeAt } from './grid.ts';
import { begin, goTo, type RunState } from './integrate.ts';
import type { Stop } from './non-finite.ts';

/** The numbers of a row with all their digits, for a run in decimals. */
export interface RowDigits {
  readonly t: string;
  readonly values: readonly string[];
  readonly slopes: readonly string[];
  readonly stages: readonly (readonly string[])[] | null;
  readonly conserved: readonly string[];
  /** With some more digits than the run has; null where no exact solution is known. */
  readonly exact: readonly (string | null)[];
  /** Values less the exact ones. */
  readonly errors: readonly (number | null)[];
}

/** One grid point of a run, with the stages of the step that starts there. */
export interface Row {
  readonly n: number;
  readonly t: number;
  readonly values: readonly number[];
  /** f of the first-order system at this point, one slope a component. */
  readonly slopes: readonly number[];
  /**
   * In the order of the method's stages; a vector stage has a value for each component. Null at the last point,
   * and for steps taken by the starting method.
   */
  readonly stages: readonly (readonly number[])[] | null;
  /** The conserved quantities at this point, in the order of the problem. */
  readonly conserved: readonly number[];
  /** Null where no exact solution is known. */
  readonly exact: readonly (number | null)[];
  /** Null for a run in binary arithmetic; the other numbers of the row are the doubles nearest to these. */
  readonly digits: RowDigits | null;
}

export interface Rows {
  readonly rows: readonly Row[];
  readonly stopped: Stop | null;
}

/** Which grid points of a run are wanted. */
export interface RowRange {
  /** The first grid point, from 0; past the end there are no rows. */
  readonly from: number;
  readonly count: number;
  /** How far the points are apart, in steps; 1 where nothing is said. */
  readonly every?: number;
}

/**
 * Grid points of a run with every stage.
 *
 * @param at a run under way at or before the first of them, such as a copy of a checkpoint; it is moved on
 * @throws Refusal as `begin`
 * @example rowsOf(run, grid, { from: 0, count: 5 }).rows[1]?.values
 */
export function rowsOf(
  run: CompiledRun,
  grid: Grid,
  { from, count, every = 1 }: RowRange,
  at: RunState = begin(run, grid),
): Rows {
  const rowAt = at.decimals === null ? rowsInDoubles(run, grid) : rowsInDecimals(run, grid, at.decimals);
  goTo(at, Math.min(from, grid.steps));
  const rows: Row[] = [];
  const last = Math.min(grid.steps, from + (count - 1) * every);
  while (at.n <= last && at.n >= from) {
    rows.push(rowAt(at));
    if (at.n === grid.steps) break;
    const next = at.n + every;
    goTo(at, Math.min(grid.steps, next));
    if (at.stopped !== null || at.n < next) break;
  }
  return { rows, stopped: at.stopped };
}

/** The row at which a run in binary arithmetic is. */
function rowsInDoubles(run: CompiledRun, grid: Grid): (at: RunState) => Row {
  const { size } = run.shape;
  const exact = exactSolution(run.problem);
  const conserved = conservedQuantities(run.problem);
  const rightHandSides = systemRightHandSides(run.problem, run.precision);
  const [traced, scratch] = [new Float64Array(run.stageWidth), new Float64Array(run.shape.length)];
  return (at) => {
    const t = timeAt(grid, at.n);
    const values = numbersOf(at.state, 0, size);
    return {
      n: at.n,
      t,
      values,
      slopes: numbersOf(rightHandSides(t, values), 0, size),
      stages: stagesAt(at, traced, scratch),
      conserved: conserved.map((quantity) => quantity.at(t, values)),
      exact: values.map((_, j) => (exact.known(j) ? exact.value(j, t) : null)),
      digits: null,
    };
  };
}

/** The row at which a run in decimals is: its digits, and the doubles nearest to them. */
function rowsInDecimals(run: CompiledRun, grid: Grid, decimals: DecimalState): (at: RunState) => Row {
  const digitsAt = rowDigits(run, grid, decimals);
  return (at) => {
    const digits = digitsAt(at);
    return {
      n: at.n,
      t: Number(digits.t),
      values: numbersOf(at.state, 0, run.shape.size),
      slopes: digits.slopes.map(Number),
      stages: digits.stages && digits.stages.map((values) => values.map(Number)),
      conserved: digits.conserved.map(Number),
      exact: digits.exact.map((value) => (value === null ? null : Number(value))),
      digits,
    };
  };
}

/**
 * A component less its exact value, in a row; null where that is not known.
 *
 * @example differenceAt(rows[0]!, 0) // 0
 */
export function differenceAt({ values, exact, digits }: Row, component: number): number | null {
  if (digits !== null) return digits.errors[component] ?? null;
  const value = exact[component] ?? null;
  return value === null ? null : values[component]! - value;
}

/** Digits that an exact value has beyond those of the run. */
const MORE_DIGITS = 5;

/** All digits of the row at which a run in decimals is. */
function rowDigits(run: CompiledRun, grid: Grid, { loop }: DecimalState): (at: RunState) => RowDigits {
  const { decimals } = loop;
  const { known } = exactSolution(run.problem);
  const wide = decimalsOf(wider(decimals.workingDigits + MORE_DIGITS));
  const exact = exactInDecimals(run.problem, wide);
  const times = decimalGrid({ decimals: wide, numbers: decimalNumbers(run.problem, wide) }, grid);
  const rightHandSides = rhsInDecimals(run, 'first order');
  const conserved = conservedInDecimals(run.problem, decimals);
  return ({ decimals: own, state, n }) => {
    if (own === null) throw new Error('this run is not in decimals');
    const t = decimalTime(own, decimals, n);
    const values = own.values.slice(0, run.shape.size);
    // the exact values are those of the times that the grid means, before these are rounded
    const time = decimalTime(times, wide, n);
    const exactValues = values.map((_, j) => (known(j) ? exact(j, time) : null));
    const hasStages = n < grid.steps && n >= run.program.depth;
    const stages = hasStages ? stagesInDecimals(own, state, n) : null;
    let from = 0;
    return {
      t: decimalText(t),
      values: values.map(decimalText),
      slopes: rightHandSides(t, values).map(decimalText),
      conserved: conserved(t, values).map((value) => roundedText(decimalText(value), decimals.workingDigits)),
      stages:
        stages &&
        run.program.stages.map((stage) => {
          const width = stage.shape === 'scalar' ? 1 : run.layout.width;
          from += width;
          return stages.slice(from - width, from).map(decimalText);
        }),
      exact: exactValues.map((value) => value && decimalText(value)),
      errors: exactValues.map((value, j) => value && wide.from(values[j]!).minus(value).toNumber()),
    };
  };
}

/** Numbers of a typed array from a place on; a plain loop, which is many times as fast as an iterator. */
function numbersOf(array: Float64Array, from: number, count: number): number[] {
  const found: number[] = [];
  for (let i = 0; i < count; i += 1) found.push(array[from + i]!);
  return found;
}

function stagesAt(
  at: RunState,
  out: Float64Array,
  state: Float64Array,
): readonly (readonly number[])[] | null {
  const { run, grid, n } = at;
  if (n === grid.steps || n < run.program.depth) return null;
  const h = stepSizeAt(grid, n);
  state.set(at.state);
  if (h === grid.h) run.trace(state, grid.start, h, n, 1, out);
  else run.trace(state, timeAt(grid, n), h, 0, 1, out);
  let from = 0;
  return run.program.stages.map((stage) => {
    const width = stage.shape === 'scalar' ? 1 : run.layout.width;
    const values = numbersOf(out, from, width);
    from += width;
    return values;
  });
}
