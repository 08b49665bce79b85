import type { Finding, FindingKind } from './findings/facts.ts';
import { findingsOf } from './findings/findings-of.ts';
import { compare } from './judge/comparison.ts';
import { kinkTimes } from './judge/kinks.ts';
import { judgeMethod } from './judge/judge-method.ts';
import { withRoundingBeside } from './judge/rounding-beside.ts';
import type { MethodResult } from './judge/method-result.ts';
import { layLadder } from './runs/ladder.ts';
import { latestTime, type MethodRun } from './runs/run-method.ts';
import type { Study } from './runs/study.ts';
import { placesOf, type Truth, truthOf, wrongPlace } from './runs/truth.ts';
import type { StudyResult } from './study-result.ts';

/**
 * Whether what lies between step sizes says what methods need for an error: not where the place of a kink within a step decides
 * over it, nor for errors of single steps, whose work does not depend on h.
 */
function isComparable({ error, problem }: Study, truth: Truth | null): boolean {
  return error.at !== 'local' && (truth === null || kinkTimes(problem, truth).length === 0);
}

/** Findings that state the range of an order. */
const RANGED: ReadonlySet<FindingKind> = new Set<FindingKind>([
  'as promised',
  'better than promised',
  'order lost',
]);

/** A method whose order is a range only where a finding states it, or nothing is expected that it could exclude. */
function withStatedRange(method: MethodResult, place: number, findings: readonly Finding[]): MethodResult {
  const isStated =
    method.promised.kind !== 'order' ||
    findings.some((finding) => finding.method === place && RANGED.has(finding.kind));
  return isStated ? method : { ...method, order: null };
}

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
  const known = withRoundingBeside(study, runs);
  const methods = study.methods.flatMap((method, i) => {
    const run = known[i];
    return run === undefined ? [] : [judgeMethod(study, truth, method, run)];
  });
  const comparison = isComparable(study, truth) ? compare(methods, study.wished) : null;
  const findings = findingsOf(study, truth, methods, comparison);
  return {
    rungs,
    methods: methods.map((method, i) => withStatedRange(method, i, findings)),
    truth: truth && { kind: truth.kind, error: truth.error, switches: truth.switches },
    findings,
    comparison,
    problems: [
      ...rungs.flatMap((rung) => (rung.ok ? [] : [`${rung.written}: ${rung.message}`])),
      ...('message' in places ? [places.message] : []),
      ...[wrongPlace(problem, study.error)].filter((message) => message !== null),
    ],
  };
}
