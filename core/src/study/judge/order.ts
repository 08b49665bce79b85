import { ln } from '../../elementary/logarithm.ts';

/**
 * The observed order between two step sizes: p = ln(e1/e2) / ln(h1/h2), for any ratio of them.
 *
 * @returns null where an error is zero or unknown, or the step sizes are the same
 */
export function observedOrder(h1: number, e1: number | null, h2: number, e2: number | null): number | null {
  if (e1 === null || e2 === null || !(e1 > 0) || !(e2 > 0) || h1 === h2) return null;
  const order = ln(e1 / e2) / ln(h1 / h2);
  return Number.isFinite(order) ? order : null;
}

/** The ratio e1/e2 of the errors of neighbouring rungs; null where it says nothing. */
export function errorRatio(e1: number | null, e2: number | null): number | null {
  if (e1 === null || e2 === null || !(e1 > 0) || !(e2 > 0)) return null;
  return e1 / e2;
}

/** A straight line through points (ln h, ln e). */
export interface FittedLine {
  /** Its slope: the order. */
  readonly slope: number;
  /** Its value at ln h = 0. */
  readonly intercept: number;
  /** Standard error of the slope, from how the points scatter about the line; null for two points. */
  readonly standardError: number | null;
}

/** The least-squares line through (x, y); null for fewer than two different x. */
export function leastSquares(x: readonly number[], y: readonly number[]): FittedLine | null {
  const n = x.length;
  const meanX = x.reduce((sum, v) => sum + v, 0) / n;
  const meanY = y.reduce((sum, v) => sum + v, 0) / n;
  let sxx = 0;
  let sxy = 0;
  x.forEach((v, i) => {
    sxx += (v - meanX) * (v - meanX);
    sxy += (v - meanX) * (y[i]! - meanY);
  });
  if (!(sxx > 0)) return null;
  const slope = sxy / sxx;
  const intercept = meanY - slope * meanX;
  const scatter = x.reduce((sum, v, i) => {
    const off = y[i]! - intercept - slope * v;
    return sum + off * off;
  }, 0);
  const standardError = n > 2 ? Math.sqrt(scatter / (n - 2) / sxx) : null;
  return { slope, intercept, standardError };
}
