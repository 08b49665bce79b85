import { systemRightHandSides } from '../compile/right-hand-sides.ts';
import type { CompiledRun } from '../compile/compile.ts';
import { conservedQuantities } from './conserved.ts';
import { exactSolution } from './exact-solution.ts';
import { type Grid, stepSizeAt, timeAt } from './grid.ts';
import { begin, goTo, type RunState } from './integrate.ts';
import type { Stop } from './non-finite.ts';

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
  const exact = exactSolution(run.problem);
  const conserved = conservedQuantities(run.problem);
  const rightHandSides = systemRightHandSides(run.problem, run.precision);
  goTo(at, Math.min(from, grid.steps));
  const [traced, scratch] = [new Float64Array(run.stageWidth), new Float64Array(run.shape.length)];
  const rows: Row[] = [];
  const last = Math.min(grid.steps, from + (count - 1) * every);
  while (at.n <= last && at.n >= from) {
    const t = timeAt(grid, at.n);
    const values = numbersOf(at.state, 0, run.shape.size);
    rows.push({
      n: at.n,
      t,
      values,
      slopes: numbersOf(rightHandSides(t, values), 0, run.shape.size),
      stages: stagesAt(at, traced, scratch),
      conserved: conserved.map((quantity) => quantity.at(t, values)),
      exact: values.map((_, j) => (exact.known(j) ? exact.value(j, t) : null)),
    });
    if (at.n === grid.steps) break;
    const next = at.n + every;
    goTo(at, Math.min(grid.steps, next));
    if (at.stopped !== null || at.n < next) break;
  }
  return { rows, stopped: at.stopped };
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
