import { Fraction } from 'fraction.js';
import { rounded } from '../../text/number-text.ts';

/** An exact fraction as plain data, so that it can be sent from a worker: sign, numerator and denominator. */
export interface Exact {
  readonly s: bigint;
  readonly n: bigint;
  readonly d: bigint;
}

/**
 * A coefficient of a formula: an exact fraction where its text is made of whole numbers, decimals and fractions, and a
 * double where it holds a root or another function.
 */
export interface Amount {
  /** Null where the number is no fraction. */
  readonly exact: Exact | null;
  readonly value: number;
}

/**
 * How far a number that is no fraction may be from another and still count as equal, relative to the terms it came
 * from.
 */
export const TOLERANCE = 1e-10;

/**
 * Bits of a numerator or denominator beyond which a fraction is no longer worth its exactness; a double holds 2^1000.
 */
const MAX_BITS = 1_000n;
const LARGEST = 1n << MAX_BITS;

/** @param value what the fraction is as a double, for one that is too long to be kept */
function exactly(fraction: Fraction, value: number): Amount {
  const isLong = fraction.n >= LARGEST || fraction.d >= LARGEST;
  return isLong ? inexactly(value) : { exact: fraction, value: fraction.valueOf() };
}

/** The digits of a number without its point, and the power of ten that they are multiplied by. */
const DIGITS = /^(-?)(\d+)(?:\.(\d*))?(?:e([+-]?\d+))?$/;

/** The fraction that the digits of a number represent, with or without an exponent. */
function fractionOfDigits(value: number): Fraction {
  const [, sign = '', whole = '0', decimals = '', exponent = '0'] = DIGITS.exec(String(value)) ?? [];
  const digits = BigInt(`${sign}${whole}${decimals}`);
  const power = Number(exponent) - decimals.length;
  return power < 0
    ? new Fraction(digits, 10n ** BigInt(-power))
    : new Fraction(digits * 10n ** BigInt(power), 1n);
}

/** A number that is no fraction, such as a root. */
export function inexactly(value: number): Amount {
  return { exact: null, value };
}

/**
 * A number of a text, exactly as its digits say: 0.1 is a tenth, 1e-7 a ten-millionth.
 *
 * @example amountText(amountOf(0.5)) // '1/2'
 */
export function amountOf(value: number): Amount {
  if (Number.isSafeInteger(value)) return fraction(BigInt(value));
  return Number.isFinite(value) ? exactly(fractionOfDigits(value), value) : inexactly(value);
}

/**
 * An exact fraction of whole numbers.
 *
 * @example fraction(2, 4).value // 0.5
 */
export function fraction(numerator: number | bigint, denominator: number | bigint = 1): Amount {
  return exactly(new Fraction(numerator, denominator), Number(numerator) / Number(denominator));
}

export const NOTHING = fraction(0);
export const UNIT = fraction(1);

/** A fraction to calculate with. */
function calculable(exact: Exact): Fraction {
  return exact instanceof Fraction ? exact : new Fraction(exact.s * exact.n, exact.d);
}

/** `3/4`, or `-2`. */
export function exactText(exact: Exact): string {
  return calculable(exact).toFraction();
}

function both(
  a: Amount,
  b: Amount,
  exact: (a: Fraction, b: Fraction) => Fraction,
  value: (a: number, b: number) => number,
): Amount {
  if (a.exact !== null && b.exact !== null)
    return exactly(exact(calculable(a.exact), calculable(b.exact)), value(a.value, b.value));
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
  return exact === null ? inexactly(-value) : exactly(calculable(exact).neg(), -value);
}

export function less(a: Amount, b: Amount): Amount {
  return plus(a, opposite(b));
}

export function isZero({ exact, value }: Amount): boolean {
  return exact === null ? value === 0 : exact.n === 0n;
}

/** The factorials that were asked for so far: conditions ask for the same ones again and again. */
const FACTORIALS: Amount[] = [UNIT];

export function factorial(n: number): Amount {
  for (let i = FACTORIALS.length; i <= n; i += 1)
    FACTORIALS.push(times(FACTORIALS[i - 1] ?? UNIT, amountOf(i)));
  return FACTORIALS[n] ?? UNIT;
}

/** A whole power of an amount, from 0 on. */
export function powerOf(base: Amount, exponent: number): Amount {
  let made = UNIT;
  for (let i = 0; i < exponent; i += 1) made = times(made, base);
  return made;
}

/**
 * Whether two amounts are equal: fractions exactly, others within TOLERANCE of the size they were summed from.
 *
 * @param scale the sum of the sizes of the terms; at least the size of the amounts
 */
export function areEqual(a: Amount, b: Amount, scale = 1): boolean {
  if (a.exact !== null && b.exact !== null) return calculable(a.exact).equals(calculable(b.exact));
  const size = Math.max(scale, Math.abs(a.value), Math.abs(b.value));
  return Math.abs(a.value - b.value) <= TOLERANCE * size;
}

/** Longest fraction that is shown as one. */
const MAX_SHOWN = 24;
/** A number that is no fraction is shown as one with a denominator up to this, where it is equal but for rounding. */
const MAX_SHOWN_DENOMINATOR = 720n;
const EQUAL = 1e-13;

function nearFraction(value: number): string | null {
  if (!Number.isFinite(value)) return null;
  const simple = new Fraction(value).simplify(EQUAL);
  const isEqual = Math.abs(simple.valueOf() - value) <= EQUAL * Math.max(1, Math.abs(value));
  return isEqual && simple.d <= MAX_SHOWN_DENOMINATOR ? simple.toFraction() : null;
}

/**
 * `3/4`, `-2`, or ten digits of a number that is no fraction, or too long to be read as one. A number that comes from roots
 * is shown as the short fraction that it equals but for rounding.
 *
 * @example amountText(fraction(1, 6)) // '1/6'
 */
export function amountText({ exact, value }: Amount): string {
  const text = exact === null ? nearFraction(value) : exactText(exact);
  return text === null || text.length > MAX_SHOWN ? String(rounded(value, 10)) : text;
}
