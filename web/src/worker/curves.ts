import {
  begin,
  compileWithStart,
  componentNames,
  exactSolution,
  goTo,
  type Grid,
  layGrid,
  type Method,
  type Problem,
  type RunState,
  type Study,
  timeAt,
  type Wish,
} from '@schritt/core';
import type { Curves, Trajectory } from './messages.ts';

/** Points of a picture; more would not be seen. */
const POINTS = 600;
/** Components that are drawn at most. */
const MOST_CURVES = 12;

function trajectory(at: RunState, grid: Grid, components: number): Trajectory {
  const stride = Math.max(1, Math.ceil(grid.steps / POINTS));
  const t: number[] = [];
  const values: number[][] = Array.from({ length: components }, () => []);
  for (;;) {
    t.push(timeAt(grid, at.n));
    values.forEach((list, j) => list.push(at.state[j] ?? NaN));
    if (at.n >= grid.steps || at.stopped !== null) break;
    goTo(at, Math.min(grid.steps, at.n + stride));
  }
  return { t, values, stoppedAt: at.stopped?.t ?? null };
}

/** The curve of one method; an empty one where it cannot be run on this grid. */
function curveOf(study: Study, method: Method, grid: Grid, components: number): Trajectory {
  try {
    return trajectory(begin(compileWithStart(study.problem, method, study.start), grid), grid, components);
  } catch (thrown) {
    if (!(thrown instanceof RangeError)) throw thrown;
    return { t: [], values: Array.from({ length: components }, () => []), stoppedAt: grid.start };
  }
}

function exactCurves(problem: Problem, components: number): Curves['exact'] {
  const { start, end } = problem;
  const t = Array.from({ length: POINTS + 1 }, (_, i) => start + ((end - start) * i) / POINTS);
  const exact = exactSolution(problem);
  const values = Array.from({ length: components }, (_, j) =>
    exact.known(j) ? t.map((time) => exact.value(j, time)) : null,
  );
  return { t, values };
}

/** The curves of all methods of a study at one step size. */
export function curvesOf(study: Study, wish: Wish): Curves {
  const { problem } = study;
  const components = Math.min(problem.size, MOST_CURVES);
  const grid = layGrid(problem.start, problem.end, wish, study.lastStep);
  return {
    methods: study.methods.map(({ method }) => curveOf(study, method, grid, components)),
    exact: exactCurves(problem, components),
    components: componentNames(problem).slice(0, components),
  };
}
