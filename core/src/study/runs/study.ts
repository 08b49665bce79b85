import type { StartChoice } from '../../compile/compile-with-start.ts';
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

/** Whether first values are taken from the solution, of all components: for local errors they always are. */
export function startsFromSolution({ error, start }: Study): boolean {
  return error.at === 'local' || start.instead === 'exact';
}
