import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import type { StartChoice } from '../compile/compile-with-start.ts';
import type { LastStep } from '../run/grid.ts';
import { conclude } from './conclude.ts';
import type { ErrorChoice } from './runs/error-choice.ts';
import { type Ladder, layLadder, stepsOf } from './runs/ladder.ts';
import { type MethodRun, methodSteps, type RungRun } from './runs/run-method.ts';
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

/** A sign of life of one method: the part of its steps that is done, and a rung that has just been finished. */
export type MethodSign = Omit<Progress, 'method'>;

/**
 * Runs one method of a study over the whole ladder; whoever pulls may stop at every sign of life.
 *
 * @throws RangeError where the study has no such method
 */
export function* methodSigns(study: Study, method: number): Generator<MethodSign, MethodRun> {
  const { problem, ladder, lastStep } = study;
  const chosen = study.methods[method];
  if (chosen === undefined) throw new RangeError(`this study has no method ${method}`);
  const rungs = layLadder(ladder, problem.start, problem.end, lastStep);
  const all = Math.max(1, stepsOf(rungs));
  const work = methodSteps(study, rungs, chosen);
  let done = 0;
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    done += next.value.steps;
    yield { part: Math.min(1, done / all), finished: next.value.finished };
  }
}

/** Runs all methods of a study one after another; whoever pulls may stop at every sign of life. */
export function* runSteps(study: Study): Generator<Progress, readonly MethodRun[]> {
  const runs: MethodRun[] = [];
  for (const method of study.methods.keys()) {
    const work = methodSigns(study, method);
    let next = work.next();
    for (; next.done !== true; next = work.next()) {
      const { part, finished } = next.value;
      yield { method, part: (method + part) / study.methods.length, finished };
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
