import { exp } from '../formula/elementary/exponential.ts';
import { ln } from '../formula/elementary/logarithm.ts';
import { leastSquares } from './order.ts';

/** The order over a window of rungs: the least-squares slope of ln e over ln h. */
export interface OrderFit {
  readonly order: number;
  /** e is about constant * h^order. */
  readonly constant: number;
  /** First and last rung of the window. */
  readonly from: number;
  readonly to: number;
}

/** What the fit needs of a rung. */
export interface FitPoint {
  readonly h: number;
  /** Null where the run left the numbers or there is no exact solution. */
  readonly error: number | null;
  /** Size of the values whose error this is: rounding keeps errors from falling far below 1e-16 of it. */
  readonly scale: number;
}

/** An error this near to rounding says nothing about the order. */
const FLOOR = 500 * Number.EPSILON;

function usable(point: FitPoint): boolean {
  return (
    point.error !== null &&
    point.error > FLOOR * Math.max(point.scale, Number.MIN_VALUE) &&
    point.error < Infinity
  );
}

/**
 * Fits the order over the longest unbroken stretch of rungs whose errors stand clear of rounding,
 * the finer one of two that are equally long.
 */
export function fitOrder(points: readonly FitPoint[]): OrderFit | null {
  let best: readonly [number, number] | null = null;
  let from = 0;
  for (let i = 0; i <= points.length; i += 1) {
    const point = points[i];
    if (point !== undefined && usable(point)) continue;
    if (i - from >= 2 && (best === null || i - from >= best[1] - best[0])) best = [from, i];
    from = i + 1;
  }
  if (best === null) return null;
  const window = points.slice(...best);
  const line = leastSquares(
    window.map((p) => ln(p.h)),
    window.map((p) => ln(p.error ?? NaN)),
  );
  if (line === null) return null;
  return { order: line.slope, constant: exp(line.intercept), from: best[0], to: best[1] - 1 };
}
