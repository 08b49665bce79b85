import { Fraction } from 'fraction.js';
import { rounded } from '../../text/number-text.ts';

/**
 * A coefficient of a formula: an exact fraction where its text is made of whole numbers, decimals and fractions, and a
 * double where it holds a root or another function.
 */
export interface Amount {
  /** Null where the number is no fraction. */
  readonly exact: Fraction | null;
  readonly value: number;
}

/** How far a number that is no fraction may be from another and still count as equal, relative to the terms it came from. */
export const TOLERANCE = 1e-10;

function exactly(fraction: Fraction): Amount {
  return { exact: fraction, value: fraction.valueOf() };
}

/** A number that is no fraction, such as a root. */
export function inexactly(value: number): Amount {
  return { exact: null, value };
}

/** A number of a text, exactly as it is written: 0.1 is a tenth. */
export function amountOf(value: number): Amount {
  if (Number.isSafeInteger(value)) return fraction(BigInt(value));
  return Number.isFinite(value) ? exactly(new Fraction(String(value))) : inexactly(value);
}

export function fraction(numerator: number | bigint, denominator: number | bigint = 1): Amount {
  return exactly(new Fraction(numerator, denominator));
}

export const NOTHING = fraction(0);
export const UNIT = fraction(1);

function both(
  a: Amount,
  b: Amount,
  exact: (a: Fraction, b: Fraction) => Fraction,
  value: (a: number, b: number) => number,
): Amount {
  if (a.exact !== null && b.exact !== null) return exactly(exact(a.exact, b.exact));
  return inexactly(value(a.value, b.value));
}

export function plus(a: Amount, b: Amount): Amount {
  if (isZero(a)) return b;
  if (isZero(b)) return a;
  return both(
    a,
    b,
    (x, y) => x.add(y),
    (x, y) => x + y,
  );
}

export function times(a: Amount, b: Amount): Amount {
  if (isZero(a) || isZero(b)) return NOTHING;
  return both(
    a,
    b,
    (x, y) => x.mul(y),
    (x, y) => x * y,
  );
}

/** a/b; not a number where b is zero. */
export function over(a: Amount, b: Amount): Amount {
  if (isZero(b)) return inexactly(NaN);
  return both(
    a,
    b,
    (x, y) => x.div(y),
    (x, y) => x / y,
  );
}

export function opposite({ exact, value }: Amount): Amount {
  return exact === null ? inexactly(-value) : exactly(exact.neg());
}

export function less(a: Amount, b: Amount): Amount {
  return plus(a, opposite(b));
}

export function isZero({ exact, value }: Amount): boolean {
  return exact === null ? value === 0 : exact.n === 0n;
}

/**
 * Whether two amounts are equal: fractions exactly, others within TOLERANCE of the size they were summed from.
 *
 * @param scale the sum of the sizes of the terms; at least the size of the amounts
 */
export function areEqual(a: Amount, b: Amount, scale = 1): boolean {
  if (a.exact !== null && b.exact !== null) return a.exact.equals(b.exact);
  const size = Math.max(scale, Math.abs(a.value), Math.abs(b.value));
  return Math.abs(a.value - b.value) <= TOLERANCE * size;
}

/** `3/4`, `-2`, or the digits of a number that is no fraction. */
export function amountText({ exact, value }: Amount): string {
  return exact === null ? String(rounded(value, 10)) : exact.toFraction();
}
