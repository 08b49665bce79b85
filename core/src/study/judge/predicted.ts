import {
  doubtAt,
  leadingAt,
  type LeadingError,
  leadingError,
  type SolutionAt,
} from '../../inspect/leading/leading-error.ts';
import { inspectMethod } from '../../inspect/inspect-method.ts';
import { MAX_SERIES_COMPONENTS } from '../../compile/jets/rhs-series.ts';
import { norm } from '../../run/norm.ts';
import type { Problem } from '../../problem/problem.ts';
import { problemKey } from '../../problem/problem-key.ts';
import { attempt } from '../../text/refusal.ts';
import { memoize } from '../../text/memoize.ts';
import { summarize } from '../measures/measure.ts';
import { gridMeasureOf, isRelative } from '../runs/error-choice.ts';
import type { Study, StudyMethod } from '../runs/study.ts';
import { placesOf, type Truth } from '../runs/truth.ts';
import { proofFor } from '../trial/trial-order.ts';
import { wrongDerivativeIn } from './wrong-derivatives.ts';
import { exactCheck } from './exact-check.ts';
import { kinkTimes } from './kinks.ts';

/** The leading term of the error of a study's method: constant * h^order, with the sign of a single component. */
export interface Predicted {
  readonly order: number;
  readonly constant: number;
  /** The error of one component with its sign; null for a norm, a maximum or a mean. */
  readonly signed: number | null;
  /** The order that the formula has on problems in general. */
  readonly general: number;
  /** A time near that of the error at which the leading term changes its sign; null where there is none. */
  readonly changesSign: number | null;
}

const known = memoize<LeadingError | null>(60);

/**
 * Whether the starting method has at least the order of the method, so that they leave no trace in the leading term.
 */
function isWellStarted({ method }: StudyMethod, { start, problem }: Study, order: number): boolean {
  if (method.depth === 0) return true;
  const name = start.instead ?? method.startWith?.name ?? 'exact';
  if (name === 'exact') return true;
  const starter = start.find(name);
  const own = starter && proofFor(starter, problem);
  return own != null && own.order >= order;
}

/** Whether the reference is so good that series along it are those of the solution. */
const GOOD = 1e-11;

/**
 * The leading error of a method of a study along its interval; null where it is not proved, where the solution has
 * kinks, where there is no good solution to expand about, and where the starting method has a lower order.
 */
export function leadingOf(
  study: Study,
  truth: Truth,
  method: StudyMethod,
  until: number,
): LeadingError | null {
  const { problem } = study;
  const key = problemKey(problem, method.method.text, study.start.instead, until);
  return known(key, () => made(study, truth, method, until));
}

function isTrusted(problem: Problem, truth: Truth): boolean {
  if (truth.kind === 'exact') return exactCheck(problem)?.satisfied === true;
  return truth.kind === 'taylor' && truth.error <= GOOD && truth.reached >= problem.end;
}

const solutions = memoize<SolutionAt>(4);
/** Most times at which a solution is kept. */
const MAX_TIMES = 20_000;

/** The solution of a problem; all methods of a study ask for it at the same times. */
export function solutionOf(problem: Problem, truth: Truth): SolutionAt {
  const key = problemKey(problem, truth.reached);
  return solutions(key, () => {
    const states = new Map<number, Float64Array>();
    return (t, out) => {
      const state = states.get(t) ?? Float64Array.from({ length: problem.size }, (_, j) => truth.value(j, t));
      if (states.size < MAX_TIMES) states.set(t, state);
      out.set(state);
    };
  });
}

/** Whether errors can be expanded about the solution of a study: it is known, and has no kinks. */
export function isExpandable({ problem }: Study, truth: Truth): boolean {
  return isTrusted(problem, truth) && kinkTimes(problem, truth).length === 0;
}

function made(study: Study, truth: Truth, method: StudyMethod, until: number): LeadingError | null {
  const { problem } = study;
  if (problem.size > MAX_SERIES_COMPONENTS) return null;
  const { linear } = inspectMethod(method.method);
  const proof = proofFor(method.method, problem);
  if (linear === null || proof === null || !isWellStarted(method, study, proof.order)) return null;
  if (!isExpandable(study, truth)) return null;
  const found = attempt(() =>
    leadingError(linear, proof, { problem, solution: solutionOf(problem, truth), end: until }),
  );
  return found.ok ? found.value : null;
}

/** How near to the time of the error a change of sign is reported, as a part of the interval. */
const NEAR = 0.08;
/** Beside the largest value of the leading term, one below that is small; one below the other is no value at all. */
const SMALL = 0.3;
const NOTHING = 1e-3;
/** Parts of the interval at whose ends a change of sign is looked for. */
const SIGN_LOOKS = 400;

/** The time at which the leading term of a component changes its sign, where that makes the error at t small. */
function signChange(leading: LeadingError, place: number, t: number): number | null {
  const { start, end } = leading;
  const timeAt = (i: number): number => start + ((end - start) * i) / SIGN_LOOKS;
  const values = new Float64Array(SIGN_LOOKS + 1);
  let largest = 0;
  for (let i = 0; i <= SIGN_LOOKS; i += 1) {
    values[i] = leadingAt(leading, place, timeAt(i));
    largest = Math.max(largest, Math.abs(values[i]!));
  }
  if (Math.abs(leadingAt(leading, place, t)) > SMALL * largest) return null;
  const zeros: number[] = [];
  let [last, before] = [start, 0];
  for (let i = 0; i <= SIGN_LOOKS; i += 1) {
    const value = values[i]!;
    if (Math.abs(value) < NOTHING * largest) continue;
    if (value * before < 0) zeros.push(zeroBetween((at) => leadingAt(leading, place, at), last, timeAt(i)));
    [last, before] = [timeAt(i), value];
  }
  const near = zeros.filter((zero) => Math.abs(zero - t) <= NEAR * (end - start));
  return near.length === 0 ? null : near.reduce((a, b) => (Math.abs(b - t) < Math.abs(a - t) ? b : a));
}

/** A zero of a function with values of different sign at two places, by bisection. */
function zeroBetween(of: (t: number) => number, from: number, to: number): number {
  const sign = Math.sign(of(from));
  let [low, high] = [from, to];
  for (let middle = low + (high - low) / 2; middle > low && middle < high; middle = low + (high - low) / 2)
    if (Math.sign(of(middle)) === sign) low = middle;
    else high = middle;
  return high;
}

/** A leading term counts as zero unless it is so many times what it may be off by. */
const SURE = 10;

/** Times at which an error over the grid is predicted, and how near the prediction from half as many must be. */
const LOOKS = 2048;
const AGREES = 0.005;

/** The leading error of a method of a study, and where the study looks at it. */
interface LeadingHere {
  readonly leading: LeadingError;
  /** The order of the formula in general. */
  readonly general: number;
  /** The components that the error is of. */
  readonly places: readonly number[];
  /** The time of the error, or the end of the interval for one over the grid. */
  readonly until: number;
  /** The times of the error: that one, or equidistant ones for one over the grid. */
  readonly times: readonly number[];
}

function leadingHere(study: Study, truth: Truth, method: StudyMethod): LeadingHere | null {
  const { problem, error } = study;
  const places = placesOf(problem, error.of);
  if ('message' in places || error.at === 'local') return null;
  if (wrongDerivativeIn(method.method, problem) !== null) return null;
  const until = typeof error.at === 'object' ? error.at.t : problem.end;
  if (!(until > problem.start)) return null;
  const leading = leadingOf(study, truth, method, until);
  const proof = proofFor(method.method, problem);
  if (leading === null || proof === null) return null;
  const { start, end } = leading;
  const times =
    gridMeasureOf(error) === null
      ? [until]
      : Array.from({ length: LOOKS + 1 }, (_, i) => start + ((end - start) * i) / LOOKS);
  return { leading, general: proof.order, places, until, times };
}

/** Whether the leading term is not zero at some time of the error, as far as it is known. */
function isThere({ leading, places, times }: LeadingHere): boolean {
  return times.some(
    (t) =>
      norm(places.map((at) => leadingAt(leading, at, t))) >
      SURE * norm(places.map((at) => doubtAt(leading, at, t))),
  );
}

/** What theory says of the error of a method on a problem. */
export interface Theory {
  /** The leading term; null where theory does not say it. */
  readonly predicted: Predicted | null;
  /** Whether the leading term of the formula's order is zero at the times of the error, as far as it is known. */
  readonly leadingZero: boolean;
}

export function theoryOf(study: Study, truth: Truth, method: StudyMethod): Theory {
  const here = leadingHere(study, truth, method);
  if (here === null) return { predicted: null, leadingZero: false };
  if (!isThere(here)) return { predicted: null, leadingZero: here.leading.order === here.general };
  return { predicted: predictedFrom(here, study, truth), leadingZero: false };
}

/** The error that theory says a method makes at step size h, as the leading term and nothing else. */
function predictedFrom(here: LeadingHere, { error, problem }: Study, truth: Truth): Predicted | null {
  const { leading, general, places, until, times } = here;
  const [solution, state] = [solutionOf(problem, truth), new Float64Array(problem.size)];
  const sizeAt = (t: number): number => {
    solution(t, state);
    return norm(places.map((place) => state[place]!));
  };
  const errorAt = (t: number): number => {
    const size = norm(places.map((place) => leadingAt(leading, place, t)));
    return isRelative(error) ? size / sizeAt(t) : size;
  };
  const { order } = leading;
  const measure = gridMeasureOf(error);
  if (measure !== null) {
    const errors = times.map(errorAt);
    const constant = summarize(measure, errors);
    // as over a grid of ever more points; half as many must say the same
    const half = summarize(
      measure,
      errors.filter((_, i) => i % 2 === 0),
    );
    if (!(Math.abs(half - constant) <= AGREES * constant)) return null;
    return { order, constant, signed: null, general, changesSign: null };
  }
  const constant = errorAt(until);
  if (!Number.isFinite(constant)) return null;
  const [place] = places;
  const isSingle = places.length === 1 && place !== undefined;
  return {
    order,
    constant,
    signed: isSingle ? Math.sign(leadingAt(leading, place, until)) * constant : null,
    general,
    changesSign: isSingle ? signChange(leading, place, until) : null,
  };
}
