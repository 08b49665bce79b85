import type { CompiledRun } from '../../compile/compile.ts';
import { compileWithStart, type StartChoice } from '../../compile/compile-with-start.ts';
import type { Precision } from '../../compile/precision.ts';
import type { Method } from '../../method/method.ts';
import type { Problem } from '../../problem/problem.ts';
import type { LastStep } from '../../run/grid.ts';
import type { ErrorChoice } from './error-choice.ts';
import type { Ladder } from './ladder.ts';

/** A method of a study, with what a person decided about its rungs. */
export interface StudyMethod {
  readonly title: string;
  readonly method: Method;
  /** Rungs of the ladder, from 0, that do not count for the order. */
  readonly struck: readonly number[];
  /** First and last rung of the ladder that count; null where the rules choose. */
  readonly window: { readonly from: number; readonly to: number } | null;
  /** The arithmetic of its runs; that of the study without it. */
  readonly precision?: Precision;
}

/** A study with all texts read: one problem, some methods, one ladder, one way to measure the error. */
export interface Study {
  readonly problem: Problem;
  readonly methods: readonly StudyMethod[];
  readonly ladder: Ladder;
  readonly lastStep: LastStep;
  readonly error: ErrorChoice;
  readonly start: StartChoice;
  /** The error for which methods are compared by their cost; null for one that all of them reach. */
  readonly wished: number | null;
}

/**
 * The arithmetic of the runs of a method of a study.
 *
 * @example precisionOf(study, study.methods[0]!) // 'double'
 */
export function precisionOf(
  { start }: Pick<Study, 'start'>,
  { precision }: Pick<StudyMethod, 'precision'>,
): Precision {
  return precision ?? start.precision ?? 'double';
}

/** How the runs of a method begin, and in which arithmetic they are done. */
export function startOf(study: Pick<Study, 'start'>, method: Pick<StudyMethod, 'precision'>): StartChoice {
  return { ...study.start, precision: precisionOf(study, method) };
}

/**
 * A method of a study as a run of its problem, in its own arithmetic.
 *
 * @throws Refusal where the method cannot be used for the problem
 * @example runOf(study, study.methods[0]!).precision // 'double'
 */
export function runOf(
  study: Pick<Study, 'problem' | 'start'>,
  method: Pick<StudyMethod, 'method' | 'precision'>,
): CompiledRun {
  return compileWithStart(study.problem, method.method, startOf(study, method));
}

/** Whether first values are taken from the solution, of all components: for local errors they always are. */
export function startsFromSolution({ error, start }: Study): boolean {
  return error.at === 'local' || start.instead === 'exact';
}
