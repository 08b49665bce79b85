import type { CompiledRun } from './compile.ts';
import { conservedQuantities } from './conserved.ts';
import { exactSolution } from './exact.ts';
import { type Grid, stepSizeAt, timeAt } from './grid.ts';
import { begin, goTo } from './integrate.ts';
import type { Stop } from './trouble.ts';

/** One grid point of a run, with the stages of the step that starts there. */
export interface Row {
  readonly n: number;
  readonly t: number;
  readonly values: readonly number[];
  /** In the order of the method's stages; a vector stage has a value for each component. Null at the last point. */
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

/** Grid points `from` to `from + count - 1` of a run, with every stage. */
export function rowsOf(run: CompiledRun, grid: Grid, from: number, count: number): Rows {
  const at = begin(run, grid);
  const exact = exactSolution(run.problem);
  const conserved = conservedQuantities(run.problem);
  goTo(at, Math.min(from, grid.steps));
  const rows: Row[] = [];
  const out = new Float64Array(run.stageWidth);
  const last = Math.min(grid.steps, from + count - 1);
  while (at.n <= last && at.n >= from) {
    const t = timeAt(grid, at.n);
    const values = Array.from(at.state);
    const isEnd = at.n === grid.steps;
    if (!isEnd) run.trace(at.state.slice(), t, stepSizeAt(grid, at.n), 0, 1, out);
    rows.push({
      n: at.n,
      t,
      values,
      stages: isEnd ? null : splitStages(run, out),
      conserved: conserved.map((quantity) => quantity.at(t, values)),
      exact: values.map((_, j) => (exact.known(j) ? exact.value(j, t) : null)),
    });
    if (isEnd) break;
    goTo(at, at.n + 1);
    if (at.stopped !== null) break;
  }
  return { rows, stopped: at.stopped };
}

function splitStages(run: CompiledRun, out: Float64Array): readonly (readonly number[])[] {
  let from = 0;
  return run.program.stages.map((stage) => {
    const width = stage.shape === 'scalar' ? 1 : run.problem.size;
    const values = Array.from(out.subarray(from, from + width));
    from += width;
    return values;
  });
}
