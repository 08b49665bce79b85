import { componentNames } from '../problem/problem.ts';
import { decimalDigits } from '../compile/precision.ts';
import { layGrid, type GridRequest } from '../run/grid.ts';
import type { ErrorOf } from '../run/integrate.ts';
import { keepRun, MAX_KEPT, type Thinned } from '../run/long-run.ts';
import { Refusal } from '../text/refusal.ts';
import { leadingOf } from './judge/predicted.ts';
import { errorChoice } from './runs/error-choice.ts';
import { pointDigits, pointErrors } from './runs/error-measure.ts';
import { precisionOf, runOf, type Study, type StudyMethod } from './runs/study.ts';
import { decimalTruthOf, truthOf } from './runs/truth.ts';
import { type TruthCurve, type TruthOfPlaces, truthOfPlaces } from './truth-of-places.ts';

/** Which run: of which method, at which step size. */
export interface RunToDraw {
  readonly method: number;
  readonly gridRequest: GridRequest;
}

/** The points of one run, thinned for a plot without losing an extreme. */
export interface Trajectory extends RunToDraw {
  /** One a component. */
  readonly components: readonly Thinned[];
  /** Steps of the run, so that a plot can tell points from a line. */
  readonly steps: number;
  /** Time at which the values stopped being finite; null where the run came to its end. */
  readonly stoppedAt: number | null;
  /** The solution at the points of each component; null where neither an exact one nor a reference is known. */
  readonly truth: readonly (readonly number[] | null)[];
  /** The leading term of the error of each component over time; null where theory does not give it. */
  readonly leading: { readonly t: readonly number[]; readonly values: readonly (readonly number[])[] } | null;
}

/** Curves for the plots of runs. */
export interface Curves {
  /** One a run, in the order in which they were asked for. */
  readonly runs: readonly Trajectory[];
  readonly t: readonly number[];
  /** One a component; null where nothing is known. */
  readonly truth: readonly (TruthCurve | null)[];
  readonly components: readonly string[];
}

/** Points of the line of the solution; more would not be seen. */
const POINTS = 600;

/** Most components whose leading error is drawn. */
const MAX_LED = 12;

/** The leading term of the error over time, at one step size; null where theory does not give it. */
function leadingTerm(study: Study, method: number, h: number): Trajectory['leading'] {
  const { problem, methods } = study;
  const chosen = methods[method];
  if (chosen === undefined || problem.size > MAX_LED) return null;
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

/**
 * The errors of the components of runs in decimals, with more digits than a difference of doubles has; null for others,
 * and where nothing is known with as many digits.
 */
function errorsInDecimals(study: Study, chosen: StudyMethod): ErrorOf | null {
  const { problem } = study;
  const digits = decimalDigits(precisionOf(study, chosen));
  if (digits === null) return null;
  const choice = errorChoice(undefined);
  const errors = componentNames(problem)
    .slice(0, MAX_KEPT)
    .map((_, place) => {
      const wide = decimalTruthOf(problem, [place], problem.end, digits);
      return wide && pointErrors(truthOf(problem, [place], problem.end), [place], choice, wide);
    });
  if (errors.some((error) => error === null)) return null;
  return (at, place) => errors[place]?.(at.n, at.state, pointDigits(at)).signed ?? NaN;
}

/** The curve of one run; an empty one where it cannot be done on this grid. */
function* curveOf(study: Study, run: RunToDraw, truth: TruthOfPlaces): Generator<number, Trajectory> {
  const { problem, methods, lastStep } = study;
  const chosen = methods[run.method];
  if (chosen === undefined) throw new Refusal('missing', 'there is no such method');
  try {
    const grid = layGrid(problem.start, problem.end, run.gridRequest, lastStep);
    const longRun = yield* keepRun(runOf(study, chosen), grid, errorsInDecimals(study, chosen));
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

/**
 * The curves of some runs of a study, and of the solution; yields the part that is done.
 *
 * @example [...curvesOf(study, [{ method: 0, gridRequest: { steps: 8 } }])]
 */
export function* curvesOf(study: Study, runs: readonly RunToDraw[]): Generator<number, Curves> {
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
  const components = componentNames(problem).slice(0, Math.min(problem.size, MAX_KEPT));
  return { runs: curves, t, truth: components.map((_, j) => truth.curve(j, t)), components };
}
