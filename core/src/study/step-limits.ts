import { componentNames } from '../problem/problem.ts';
import { decayAlong } from './judge/fastest-decay.ts';
import type { Study } from './runs/study.ts';
import { isExact, truthOf } from './runs/truth.ts';
import { estimatedReferenceSeconds } from '../reference/reference-cost.ts';
import { realStabilityLimit } from './trial/stability-limit.ts';

/** Seconds that a reference may take that is made for these limits alone. */
const MAX_REFERENCE_SECONDS = 0.15;

/**
 * The step size beyond which the runs of each method grow where the solution decays: its limit on the negative real
 * axis over the rate of the fastest decay. One a method, in units of the independent variable.
 *
 * @returns null for a method that has no such limit, and for all where the fastest motion is no decay, or is not
 *   found for sure, or would take a long reference solution to be found
 * @example stepLimits(study)
 */
export function stepLimits({ problem, methods }: Study): readonly (number | null)[] {
  const places = componentNames(problem).map((_, j) => j);
  const limits = methods.map(({ method }) => realStabilityLimit(method));
  if (limits.every((limit) => limit === null)) return limits;
  if (!isExact(problem, places) && estimatedReferenceSeconds(problem) > MAX_REFERENCE_SECONDS)
    return limits.map(() => null);
  const decay = decayAlong(problem, truthOf(problem, places, problem.end));
  return limits.map((limit) => (limit === null || decay === null ? null : limit / decay));
}
