import { gridMeasureOf } from './error-choice.ts';
import { layLadder, stepsOf } from './ladder.ts';
import { nominalEvaluations } from './cost.ts';
import type { Method } from '../../method/method.ts';
import { isDecimal } from '../../compile/precision.ts';
import { DECIMAL_FACTOR, newtonCost, rhsSeconds } from '../../compile/rhs-cost.ts';
import { estimatedReferenceSeconds } from '../../reference/reference-cost.ts';
import { branchesOf } from '../../reference/switches.ts';
import { precisionOf, startsFromSolution, type Study, type StudyMethod } from './study.ts';
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

/** Seconds that all of a study takes before any run: its reference, where it has one. */
function referenceSeconds(study: Study): number {
  const { problem, error } = study;
  // first steps from the solution ask for all components, whatever the error is of
  const places = placesOf(problem, startsFromSolution(study) ? 'norm' : error.of);
  return 'message' in places || isExact(problem, places) ? 0 : estimatedReferenceSeconds(problem);
}

/** Runs in decimals are done again with more digits, and their combinations of stages are operations like others. */
const DECIMAL_RUNS = 2;
const COMBINING = 4;

/** Seconds of a step of a method, and those until its first step. */
function methodSeconds(
  study: Study,
  chosen: StudyMethod,
): { readonly step: number; readonly compiling: number } {
  const { problem, error } = study;
  const { method } = chosen;
  const isInDecimals = isDecimal(precisionOf(study, chosen));
  const looks = gridMeasureOf(error) === null ? 0 : LOOK;
  const iterations = branchesOf(problem) === null ? ITERATIONS.smooth : ITERATIONS.kinks;
  const { plain, implicit } = nominalEvaluations(method);
  const newton = newtonCost(problem, solvedTogether(method));
  const evaluations = plain + iterations * implicit * (1 + newton.evaluations);
  const solved = implicit > 0 ? iterations * newton.elimination : 0;
  if (isInDecimals) {
    const combined = COMBINING * problem.size * SECONDS_PER_STEP * DECIMAL_FACTOR;
    const each = rhsSeconds(problem, true) + combined;
    return {
      step: DECIMAL_RUNS * (evaluations * each + solved * DECIMAL_FACTOR),
      compiling: (plain + implicit) * SECONDS_TO_COMPILE,
    };
  }
  return {
    step: evaluations * rhsSeconds(problem) + solved + (looks + 1) * problem.size * SECONDS_PER_STEP,
    compiling: (plain + implicit) * SECONDS_TO_COMPILE,
  };
}

/**
 * About how long a study will take on one core, its reference included: for the choice of where to run it.
 *
 * @example estimatedSeconds(study) < 60 // true
 */
export function estimatedSeconds(study: Study): number {
  const { problem, methods, ladder, lastStep } = study;
  const steps = stepsOf(layLadder(ladder, problem.start, problem.end, lastStep));
  return methods.reduce((sum, method) => {
    const { step, compiling } = methodSeconds(study, method);
    return sum + steps * step + compiling;
  }, referenceSeconds(study));
}

/** Part of a study that can be run by itself: a method at some of the step sizes. */
export interface Piece {
  readonly method: number;
  /** Places in the ladder, in its order. */
  readonly rungs: readonly number[];
  /** About how long it takes on one core, without the reference, which may be there already. */
  readonly seconds: number;
}

/**
 * Cuts a study into pieces of a method each, which are as short as they may be: those of a time below the least are put together.
 *
 * @param least seconds of a piece; with a reference that takes longer, which every piece may have to make, those of the reference
 * @example piecesOf(study, 0.5).map(({ method }) => method) // [0, 1]
 */
export function piecesOf(study: Study, least: number): readonly Piece[] {
  const { problem, methods, ladder, lastStep } = study;
  const laid = layLadder(ladder, problem.start, problem.end, lastStep).flatMap((rung, i) =>
    rung.ok ? [{ rung: i, steps: rung.grid.steps }] : [],
  );
  const atLeast = Math.max(least, referenceSeconds(study));
  return methods.flatMap((one, method) => {
    const { step, compiling } = methodSeconds(study, one);
    const pieces: Piece[] = [];
    for (const { rung, steps } of laid) {
      const last = pieces.at(-1);
      const seconds = steps * step;
      if (last === undefined || last.seconds >= atLeast)
        pieces.push({ method, rungs: [rung], seconds: compiling + seconds });
      else
        pieces[pieces.length - 1] = { method, rungs: [...last.rungs, rung], seconds: last.seconds + seconds };
    }
    return pieces;
  });
}
