import { rounded } from '../../text/number-text.ts';
import { exp } from '../../elementary/exponential.ts';
import { ln, log10 } from '../../elementary/logarithm.ts';
import { evaluations } from '../runs/cost.ts';
import type { MethodResult, RungResult } from './method-result.ts';

/** What a method needs for an error, from between its rungs. */
export interface Need {
  readonly method: number;
  readonly h: number;
  readonly steps: number;
  readonly evaluations: number;
}

/** Methods of one study beside one another. */
export interface Comparison {
  /** The error they are compared at. */
  readonly wished: number;
  /** Those that reach it, the cheapest first. */
  readonly needs: readonly Need[];
  /** Methods none of whose rungs is so exact. */
  readonly short: readonly number[];
  /** Errors at one step size that all have, the smallest first. */
  readonly equalStep: {
    readonly h: number;
    readonly errors: readonly { readonly method: number; readonly error: number }[];
  } | null;
  /** Errors at one number of evaluations, from between the rungs, the smallest first. */
  readonly equalCost: {
    readonly evaluations: number;
    readonly errors: readonly { readonly method: number; readonly error: number }[];
  } | null;
}

/** A rung that can be compared, on logarithmic scales. */
interface Point {
  readonly lnError: number;
  readonly lnCost: number;
  readonly lnStep: number;
  readonly lnSteps: number;
}

/** The rungs of a method that count, from coarse to fine, as long as more cost buys a smaller error. */
function pointsOf({ rungs }: MethodResult): readonly Point[] {
  const points: Point[] = [];
  const usable = rungs.filter(
    (rung) =>
      rung.error !== null &&
      rung.error > 0 &&
      isSmall(rung) &&
      (rung.leftOut === null || rung.leftOut.kind === 'coarse'),
  );
  for (const rung of [...usable].sort((a, b) => b.h - a.h)) {
    const point = pointOf(rung);
    const before = points.at(-1);
    if (before !== undefined && point.lnError >= before.lnError) continue;
    points.push(point);
  }
  return points;
}

/** Whether an error is below the size of what it is an error of; a larger one is worth no cost at all. */
function isSmall({ digits }: RungResult): boolean {
  return digits !== null && digits > 0;
}

function pointOf(rung: RungResult): Point {
  return {
    lnError: ln(rung.error ?? NaN),
    lnCost: ln(Math.max(1, evaluations(rung.cost))),
    lnStep: ln(rung.h),
    lnSteps: ln(rung.steps),
  };
}

/** The place between two rungs where one quantity has a value; null outside of all. */
function between(points: readonly Point[], key: 'lnError' | 'lnCost', value: number): Point | null {
  for (const [i, right] of points.entries()) {
    const left = points[i - 1] ?? right;
    const [a, b] = [left[key], right[key]];
    if (value < Math.min(a, b) - 1e-12 || value > Math.max(a, b) + 1e-12) continue;
    const part = a === b ? 0 : (value - a) / (b - a);
    const mix = (k: keyof Point): number => left[k] + part * (right[k] - left[k]);
    return { lnError: mix('lnError'), lnCost: mix('lnCost'), lnStep: mix('lnStep'), lnSteps: mix('lnSteps') };
  }
  return null;
}

/** The smallest power of ten that every method reaches within its rungs. */
function commonError(lists: readonly (readonly Point[])[]): number | null {
  const finest = Math.max(...lists.map((points) => points.at(-1)?.lnError ?? Infinity));
  return Number.isFinite(finest) ? Number(`1e${Math.ceil(log10(exp(finest)) - 1e-9)}`) : null;
}

function sorted(errors: readonly { readonly method: number; readonly error: number }[]): typeof errors {
  return [...errors].sort((a, b) => a.error - b.error);
}

/** Errors at the finest step size that all methods have. */
function atEqualStep(methods: readonly MethodResult[], compared: readonly number[]): Comparison['equalStep'] {
  const [first, ...others] = compared.map((method) => ({
    method,
    rungs: (methods[method]?.rungs ?? []).filter((r) => r.leftOut === null || r.leftOut.kind === 'coarse'),
  }));
  const shared = [...(first?.rungs ?? [])]
    .sort((a, b) => a.h - b.h)
    .find(({ h }) => others.every(({ rungs }) => rungs.some((r) => r.h === h)));
  if (first === undefined || shared === undefined) return null;
  const errors = [first, ...others].map(({ method, rungs }) => ({
    method,
    error: rungs.find((r) => r.h === shared.h)?.error ?? NaN,
  }));
  return { h: shared.h, errors: sorted(errors) };
}

/** Errors at the largest cost that all methods reach. */
function atEqualCost(
  lists: readonly (readonly Point[])[],
  compared: readonly number[],
): Comparison['equalCost'] {
  const cost = Math.min(...compared.map((method) => lists[method]?.at(-1)?.lnCost ?? -Infinity));
  const errors = compared.flatMap((method) => {
    const point = between(lists[method] ?? [], 'lnCost', cost);
    return point === null ? [] : [{ method, error: exp(point.lnError) }];
  });
  return errors.length < 2 ? null : { evaluations: Math.round(exp(cost)), errors: sorted(errors) };
}

/**
 * Compares methods: the evaluations each needs for an error, from straight lines between its rungs on logarithmic
 * scales; never from beyond them.
 *
 * @param wished the error to compare at; null for the smallest power of ten that all of them reach
 * @returns null where fewer than two methods have errors
 */
export function compare(methods: readonly MethodResult[], wished: number | null): Comparison | null {
  const lists = methods.map(pointsOf);
  const compared = methods.flatMap((_, method) => (lists[method]!.length > 0 ? [method] : []));
  if (compared.length < 2) return null;
  const error = wished ?? commonError(compared.map((method) => lists[method]!));
  if (error === null) return null;
  const needs: Need[] = [];
  const short: number[] = [];
  for (const method of compared) {
    const points = lists[method]!;
    // a coarsest rung that is better already needs no more than it costs
    const [coarsest] = points;
    const point =
      coarsest !== undefined && coarsest.lnError <= ln(error)
        ? coarsest
        : between(points, 'lnError', ln(error));
    if (point === null) short.push(method);
    else
      needs.push({
        method,
        h: rounded(exp(point.lnStep), 12),
        steps: Math.ceil(exp(point.lnSteps) - 1e-6),
        evaluations: Math.ceil(exp(point.lnCost) - 1e-6),
      });
  }
  needs.sort((a, b) => a.evaluations - b.evaluations);
  return {
    wished: error,
    needs,
    short,
    equalStep: atEqualStep(methods, compared),
    equalCost: atEqualCost(lists, compared),
  };
}
