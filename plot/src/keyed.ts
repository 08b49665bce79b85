import type { Curves, StudyResult } from '@schritt/core/study';

/** The results of a study together with the keys of the methods they belong to. */
export interface KeyedResult {
  readonly result: StudyResult;
  readonly keys: readonly string[];
}

/** Curves together with the keys of the methods they belong to. */
export interface KeyedCurves {
  readonly curves: Curves;
  readonly keys: readonly string[];
}
