import type { Complex } from '../../inspect/stability/complex.ts';
import type { Comparison } from '../judge/comparison.ts';
import type { MethodResult, RungResult } from '../judge/method-result.ts';
import type { Study, StudyMethod } from '../runs/study.ts';
import type { Truth } from '../runs/truth.ts';

/** What the rules about a whole study look at. */
export interface StudyCase {
  readonly study: Study;
  readonly truth: Truth;
  readonly methods: readonly MethodResult[];
  readonly comparison: Comparison | null;
  /** Times of kinks and the fastest decay of the problem: looked for when a rule wants them, once a study. */
  readonly kinks: () => readonly number[];
  readonly decay: () => number | null;
  /** Eigenvalues of the Jacobian along the solution; none for larger systems. */
  readonly spectrum: () => readonly Complex[];
}

/** What the rules about one method look at. */
export interface MethodCase extends StudyCase {
  readonly method: StudyMethod;
  readonly result: MethodResult;
}

/** Places of the rungs of which something holds. */
export function indices(rungs: readonly RungResult[], is: (rung: RungResult) => boolean): readonly number[] {
  return rungs.flatMap((rung, i) => (is(rung) ? [i] : []));
}

/** The step sizes of some rungs. */
export function sizesOf(rungs: readonly RungResult[], which: readonly number[]): readonly number[] {
  return which.map((i) => rungs[i]?.h ?? NaN);
}

/** What is remarked of the first of some rungs, and how many more there are. */
export function firstRemark(
  rungs: readonly RungResult[],
  which: readonly number[],
): { readonly remark: string; readonly more: number } {
  return { remark: rungs[which[0] ?? 0]?.remark ?? '', more: which.length - 1 };
}
