import { fromWords, highWord } from './words.ts';

/** An angle as quadrant and rest: x = quadrant*pi/2 + head + tail, with |head + tail| at most pi/4. */
export interface Reduced {
  quadrant: number;
  head: number;
  tail: number;
}

/** Filled anew by every call of `reduce`, so that none has to be made in a hot loop. */
export const reduced: Reduced = { quadrant: 0, head: 0, tail: 0 };

export const TWO_OVER_PI = 6.36619772367581382433e-1;
export const PART_1 = 1.57079632673412561417;
export const PART_1T = 6.07710050650619224932e-11;
const PART_2 = 6.0771005063039659766e-11;
const PART_2T = 2.02226624879595063154e-21;
const PART_3 = 2.0222662487111664558e-21;
const PART_3T = 8.47842766036889956997e-32;
/** First halves of n*pi/2, n = 1..32, where one subtraction may cancel too much. */
const MULTIPLES: readonly number[] = Array.from({ length: 32 }, (_, i) => highWord(((i + 1) * Math.PI) / 2));
/** Up to here two or three subtractions give the rest in full. */
export const MEDIUM = 2 ** 19 * (Math.PI / 2);

/** Below about 3 pi/4 one multiple is taken off. */
const ONCE = fromWords(0x4002d97c, 0);
/** Added and taken off again it rounds a number to the nearest whole one. */
export const ROUNDER = 6755399441055744;
/** Where the rest is a larger part of the angle than this, one subtraction has not cancelled too much. */
export const ENOUGH = 2 ** -15;

function exponent(x: number): number {
  return (highWord(x) >> 20) & 0x7ff;
}

/**
 * Takes multiples of pi/2 off an angle with |x| > pi/4; the result stands in `reduced`.
 *
 * Source: W. J. Cody, W. Waite, Software Manual for the Elementary Functions (1980); the constants and the order of
 * operations are those of the Freely Distributable LIBM (Sun Microsystems, 1993), e_rem_pio2.
 */
export function reduce(x: number): void {
  const t = Math.abs(x);
  if (t > MEDIUM) {
    reduceLarge(x);
    return;
  }
  if (t < ONCE) {
    reduceOnce(x);
    return;
  }
  const n = Math.trunc(t * TWO_OVER_PI + 0.5);
  let r = t - n * PART_1;
  let w = n * PART_1T;
  let head = r - w;
  if (n >= 32 || highWord(t) === MULTIPLES[n - 1]) {
    const j = exponent(t);
    if (j - exponent(head) > 16) {
      const before = r;
      w = n * PART_2;
      r = before - w;
      w = n * PART_2T - (before - r - w);
      head = r - w;
      if (j - exponent(head) > 49) {
        const again = r;
        w = n * PART_3;
        r = again - w;
        w = n * PART_3T - (again - r - w);
        head = r - w;
      }
    }
  }
  const tail = r - head - w;
  reduced.quadrant = (x < 0 ? -n : n) & 3;
  reduced.head = x < 0 ? -head : head;
  reduced.tail = x < 0 ? -tail : tail;
}

/** Between pi/4 and 3 pi/4 one multiple is taken off. */
function reduceOnce(x: number): void {
  const sign = x < 0 ? -1 : 1;
  let z = Math.abs(x) - PART_1;
  let t = PART_1T;
  if (highWord(Math.abs(x)) === 0x3ff921fb) {
    z -= PART_2;
    t = PART_2T;
  }
  const head = z - t;
  reduced.quadrant = sign & 3;
  reduced.head = sign * head;
  reduced.tail = sign * (z - head - t);
}

let scaledPi: bigint | null = null;
const BITS = 1400n;

/** pi * 2^BITS by Machin's formula. */
function piScaled(): bigint {
  const arctanInverse = (n: bigint): bigint => {
    const one = 1n << (BITS + 32n);
    let term = one / n;
    let sum = term;
    for (let k = 3n, sign = -1n; term !== 0n; k += 2n, sign = -sign) {
      term /= n * n;
      sum += (sign * term) / k;
    }
    return sum;
  };
  scaledPi ??= (16n * arctanInverse(5n) - 4n * arctanInverse(239n)) >> 32n;
  return scaledPi;
}

/** Very large angles: exactly, in whole numbers. */
function reduceLarge(x: number): void {
  if (!Number.isFinite(x)) {
    reduced.quadrant = 0;
    reduced.head = NaN;
    reduced.tail = NaN;
    return;
  }
  // the fraction as a whole number, and the power of two that belongs to it
  const power = exponent(x) - 1075;
  const scaled = BigInt(Math.abs(x) * 2 ** -power) << (BITS + BigInt(power));
  const half = piScaled() / 2n;
  let n = scaled / half;
  let rest = scaled - n * half;
  if (2n * rest > half) {
    rest -= half;
    n += 1n;
  }
  const head = toNumber(rest);
  const tail = toNumber(rest - toScaled(head));
  const sign = x < 0 ? -1 : 1;
  reduced.quadrant = (sign * Number(n & 3n)) & 3;
  reduced.head = sign * head;
  reduced.tail = sign * tail;
}

function toNumber(scaled: bigint): number {
  return Number(scaled >> (BITS - 1000n)) / 2 ** 1000;
}

function toScaled(value: number): bigint {
  return BigInt(Math.round(value * 2 ** 1000)) << (BITS - 1000n);
}
