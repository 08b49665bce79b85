import { findingsOf } from './findings/findings-of.ts';
import { compare } from './judge/comparison.ts';
import { judgeMethod } from './judge/judge-method.ts';
import { layLadder } from './runs/ladder.ts';
import { latestTime, type MethodRun } from './runs/run-method.ts';
import type { Study } from './runs/study.ts';
import { placesOf, truthOf, wrongPlace } from './runs/truth.ts';
import type { StudyResult } from './study-result.ts';

/**
 * Says what the numbers of a study mean: ratios, orders, which rungs count and why, the model of rounding, values
 * without a reference, findings and a comparison. Nothing is run again, so a strike or another window costs nothing.
 *
 * @param runs one per method, in the order of the study
 * @example conclude(study, [])
 */
export function conclude(study: Study, runs: readonly MethodRun[]): StudyResult {
  const { problem, ladder, lastStep } = study;
  const rungs = layLadder(ladder, problem.start, problem.end, lastStep);
  const places = placesOf(problem, study.error.of);
  const truth = 'message' in places ? null : truthOf(problem, places, latestTime(study, rungs));
  const methods = study.methods.flatMap((method, i) => {
    const run = runs[i];
    return run === undefined ? [] : [judgeMethod(study, truth, method, run)];
  });
  const comparison = compare(methods, study.wished);
  return {
    rungs,
    methods,
    truth: truth && { kind: truth.kind, error: truth.error, switches: truth.switches },
    findings: findingsOf(study, truth, methods, comparison),
    comparison,
    problems: [
      ...rungs.flatMap((rung) => (rung.ok ? [] : [`${rung.written}: ${rung.message}`])),
      ...('message' in places ? [places.message] : []),
      ...[wrongPlace(problem, study.error)].filter((message) => message !== null),
    ],
  };
}
