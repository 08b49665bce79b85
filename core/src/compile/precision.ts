import {
  type DecimalPrecision,
  decimalPrecisionKey,
  decimalPrecisionText,
} from '../decimal/decimal-precision.ts';

/** Double: 64 bits. Single: every operation is rounded to 32 bits, so that round-off comes within sight. */
export const BINARY_PRECISIONS = ['double', 'single'] as const;
export type BinaryPrecision = (typeof BINARY_PRECISIONS)[number];

/** The arithmetic of a run: binary, or with a number of decimal digits. */
export type Precision = BinaryPrecision | DecimalPrecision;

/**
 * Whether an arithmetic is one of decimals.
 *
 * @example isDecimal('double') // false
 */
export function isDecimal(precision: Precision | undefined): precision is DecimalPrecision {
  return typeof precision === 'object';
}

/** Significant decimal digits that results of a run may have; null for binary arithmetic. */
export function decimalDigits(precision: Precision): number | null {
  if (!isDecimal(precision)) return null;
  return precision.digits;
}

/** The rounding of one operation. */
export function rounding(precision: BinaryPrecision): (x: number) => number {
  return precision === 'single' ? Math.fround : (x) => x;
}

/** The unit roundoff: what one rounding does at most, relative to the result. */
export function unitRoundoff(precision: Precision = 'double'): number {
  if (!isDecimal(precision)) return precision === 'single' ? 2 ** -24 : 2 ** -53;
  const unit = Number(`1e${1 - precision.digits}`);
  return precision.rounding === 'chop' ? unit : unit / 2;
}

/**
 * The arithmetic in a few words.
 *
 * @example precisionText({ digits: 4, rounding: 'chop', rounded: 'operations' }) // '4 digits, chopped'
 */
export function precisionText(precision: Precision): string {
  return isDecimal(precision) ? decimalPrecisionText(precision) : `${precision} precision`;
}

/** A text that is the same for the same arithmetic. */
export function precisionKey(precision: Precision): string {
  return isDecimal(precision) ? decimalPrecisionKey(precision) : precision;
}
