import { ln } from '../../src/elementary/logarithm.ts';
import { unitRoundoff } from '../../src/compile/precision.ts';
import { systemRightHandSides } from '../../src/compile/right-hand-sides.ts';
import { norm } from '../../src/run/norm.ts';
import type { MethodResult, RungResult } from '../../src/study/judge/method-result.ts';
import { finish } from '../../src/study/run-study.ts';
import { methodSigns } from '../../src/study/runs/run-methods.ts';
import type { RungRun } from '../../src/study/runs/run-method.ts';
import type { Study } from '../../src/study/runs/study.ts';
import { placesOf, type Truth } from '../../src/study/runs/truth.ts';
import type { StudyResult } from '../../src/study/study-result.ts';

/** A study whose findings are held against something else, and the finding that is. */
export interface Claimed {
  readonly study: Study;
  readonly result: StudyResult;
  readonly truth: Truth;
  /** Of the finding; the first method for one about the study as a whole. */
  readonly method: number;
  readonly own: MethodResult;
  readonly rungs: readonly number[];
  readonly sentence: string;
}

/** What is wrong with a claim, as another way of working it out says; null where nothing is. */
export type Verdict = string | null;

/** The runs of a method of a study at other numbers of steps. */
export function runsAt(study: Study, method: number, counts: readonly number[]): readonly RungRun[] {
  return finish(methodSigns({ ...study, ladder: { counts } }, method)).rungs;
}

/** The errors of a method of a study with other numbers of steps. */
export function errorsAt(
  study: Study,
  method: number,
  counts: readonly number[],
): readonly (number | null)[] {
  return runsAt(study, method, counts).map(({ taken }) => taken?.error ?? null);
}

/** The error of a method at a number of steps, where it is clear of rounding; null elsewhere. */
export function clearError(study: Study, method: number, steps: number): number | null {
  const [rung] = runsAt(study, method, [steps]);
  const error = rung?.taken?.error ?? null;
  // two runs may be near each other by chance: a value of one is rounded at least once
  const rounding = Math.max(rung?.rounding?.size ?? 0, unitRoundoff(study.start.precision));
  return error !== null && error > 1000 * rounding ? error : null;
}

/** The rungs that count for an order, the largest step size first. */
export function counting({ own }: Pick<Claimed, 'own'>): readonly RungResult[] {
  return own.rungs
    .filter(({ leftOut, error }) => leftOut === null && error !== null)
    .sort((a, b) => b.h - a.h);
}

/** Rungs with errors of their own, those not yet on their expansion among them, the largest step size first. */
export function clear({ own }: Claimed): readonly RungResult[] {
  return own.rungs
    .filter(({ leftOut, error }) => (leftOut === null || leftOut.kind === 'coarse') && error !== null)
    .sort((a, b) => b.h - a.h);
}

/**
 * Orders of runs with the smallest counting h, and with that divided twice more as the study divides it, as far as they
 * are clear of rounding. A kink lies within their steps as it does in those of the study.
 */
export function finerOrders(of: Pick<Claimed, 'study' | 'method' | 'own'>): readonly number[] {
  const [finest = 1, before = 1] = counting(of)
    .map(({ steps }) => steps)
    .reverse();
  const factor = finest % before === 0 && finest > before ? finest / before : 2;
  const errors = [1, factor, factor * factor].map((k) => clearError(of.study, of.method, k * finest));
  return errors.slice(1).flatMap((error, i) => {
    const coarser = errors[i];
    return error === null || coarser == null ? [] : [ln(coarser / error) / ln(factor)];
  });
}

/** Sizes of the steps of some rungs of the method. */
export function sizesOfRungs({ own }: Claimed, is: (rung: RungResult) => boolean): readonly number[] {
  return own.rungs.filter(is).map(({ h }) => h);
}

/** Whether two lists hold the same numbers, in any order. */
export function isSameList(one: readonly number[], other: readonly number[]): boolean {
  const sorted = (list: readonly number[]): string => [...list].sort((a, b) => a - b).join();
  return sorted(one) === sorted(other);
}

/** The state of the solution at a time. */
export function solutionAt({ study, truth }: Claimed, t: number): Float64Array {
  return Float64Array.from({ length: study.problem.size }, (_, j) => truth.value(j, t));
}

/** The right-hand sides along the solution. */
export function slopesAt(of: Claimed, t: number): Float64Array {
  return systemRightHandSides(of.study.problem)(t, solutionAt(of, t)).slice();
}

/** Size of the components that the error is of at a time. */
export function sizeAt(of: Claimed, t: number): number {
  const places = placesOf(of.study.problem, of.study.error.of);
  return 'message' in places ? NaN : norm(places.map((place) => of.truth.value(place, t)));
}
