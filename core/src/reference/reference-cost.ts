import { MAX_JET_COMPONENTS } from '../compile/jets/jet-function.ts';
import type { Problem } from '../problem/problem.ts';
import { ORDER } from './taylor-segment.ts';
import { fineStepsSeconds } from './reference-solution.ts';
import { branchesOf, switchOperations } from './switches.ts';
import { seriesOperations } from '../compile/jets/series-size.ts';
import { firstStep, MAX_PIECES } from './taylor-solution.ts';

/** Seconds that one operation of a series takes to be generated and compiled, and to be run. */
const SECONDS_TO_COMPILE = 2.5e-6;
const SECONDS_TO_RUN = 1.5e-9;
/** Seconds that a segment takes besides, to be checked and kept: in any case, and for each component. */
const SECONDS_PER_PIECE = { any: 5e-6, component: 3e-7 };
/** A reference is made twice, to estimate its error. */
const RUNS = 2;
/** Operations of a series beyond which its first step is not tried out, and the segments that are assumed then. */
const MAX_TRIED = 60_000;
const ASSUMED_PIECES = 200;
/**
 * Segments that are assumed at least where right-hand sides have kinks: each change of branch ends one, and they may be
 * many.
 */
const PIECES_WITH_KINKS = 2_000;

/**
 * About how many seconds a reference solution takes on one core: from the size of its series, and from its first step,
 * which tells how stiff the problem is. The steps may become longer or shorter later.
 */
export function estimatedReferenceSeconds(problem: Problem, until = problem.end): number {
  if (problem.size > MAX_JET_COMPONENTS) return fineStepsSeconds(problem);
  const operations = seriesOperations(problem, ORDER);
  const pieces =
    operations > MAX_TRIED
      ? ASSUMED_PIECES
      : Math.min(MAX_PIECES, Math.ceil((until - problem.start) / firstStep(problem)));
  const assumed = branchesOf(problem) === null ? pieces : Math.max(pieces, PIECES_WITH_KINKS);
  const piece =
    (operations + switchOperations(problem)) * SECONDS_TO_RUN +
    SECONDS_PER_PIECE.any +
    problem.size * SECONDS_PER_PIECE.component;
  return RUNS * (operations * SECONDS_TO_COMPILE + assumed * piece);
}
