import type { Finding } from './findings/facts.ts';
import type { Comparison } from './judge/comparison.ts';
import type { MethodResult } from './judge/method-result.ts';
import type { Rung } from './runs/ladder.ts';
import type { Truth } from './runs/truth.ts';

/** What a study has come to, and what its numbers mean. */
export interface StudyResult {
  readonly rungs: readonly Rung[];
  readonly methods: readonly MethodResult[];
  /** What errors are taken against; null where `of` names no component. */
  readonly truth: Pick<Truth, 'kind' | 'error' | 'switches'> | null;
  readonly findings: readonly Finding[];
  readonly comparison: Comparison | null;
  /** Things that could not be done, as a sentence: a rung with no step size, a component that is not there. */
  readonly problems: readonly string[];
}
