import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import type { StartChoice } from '../run/compile-with-start.ts';
import type { LastStep } from '../run/grid.ts';
import { conclude } from './conclude.ts';
import type { ErrorChoice } from './error-choice.ts';
import { type Ladder, layLadder } from './ladder.ts';
import { type MethodRun, methodSteps, type RungRun } from './run-method.ts';
import type { StudyResult } from './study-result.ts';

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

/** A sign of life of a study under way: which method it is at, the part of all steps done, and a finished rung. */
export interface Progress {
  readonly method: number;
  readonly part: number;
  readonly finished: RungRun | null;
}

/** Runs all methods of a study one after another; whoever pulls may stop at every sign of life. */
export function* runSteps(study: Study): Generator<Progress, readonly MethodRun[]> {
  const { problem, ladder, lastStep } = study;
  const rungs = layLadder(ladder, problem.start, problem.end, lastStep);
  const steps = rungs.reduce((sum, rung) => sum + (rung.ok ? rung.grid.steps : 0), 0);
  const all = Math.max(1, steps * study.methods.length);
  const runs: MethodRun[] = [];
  for (const [i, method] of study.methods.entries()) {
    const work = methodSteps(study, rungs, method);
    let done = 0;
    let next = work.next();
    for (; next.done !== true; next = work.next()) {
      done += next.value.steps;
      const part = Math.min(1, (i * steps + done) / all);
      yield { method: i, part, finished: next.value.finished };
    }
    runs.push(next.value);
  }
  return runs;
}

/** Runs a whole study and says what its numbers mean; whoever pulls may stop at every sign of life. */
export function* studySteps(study: Study): Generator<Progress, StudyResult> {
  return conclude(study, yield* runSteps(study));
}

/** Pulls a piece of work to its end. */
export function finish<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done === true) return value;
  }
}

/** Runs a whole study at once. */
export function runStudy(study: Study): StudyResult {
  return finish(studySteps(study));
}
