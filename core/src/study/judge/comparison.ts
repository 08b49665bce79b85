import { rounded } from '../../text/number-text.ts';
import { exp } from '../../elementary/exponential.ts';
import { ln, log10 } from '../../elementary/logarithm.ts';
import { evaluations } from '../runs/cost.ts';
import { clearRungs } from './clear-rungs.ts';
import type { MethodResult, RungResult } from './method-result.ts';
import { observedOrder } from './order.ts';

/** What a method needs for an error, from between its rungs. */
export interface Need {
  readonly method: number;
  readonly h: number;
  readonly steps: number;
  readonly evaluations: number;
  /** A rung is as good already, and nothing is known of what lies below it: it needs no more than that costs. */
  readonly atMost: boolean;
  /** Whether that is the coarsest of all. */
  readonly isCoarsest: boolean;
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

/** A rung as a point, and whether it is on the expansion of the finer ones, so that what lies below it can be told. */
interface RungPoint extends Point {
  readonly isSettled: boolean;
}

/**
 * The rungs of a method, from coarse to fine, as long as more cost buys a smaller error; with those at the floor, or
 * without.
 */
function pointsOf({ rungs }: MethodResult, withFloor: boolean): readonly RungPoint[] {
  const points: RungPoint[] = [];
  const clear = clearRungs(rungs);
  const floor = rungs.filter(({ leftOut }) => withFloor && leftOut?.kind === 'floor');
  const usable = [...clear, ...floor].filter(
    (rung) => rung.error !== null && rung.error > 0 && isSmall(rung),
  );
  for (const rung of usable.sort((a, b) => b.h - a.h)) {
    const point = pointOf(rung);
    const before = points.at(-1);
    if (before !== undefined && point.lnError >= before.lnError) continue;
    points.push(point);
  }
  return points;
}

/** Orders between neighbouring rungs that differ by more than that belong to errors that follow no line. */
const UNSTEADY = 2;

/** Whether errors fall so steadily from one step size to the next that what lies between two can be told from them. */
function isSteady({ rungs }: MethodResult): boolean {
  const used = clearRungs(rungs);
  const orders = used.flatMap((rung, i) => {
    const before = used[i - 1];
    return before === undefined ? [] : (observedOrder(before.h, before.error, rung.h, rung.error) ?? []);
  });
  return orders.every((order) => order > 0) && Math.max(...orders) - Math.min(...orders) <= UNSTEADY;
}

/** Whether an error is below the size of what it is an error of; a larger one is worth no cost at all. */
function isSmall({ digits }: RungResult): boolean {
  return digits !== null && digits > 0;
}

function pointOf(rung: RungResult): RungPoint {
  return {
    isSettled: rung.leftOut?.kind !== 'coarse',
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

/**
 * A round error that every method reaches between its rungs: the smallest power of ten, else with 2 or 5 before it;
 * where their rungs have none in common, the smallest that all reach at all.
 */
function commonError(lists: readonly (readonly Point[])[]): number | null {
  const finest = exp(Math.max(...lists.map((points) => points.at(-1)?.lnError ?? Infinity)));
  const coarsest = exp(Math.min(...lists.map((points) => points[0]?.lnError ?? -Infinity)));
  if (!Number.isFinite(finest)) return null;
  const power = Math.ceil(log10(finest) - 1e-9);
  const round = [`1e${power}`, `5e${power - 1}`, `2e${power - 1}`]
    .map(Number)
    .filter((error) => error >= finest * (1 - 1e-9));
  return round.find((error) => error <= coarsest) ?? Math.min(...round);
}

/**
 * Where a method reaches an error: between two rungs, or at one that is better already, so that it needs no more than
 * that one costs, where nothing is known of what lies below. Null where it does not reach it.
 */
function reached(
  points: readonly RungPoint[],
  lnError: number,
): { readonly at: Point; readonly atMost: boolean } | null {
  const place = points.findIndex((point) => point.lnError <= lnError + 1e-12);
  const [before, first] = [points[place - 1], points[place]];
  if (first === undefined) return null;
  if (before?.isSettled !== true) return { at: first, atMost: first.lnError < lnError - 1e-9 };
  const at = between([before, first], 'lnError', lnError);
  return at && { at, atMost: false };
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
 * @returns null where fewer than two methods have errors that fall steadily
 */
export function compare(methods: readonly MethodResult[], wished: number | null): Comparison | null {
  const lists = methods.map((method) => pointsOf(method, true));
  const compared = methods.flatMap((of, method) =>
    lists[method]!.length > 0 && isSteady(of) ? [method] : [],
  );
  if (compared.length < 2) return null;
  const error = wished ?? commonError(compared.map((method) => pointsOf(methods[method]!, false)));
  if (error === null) return null;
  const needs: Need[] = [];
  const short: number[] = [];
  for (const method of compared) {
    const points = lists[method]!;
    const found = reached(points, ln(error));
    if (found === null) {
      short.push(method);
      continue;
    }
    const { at, atMost } = found;
    needs.push({
      method,
      h: rounded(exp(at.lnStep), 12),
      steps: Math.ceil(exp(at.lnSteps) - 1e-6),
      evaluations: Math.ceil(exp(at.lnCost) - 1e-6),
      atMost,
      isCoarsest: methods[method]!.rungs.every(({ h }) => h <= exp(at.lnStep) * (1 + 1e-9)),
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
