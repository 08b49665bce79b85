import type { Finding, FindingKind } from './facts.ts';

/** What the order of a method is, or why it has none: one of them is said of a method at most. */
const VERDICTS: ReadonlySet<FindingKind> = new Set<FindingKind>([
  'refused',
  'formula',
  'as promised',
  'no order',
  'two rungs',
  'better than promised',
  'order lost',
  'not yet',
  'rounding only',
]);

/** Lines of a method, or of the study, that are in sight. */
const MAX = 2;

/** The findings of one method or of the study, those in sight before those behind them; each in the order in which they were found. */
export interface SplitFindings {
  readonly main: readonly Finding[];
  readonly details: readonly Finding[];
}

/** How much a finding matters to a reader who looks at two lines: the order, what is wrong, the predicted error. */
function weight({ kind, tone, method }: Finding): number {
  if (VERDICTS.has(kind)) return 3;
  // what a person has excluded stays in sight
  if (tone === 'trouble' || kind === 'struck') return 2;
  return kind === 'predicted' || kind === 'rounding part' || method === null ? 1 : 0;
}

/**
 * Splits the findings of one method, or of the study, into at most two that are in sight, and details.
 *
 * @example splitFindings(result.findings)
 */
export function splitFindings(findings: readonly Finding[]): SplitFindings {
  const main = new Set(
    findings
      .map((finding, i) => ({ finding, i, weighs: weight(finding) }))
      .filter(({ weighs }) => weighs > 0)
      .sort((a, b) => b.weighs - a.weighs || a.i - b.i)
      .slice(0, MAX)
      .map(({ finding }) => finding),
  );
  return {
    main: findings.filter((finding) => main.has(finding)),
    details: findings.filter((finding) => !main.has(finding)),
  };
}
