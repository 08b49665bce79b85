import { Decimal } from 'decimal.js';

/**
 * A number in decimals to some significant digits, rounded to the nearest.
 *
 * @param text all its digits
 */
export function roundedText(text: string, digits: number): string {
  const value = new Decimal(text);
  return value.isFinite() ? decimalText(value.toSD(digits, Decimal.ROUND_HALF_EVEN)) : text;
}

/** Exponents from which and up to which a number is written without a power of ten. */
const PLAIN = { from: -7, to: 21 };

/**
 * All digits of a number: plain for the sizes for which a double is, with a power of ten for others.
 *
 * @returns text that reads back to the same number
 */
export function decimalText(value: Decimal): string {
  if (!value.isFinite()) return value.isNaN() ? 'NaN' : value.isNegative() ? '-Infinity' : 'Infinity';
  return value.e >= PLAIN.from && value.e < PLAIN.to ? value.toFixed() : value.toExponential();
}
