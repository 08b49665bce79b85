import type { Decimal } from 'decimal.js';
import { wider } from '../../decimal/decimal-precision.ts';
import { type Decimals, decimalsOf } from '../../decimal/decimals.ts';

/** Values at the end of a run: doubles, and of a run in decimals all digits. */
export interface EndValues {
  readonly values: ArrayLike<number>;
  readonly decimals: readonly string[] | null;
}

/** Digits with which values are compared: more than any run has, and all of those of a double near 1. */
const DIGITS = 300;

/** A double to its last digit. */
function exactly(value: number, decimals: Decimals): Decimal {
  if (!Number.isFinite(value) || Number.isInteger(value)) return decimals.fromDouble(value);
  let exponent = 0;
  let mantissa = value;
  while (!Number.isInteger(mantissa)) {
    mantissa *= 2;
    exponent += 1;
  }
  const power = decimals.typed('2').pow(exponent);
  return decimals.typed(BigInt(mantissa).toString()).div(power);
}

function valueOf({ values, decimals: digits }: EndValues, place: number, decimals: Decimals): Decimal {
  const text = digits?.[place];
  return text === undefined ? exactly(values[place] ?? NaN, decimals) : decimals.typed(text);
}

/** The distance of two runs at their ends over some components, in the Euclidean norm, with all digits they have. */
export function distanceOf(one: EndValues, other: EndValues, places: readonly number[]): number {
  if (one.decimals === null && other.decimals === null) {
    let squares = 0;
    for (const j of places) squares += (one.values[j]! - other.values[j]!) ** 2;
    return Math.sqrt(squares);
  }
  const decimals = decimalsOf(wider(DIGITS));
  const squares = places.reduce((sum, place) => {
    const apart = valueOf(one, place, decimals).minus(valueOf(other, place, decimals));
    return sum.plus(apart.times(apart));
  }, decimals.zero);
  return decimals.call('sqrt', [squares]).toNumber();
}
