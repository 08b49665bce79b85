import { componentNames, Refusal, type Method, type Problem } from '@schritt/core/notation';
import {
  compileWithStart,
  exactSolution,
  type Grid,
  layGrid,
  MOST_KEPT,
  keepRun,
  type Study,
  type Wish,
} from '@schritt/core/study';
import type { Curves, Trajectory } from './messages.ts';

/** Points of the exact curve; more would not be seen. */
const POINTS = 600;

/** The curve of one method; an empty one where it cannot be run on this grid. */
function* curveOf(study: Study, method: Method, grid: Grid): Generator<number, Trajectory> {
  try {
    const longRun = yield* keepRun(compileWithStart(study.problem, method, study.start), grid);
    const { stopped, t } = longRun.outcome;
    const exact = exactSolution(study.problem);
    return {
      components: longRun.components,
      steps: grid.steps,
      stoppedAt: stopped === null ? null : t,
      exact: longRun.components.map((own, j) =>
        exact.known(j) ? own.t.map((time) => exact.value(j, time)) : null,
      ),
    };
  } catch (thrown) {
    if (!(thrown instanceof Refusal)) throw thrown;
    return { components: [], steps: 0, stoppedAt: grid.start, exact: [] };
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

/** The curves of all methods of a study at one step size; yields the part that is done. */
export function* curvesOf(study: Study, wish: Wish): Generator<number, Curves> {
  const { problem, methods } = study;
  const components = Math.min(problem.size, MOST_KEPT);
  const grid = layGrid(problem.start, problem.end, wish, study.lastStep);
  const curves: Trajectory[] = [];
  for (const { method } of methods) {
    const work = curveOf(study, method, grid);
    let next = work.next();
    for (; next.done !== true; next = work.next()) yield (curves.length + next.value) / methods.length;
    curves.push(next.value);
  }
  return {
    methods: curves,
    exact: exactCurves(problem, components),
    components: componentNames(problem).slice(0, components),
  };
}
