import { unitRoundoff, type Precision } from '../../compile/precision.ts';
import { log10 } from '../../elementary/logarithm.ts';

/** The least error that differs from zero. */
const LEAST = 1e-300;

/** Digits that numbers of a precision have. */
function mostDigits(precision?: Precision): number {
  return -log10(2 * unitRoundoff(precision));
}

/**
 * Digits that agree, -log10 of a relative error: no more than the numbers themselves have.
 *
 * @example agreeingDigits(0.01) // 2
 */
export function agreeingDigits(relative: number, precision?: Precision): number {
  return Math.min(mostDigits(precision), -log10(Math.max(relative, LEAST)));
}

/**
 * Correct decimal places: the absolute error is at most half a unit of the last one.
 *
 * @example correctPlaces(0.004) // 2
 */
export function correctPlaces(absolute: number, precision?: Precision): number {
  const most = Math.floor(mostDigits(precision));
  return Math.max(0, Math.min(most, Math.floor(-log10(Math.max(2 * absolute, LEAST)))));
}
