import type { CompiledRun } from '../compile/compile.ts';
import { jetFunction } from '../compile/jets/jet-function.ts';
import { branchesOf } from '../reference/switches.ts';
import { ORDER } from '../reference/taylor-segment.ts';
import { taylorSolution } from '../reference/taylor-solution.ts';
import type { Problem } from '../problem/problem.ts';
import { attempt } from '../text/refusal.ts';
import { type Grid, stepSizeAt, timeAt } from '../run/grid.ts';
import type { Row } from '../run/rows.ts';

/** The error that one step makes, by component: as the embedded formula estimates it, and as it is. */
export interface LocalErrors {
  /** y[n+1] - yhat[n+1]. */
  readonly estimate: readonly number[];
  /** y[n+1] minus the solution through (t[n], y[n]); null where that is not found. */
  readonly error: readonly number[] | null;
}

const TOLERANCE = 1e-18;

/** The solution through a point, one step on; null where it cannot be found. */
function solutionFrom(
  problem: Problem,
): (t: number, values: readonly number[], until: number) => Float64Array | null {
  const branches = branchesOf(problem);
  const jet = attempt(() => jetFunction(problem, ORDER));
  return (t, values, until) => {
    if (!jet.ok) return null;
    const there = { ...problem, start: t, end: until, initial: values };
    const { ending, at } = taylorSolution(there, TOLERANCE, { jet: jet.value, branches });
    if (ending !== null) return null;
    const found = new Float64Array(problem.size);
    at(until, found);
    return found;
  };
}

/** One step of a one-step method from some values. */
function stepOf(
  { shape, advance }: CompiledRun,
  t: number,
  values: readonly number[],
  h: number,
): Float64Array {
  const state = new Float64Array(shape.length);
  state.set(values);
  advance(state, t, h, 0, 1);
  return state.slice(0, shape.size);
}

/**
 * The errors of the steps that start at some points of a run; null at the last point of the grid.
 *
 * @param run of a one-step method
 * @param embedded the run of the method that goes on with its embedded formula
 *
 * @example localErrors(run, run, grid, [])
 */
export function localErrors(
  run: CompiledRun,
  embedded: CompiledRun,
  grid: Grid,
  rows: readonly Row[],
): readonly (LocalErrors | null)[] {
  const solution = solutionFrom(run.problem);
  return rows.map(({ n, t, values }) => {
    if (n >= grid.steps) return null;
    const h = stepSizeAt(grid, n);
    const next = stepOf(run, t, values, h);
    const second = stepOf(embedded, t, values, h);
    const exact = solution(t, values, timeAt(grid, n + 1));
    const from = (other: Float64Array): readonly number[] =>
      Array.from(next, (value, j) => value - other[j]!);
    return { estimate: from(second), error: exact && from(exact) };
  });
}
