import { Refusal } from '../../text/refusal.ts';
import { layLadder, stepsOf } from './ladder.ts';
import {
  type MethodProgress,
  type MethodRun,
  methodSteps,
  programFault,
  refusedRun,
  type RungRun,
} from './run-method.ts';
import type { Study } from './study.ts';

/** A progress report of a study under way: which method it is at, the part of all steps done, and a finished rung. */
export interface Progress {
  readonly method: number;
  readonly part: number;
  readonly finished: RungRun | null;
}

/** A progress report of one method: the part of its steps that is done, and a rung that has just been finished. */
export type MethodSign = Omit<Progress, 'method'>;

/**
 * Runs one method of a study over the whole ladder; the caller may stop at every yield.
 *
 * @throws Refusal where the study has no such method
 * @example [...methodSigns(study, 0)]
 */
export function* methodSigns(study: Study, method: number): Generator<MethodSign, MethodRun> {
  const { problem, ladder, lastStep } = study;
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${method}`);
  const rungs = layLadder(ladder, problem.start, problem.end, lastStep);
  const all = Math.max(1, stepsOf(rungs));
  const work = methodSteps(study, rungs, chosen);
  let done = 0;
  for (;;) {
    let next: IteratorResult<MethodProgress, MethodRun>;
    try {
      next = work.next();
    } catch (thrown) {
      // whatever goes wrong with one method, the others of the study have their runs
      const why = thrown instanceof Refusal ? thrown.message : programFault(thrown);
      return refusedRun(chosen.title, rungs, why);
    }
    if (next.done === true) return next.value;
    done += next.value.steps;
    yield { part: Math.min(1, done / all), finished: next.value.finished };
  }
}

/** Runs all methods of a study one after another; the caller may stop at every yield. */
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
