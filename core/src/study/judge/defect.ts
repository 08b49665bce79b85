import { pow } from '../../elementary/power.ts';
import { errorTerms, leadingAt, type LeadingError } from '../../inspect/leading/leading-error.ts';
import { inspectMethod } from '../../inspect/inspect-method.ts';
import { problemKey } from '../../problem/problem-key.ts';
import { norm } from '../../run/norm.ts';
import { memoize } from '../../text/memoize.ts';
import { attempt } from '../../text/refusal.ts';
import { isRelative } from '../runs/error-choice.ts';
import type { Study, StudyMethod } from '../runs/study.ts';
import { placesOf, type Truth } from '../runs/truth.ts';
import { digitsFor } from '../trial/trial-order.ts';
import { isExpandable, solutionOf } from './predicted.ts';

/** Below this a defect is less than the rounding of one step. */
const SMALL = 1e-16;
/** Times at which the error is looked at where it is the largest, or a mean. */
const LOOKS = 64;

/** The terms do not depend on the step sizes: a study is judged anew for each of them. */
const known = memoize<readonly LeadingError[] | null>(60);

/**
 * The error that the rounding of a method's decimals makes at a step size: of the terms of the local error up to the order
 * that the method has within its digits, all of which would vanish.
 *
 * @returns null where no decimal is rounded, the rounding is too small to show, or the error is not known
 */
export function defectOf(
  study: Study,
  truth: Truth,
  { method }: StudyMethod,
): ((h: number) => number) | null {
  const { problem, error } = study;
  const within = digitsFor(method, problem);
  const { linear } = inspectMethod(method);
  const places = placesOf(problem, error.of);
  if (within === null || linear === null || 'message' in places || within.defect < SMALL) return null;
  if (!isExpandable(study, truth)) return null;
  const end = typeof error.at === 'object' ? error.at.t : problem.end;
  const powers = { first: within.exact.order + 1, last: within.proof.order };
  const terms = known(problemKey(problem, method.text, end), () => {
    const along = { problem, solution: solutionOf(problem, truth), end };
    const found = attempt(() => errorTerms(linear, powers, along));
    return found.ok ? found.value : null;
  });
  if (terms === null) return null;
  const isAtOneTime = error.at === 'end' || typeof error.at === 'object';
  const times = isAtOneTime
    ? [end]
    : Array.from({ length: LOOKS + 1 }, (_, i) => problem.start + ((end - problem.start) * i) / LOOKS);
  const sizeAt = (t: number): number =>
    isRelative(error) ? norm(places.map((place) => truth.value(place, t))) : 1;
  const constants = terms.map((term) => ({
    order: term.order + (error.at === 'local' ? 1 : 0),
    size: Math.max(
      ...times
        .map((t) => norm(places.map((place) => leadingAt(term, place, t))) / sizeAt(t))
        .filter(Number.isFinite),
    ),
  }));
  return (h) => constants.reduce((sum, { order, size }) => sum + size * pow(h, order), 0);
}
