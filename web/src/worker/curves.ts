import { componentNames, Refusal } from '@schritt/core/notation';
import {
  compileWithStart,
  layGrid,
  leadingOf,
  MOST_KEPT,
  keepRun,
  type Study,
  truthOf,
} from '@schritt/core/study';
import type { Curves, RunWish, Trajectory } from './messages.ts';
import { type TruthOfPlaces, truthOfPlaces } from './truth-curve.ts';

/** Points of the line of the solution; more would not be seen. */
const POINTS = 600;

/** Most components whose leading error is drawn. */
const MOST_LED = 12;

/** The leading term of the error over time, at one step size; null where theory does not say it. */
function leadingTerm(study: Study, method: number, h: number): Trajectory['leading'] {
  const { problem, methods } = study;
  const chosen = methods[method];
  if (chosen === undefined || problem.size > MOST_LED) return null;
  const places = componentNames(problem).map((_, j) => j);
  const leading = leadingOf(study, truthOf(problem, places, problem.end), chosen, problem.end);
  if (leading === null) return null;
  const { start, end, values, size, order } = leading;
  const last = values.length / size - 1;
  const scale = h ** order;
  return {
    t: Array.from({ length: last + 1 }, (_, i) => start + ((end - start) * i) / last),
    values: places.map((j) => Array.from({ length: last + 1 }, (_, i) => scale * values[i * size + j]!)),
  };
}

/** The curve of one run; an empty one where it cannot be done on this grid. */
function* curveOf(study: Study, run: RunWish, truth: TruthOfPlaces): Generator<number, Trajectory> {
  const { problem, methods, start, lastStep } = study;
  const chosen = methods[run.method];
  if (chosen === undefined) throw new Refusal('missing', 'there is no such method');
  try {
    const grid = layGrid(problem.start, problem.end, run.wish, lastStep);
    const longRun = yield* keepRun(compileWithStart(problem, chosen.method, start), grid);
    const { stopped, t } = longRun.outcome;
    return {
      ...run,
      components: longRun.components,
      steps: grid.steps,
      stoppedAt: stopped === null ? null : t,
      truth: longRun.components.map((own, j) => truth.at(j, own.t)),
      leading: leadingTerm(study, run.method, grid.h),
    };
  } catch (thrown) {
    if (!(thrown instanceof Refusal)) throw thrown;
    return { ...run, components: [], steps: 0, stoppedAt: problem.start, truth: [], leading: null };
  }
}

/** The curves of some runs of a study, and of the solution; yields the part that is done. */
export function* curvesOf(study: Study, runs: readonly RunWish[]): Generator<number, Curves> {
  const { problem } = study;
  const truth = truthOfPlaces(problem);
  const curves: Trajectory[] = [];
  for (const run of runs) {
    const work = curveOf(study, run, truth);
    let next = work.next();
    for (; next.done !== true; next = work.next()) yield (curves.length + next.value) / runs.length;
    curves.push(next.value);
  }
  const { start, end } = problem;
  const t = Array.from({ length: POINTS + 1 }, (_, i) => start + ((end - start) * i) / POINTS);
  const components = componentNames(problem).slice(0, Math.min(problem.size, MOST_KEPT));
  return { runs: curves, t, truth: components.map((_, j) => truth.curve(j, t)), components };
}
