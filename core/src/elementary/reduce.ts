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
 * Takes multiples of pi/2 off an angle with |x| > pi/4; the result is in `reduced`.
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

/** Digits of pi that angles up to the largest double ask for, in bits. */
const BITS = 1400n;
/** Bits of one digit of 2/pi, so that products of two digits and their sums are exact. */
const DIGIT = 24;
const BASE = 2 ** DIGIT;
/** Digits of a product that are kept behind its point: enough for head and tail of an angle next to a quadrant. */
const KEPT = 9;
/** Digits of an angle: 53 bits, shifted by up to 23. */
const DIGITS = 4;

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
  return (16n * arctanInverse(5n) - 4n * arctanInverse(239n)) >> 32n;
}

interface PiDigits {
  /** Digits of 2/pi behind the point, the largest first. */
  readonly inverse: Float64Array;
  /** pi/2 as a sum of doubles of 24 bits, the largest first. */
  readonly half: Float64Array;
}

let piDigits: PiDigits | null = null;

function digitsOfPi(): PiDigits {
  if (piDigits === null) {
    const pi = piScaled();
    const inverse = (1n << (2n * BITS + 1n)) / pi;
    const digit = (of: bigint, i: number): number =>
      Number((of >> (BITS - BigInt(DIGIT * (i + 1)))) & BigInt(BASE - 1));
    piDigits = {
      inverse: Float64Array.from({ length: 57 }, (_, i) => digit(inverse, i)),
      half: Float64Array.from({ length: KEPT + 1 }, (_, i) =>
        i === 0 ? 1 : digit(pi / 2n, i - 1) * 2 ** (-DIGIT * i),
      ),
    };
  }
  return piDigits;
}

const angle = new Float64Array(DIGITS);
const product = new Float64Array(KEPT + 2);
const terms = new Float64Array(2 * KEPT);

/**
 * Very large angles: x * 2/pi modulo 4 by the digits of 2/pi that matter at the size of x, in whole numbers below 2^53.
 *
 * Source: M. Payne, R. Hanek, Radian reduction for trigonometric functions, SIGNUM Newsletter 18 (1983) 19-24.
 */
function reduceLarge(x: number): void {
  if (!Number.isFinite(x)) {
    reduced.quadrant = 0;
    reduced.head = NaN;
    reduced.tail = NaN;
    return;
  }
  const { inverse, half } = digitsOfPi();
  // x is a whole number of 53 bits times a power of two; the power is made a multiple of a digit
  const power = exponent(x) - 1075;
  const skipped = Math.floor(power / DIGIT);
  let whole = Math.abs(x) * 2 ** -power;
  const shift = 2 ** (power - DIGIT * skipped);
  // digits of the angle, the smallest first
  let carry = 0;
  for (let i = 0; i < DIGITS; i += 1) {
    const rest = Math.floor(whole / BASE);
    const value = (whole - rest * BASE) * shift + carry;
    carry = Math.floor(value / BASE);
    angle[i] = value - carry * BASE;
    whole = rest;
  }
  // digits of the product: of index 0 before the point, of 1 and more behind it
  carry = 0;
  for (let k = KEPT + 1; k >= 0; k -= 1) {
    let sum = carry;
    for (let i = 0; i < DIGITS; i += 1) {
      const place = skipped + i + k - 1;
      if (place >= 0) sum += angle[i]! * inverse[place]!;
    }
    carry = Math.floor(sum / BASE);
    product[k] = sum - carry * BASE;
  }
  let quadrant = product[0]! & 3;
  const isUpper = product[1]! >= BASE / 2;
  if (isUpper) {
    // what is missing to the next quadrant
    quadrant += 1;
    for (let k = 1; k <= KEPT + 1; k += 1) product[k] = BASE - 1 - product[k]!;
  }
  // times pi/2: products of two digits are exact, those of equal size are added, the smallest first
  let scale = 1;
  for (let k = 1; k <= KEPT; k += 1) {
    scale /= BASE;
    product[k] = product[k]! * scale;
  }
  let last = 0;
  for (let size = KEPT; size >= 1; size -= 1) {
    let sum = 0;
    for (let k = 1; k <= size; k += 1) sum += product[k]! * half[size - k]!;
    terms[last] = sum;
    last += 1;
  }
  // each sum and what it loses, twice over: head and tail are then the first two doubles of the whole
  for (let pass = 0; pass < 3; pass += 1)
    for (let i = 1; i < last; i += 1) {
      const small = terms[i - 1]!;
      const large = terms[i]!;
      const sum = small + large;
      terms[i - 1] = small - (sum - large);
      terms[i] = sum;
    }
  const head = terms[last - 1]!;
  let tail = 0;
  for (let i = 0; i < last - 1; i += 1) tail += terms[i]!;
  const sign = x < 0 ? -1 : 1;
  const side = isUpper ? -sign : sign;
  reduced.quadrant = (sign * quadrant) & 3;
  reduced.head = side * head;
  reduced.tail = side * tail;
}
