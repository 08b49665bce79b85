import { type Amount, amountOf, areEqual, less, NOTHING, over, plus, times, UNIT } from '../form/amount.ts';
import type { StabilityPolynomial } from './stability-polynomial.ts';
import type { ZPolynomial } from './z-polynomial.ts';

/** Highest power that is compared. */
const HIGHEST = 40;

/** The coefficients of exp(m z) up to the highest power. */
function exponentialSeries(m: number): readonly Amount[] {
  const made: Amount[] = [UNIT];
  for (let k = 1; k <= HIGHEST; k += 1) made.push(over(times(made[k - 1]!, amountOf(m)), amountOf(k)));
  return made;
}

/** Coefficient q of the product of a polynomial and a series, and the size of its terms. */
function coefficient(
  p: ZPolynomial,
  series: readonly Amount[],
  q: number,
): { readonly value: Amount; readonly scale: number } {
  let [value, scale] = [NOTHING, 0];
  for (let k = 0; k < p.length && k <= q; k += 1) {
    const part = times(p[k]!, series[q - k]!);
    value = plus(value, part);
    scale += Math.abs(part.value);
  }
  return { value, scale };
}

/**
 * The order of a method on y' = lambda y: how far its characteristic polynomial at exp(z) agrees with zero, as R(z) with
 * exp(z) for a one-step method.
 *
 * Source: E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), section IV.2.
 *
 * @param slack what coefficients may be off by, relative to their terms: the rounding of typed decimals
 */
export function linearOrder({ below, above }: StabilityPolynomial, slack = 0): number {
  const steps = above.length;
  const ahead = exponentialSeries(steps);
  const behind = above.map((_, j) => exponentialSeries(steps - 1 - j));
  for (let q = 0; q <= HIGHEST; q += 1) {
    const left = coefficient(below, ahead, q);
    const right = above.map((p, j) => coefficient(p, behind[j]!, q));
    const sum = right.reduce((total, { value }) => plus(total, value), NOTHING);
    const scale = right.reduce((size, part) => size + part.scale, left.scale);
    const isNear = Math.abs(less(left.value, sum).value) <= slack * scale;
    if (!isNear && !areEqual(left.value, sum, scale)) return q - 1;
  }
  return HIGHEST;
}

/**
 * The degrees of R(z) where it is a Pade approximant of exp(z): of numerator and denominator, with the highest order that
 * these allow. Null for any other, and for a multistep method.
 *
 * Source: E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), section IV.3.
 */
export function padeOf(
  polynomial: StabilityPolynomial,
): { readonly numerator: number; readonly denominator: number } | null {
  const [only, ...others] = polynomial.above;
  if (only === undefined || others.length > 0) return null;
  const [numerator, denominator] = [only.length - 1, polynomial.below.length - 1];
  return linearOrder(polynomial) === numerator + denominator ? { numerator, denominator } : null;
}
