import { layLadder, stepsOf } from './ladder.ts';
import { promisedEvaluations } from './cost.ts';
import type { Study } from './study.ts';

/** Time of one evaluation of one component, as a machine of these years takes it; implicit formulas iterate. */
const SECONDS_PER_RATE = 6e-9;
const ITERATIONS = 5;
const DIAGONALS = 12;
/** Looking at every grid point for the largest error costs about as much as that many evaluations. */
const LOOK = 60;

/** About how long a study will take on one core, from its steps alone: for the choice of where to run it. */
export function estimatedSeconds(study: Study): number {
  const { problem, methods, ladder, lastStep, error } = study;
  if (error.at === 'local') return 0;
  const steps = stepsOf(layLadder(ladder, problem.start, problem.end, lastStep));
  const looks = error.at === 'max' || error.at === 'rms' ? LOOK : 0;
  // a family has a Jacobian with few diagonals, which is solved with in about so many evaluations
  const isFamily = problem.unknowns.some(({ range }) => range !== null);
  const solving = isFamily ? Math.min(problem.size, DIAGONALS) : problem.size;
  return methods.reduce((sum, { method }) => {
    const { plain, implicit } = promisedEvaluations(method);
    const rates = plain + ITERATIONS * implicit * solving + looks + 1;
    return sum + steps * rates * problem.size * SECONDS_PER_RATE;
  }, 0);
}
