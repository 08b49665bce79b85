import { conclude } from './conclude.ts';
import { type Progress, runSteps } from './runs/run-methods.ts';
import type { Study } from './runs/study.ts';
import type { StudyResult } from './study-result.ts';

/**
 * Runs a whole study and says what its numbers mean; the caller may stop at every progress report.
 *
 * @example [...studySteps(study)]
 */
export function* studySteps(study: Study): Generator<Progress, StudyResult> {
  return conclude(study, yield* runSteps(study));
}

/**
 * Pulls a piece of work to its end.
 *
 * @example finish(studySteps(study)).methods.length // 2
 */
export function finish<T>(work: Generator<unknown, T>): T {
  for (;;) {
    const { done, value } = work.next();
    if (done === true) return value;
  }
}

/**
 * Runs a whole study at once.
 *
 * @example runStudy(study).methods.length // 2
 */
export function runStudy(study: Study): StudyResult {
  return finish(studySteps(study));
}
