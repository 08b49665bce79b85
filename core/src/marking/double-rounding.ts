import { isDecimal, type Precision } from '../compile/precision.ts';
import { decimalsOf } from '../decimal/decimals.ts';

/** Digits of which a double still has enough more to be rounded to. */
const MOST = 15;

/**
 * The rounding of an operation in doubles that gives the results of an arithmetic, but for results within a rounding of
 * a double of a tie; null where doubles themselves are the nearest to it.
 */
export function doubleRounding(precision: Precision): ((value: number) => number) | null {
  if (precision === 'single') return Math.fround;
  if (!isDecimal(precision) || precision.digits > MOST || precision.rounded === 'stored') return null;
  const decimals = decimalsOf(precision);
  return (value) =>
    Number.isFinite(value) ? decimals.rounded(decimals.fromDouble(value)).toNumber() : value;
}
