import { gridMeasureOf } from './error-choice.ts';
import { layLadder, stepsOf } from './ladder.ts';
import { nominalEvaluations } from './cost.ts';
import type { Method } from '../../method/method.ts';
import { newtonCost, rhsSeconds } from '../../compile/rhs-cost.ts';
import { estimatedReferenceSeconds } from '../../reference/reference-cost.ts';
import { branchesOf } from '../../reference/switches.ts';
import { startsFromSolution, type Study } from './study.ts';
import { isExact, placesOf } from './truth.ts';

/** Seconds that a step takes besides its evaluations, for each component. */
const SECONDS_PER_STEP = 4e-9;
/** Seconds that an evaluation of the text takes to be analysed and compiled, as often as a study does that. */
const SECONDS_TO_COMPILE = 3e-4;
/** Iterations of Newton's method in a step; where right-hand sides have kinks it may need all that it has. */
const ITERATIONS = { smooth: 15, kinks: 450 };
/** Looking at every grid point for the largest error costs about as much as that many evaluations. */
const LOOK = 60;

/** Values that a line of a method solves for together, at most. */
function solvedTogether({ statements }: Method): number {
  return statements.reduce(
    (most, one) => (one.kind === 'solve' ? Math.max(most, one.given.length) : most),
    0,
  );
}

/**
 * About how long a study will take on one core, its reference included: for the choice of where to run it.
 *
 * @example estimatedSeconds(study) < 60 // true
 */
export function estimatedSeconds(study: Study): number {
  const { problem, methods, ladder, lastStep, error } = study;
  const steps = stepsOf(layLadder(ladder, problem.start, problem.end, lastStep));
  const looks = gridMeasureOf(error) === null ? 0 : LOOK;
  // first steps from the solution ask for all components, whatever the error is of
  const places = placesOf(problem, startsFromSolution(study) ? 'norm' : error.of);
  const reference = 'message' in places || isExact(problem, places) ? 0 : estimatedReferenceSeconds(problem);
  const rhs = rhsSeconds(problem);
  const iterations = branchesOf(problem) === null ? ITERATIONS.smooth : ITERATIONS.kinks;
  return methods.reduce((sum, { method }) => {
    const { plain, implicit } = nominalEvaluations(method);
    const newton = newtonCost(problem, solvedTogether(method));
    const evaluations = plain + iterations * implicit * (1 + newton.evaluations);
    const solved = implicit > 0 ? iterations * newton.elimination : 0;
    const run = steps * (evaluations * rhs + solved + (looks + 1) * problem.size * SECONDS_PER_STEP);
    return sum + run + (plain + implicit) * SECONDS_TO_COMPILE;
  }, reference);
}
