import { ln } from '../../elementary/logarithm.ts';
import { pow } from '../../elementary/power.ts';
import { norm } from '../../run/norm.ts';

/** The values of a run at one step size. */
export interface Level {
  readonly h: number;
  readonly values: ArrayLike<number>;
}

/** What three successive rungs say without any exact solution. */
export interface Extrapolated {
  /** The order that the differences of their values show. */
  readonly order: number;
  /** Richardson's value: the finest one with its leading error taken off. */
  readonly values: readonly number[];
  /** The part that was taken off: an estimate of the error of the finest values, in the measure of the study. */
  readonly error: number;
}

function distance(a: ArrayLike<number>, b: ArrayLike<number>, places: readonly number[]): number {
  return norm(places.map((j) => a[j]! - b[j]!));
}

/** Orders between which one is looked for. */
const MIN = 0.05;
const MAX = 30;

/**
 * Solves (h1^p - h2^p)/(h2^p - h3^p) = d12/d23 for p; the left side grows with p. For steps of one ratio r it is
 * p = ln(d12/d23)/ln r.
 */
function orderOf(h1: number, h2: number, h3: number, quotient: number): number | null {
  const r = h1 / h2;
  if (Math.abs(r / (h2 / h3) - 1) < 1e-12) return ln(quotient) / ln(r);
  // divided by h2^p, so that no power becomes non-finite
  const side = (p: number): number => (pow(r, p) - 1) / (1 - pow(h3 / h2, p));
  let low = MIN;
  let high = MAX;
  if (!(side(low) < quotient && quotient < side(high))) return null;
  for (let i = 0; i < 100; i += 1) {
    const middle = (low + high) / 2;
    if (side(middle) < quotient) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * The order from the values of three rungs, the coarsest first, and the value extrapolated from them.
 *
 * Source: L. F. Richardson, J. A. Gaunt, The deferred approach to the limit, Phil. Trans. R. Soc. A 226 (1927)
 * 299-361.
 *
 * @param places of the components that count
 * @param unit size of what rounding does to the values: differences of that size say nothing
 * @returns null where the differences do not fall like a power of h
 */
export function extrapolate(
  [coarse, middle, fine]: readonly [coarse: Level, middle: Level, fine: Level],
  places: readonly number[],
  unit: number,
): Extrapolated | null {
  if (!(coarse.h > middle.h && middle.h > fine.h)) return null;
  const first = distance(coarse.values, middle.values, places);
  const second = distance(middle.values, fine.values, places);
  if (!(second > unit) || !(first > unit) || !Number.isFinite(first)) return null;
  const order = orderOf(coarse.h, middle.h, fine.h, first / second);
  if (order === null || !(order > MIN) || order > MAX) return null;
  const factor = 1 / (pow(middle.h / fine.h, order) - 1);
  return {
    order,
    values: Array.from(fine.values, (value, j) => value + (value - middle.values[j]!) * factor),
    error: second * factor,
  };
}
