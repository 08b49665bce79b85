import { headOf, highWord, withHigh } from './words.ts';

const LN2_HIGH = 0.6931471803691238;
const LN2_LOW = 1.9082149292705877e-10;

/** The series of ln((1 + s)/(1 - s)) beyond its first term. */
function series(z: number): number {
  const w = z * z;
  const even = w * (0.3999999999940942 + w * (0.22222198432149784 + w * 0.15313837699209373));
  const odd =
    z * (0.6666666666666735 + w * (0.2857142874366239 + w * (0.1818357216161805 + w * 0.14798198605116586)));
  return odd + even;
}

/** x = 2^k * m with m near 1; `field` is the fraction of x. */
interface Split {
  k: number;
  m: number;
  field: number;
}

const split: Split = { k: 0, m: 0, field: 0 };

function splitUp(first: number): void {
  const isSmall = first < 2 ** -1022;
  const x = isSmall ? first * 2 ** 54 : first;
  const high = highWord(x);
  const field = high & 0xfffff;
  const i = (field + 0x95f64) & 0x100000;
  split.k = (isSmall ? -54 : 0) + (high >> 20) - 1023 + (i >> 20);
  split.m = withHigh(x, field | (i ^ 0x3ff00000));
  split.field = field;
}

/** What a logarithm is of numbers that have none, or null. */
function special(x: number): number | null {
  if (x > 0 && x < Infinity) return null;
  return x === 0 ? -Infinity : x > 0 ? Infinity : NaN;
}

/** Natural logarithm. Source of this and the functions beside it: Freely Distributable LIBM (Sun, 1993). */
export function ln(x: number): number {
  const known = special(x);
  if (known !== null) return known;
  splitUp(x);
  const { k, m, field } = split;
  const f = m - 1;
  if ((0xfffff & (2 + field)) < 3) {
    if (f === 0) return k === 0 ? 0 : k * LN2_HIGH + k * LN2_LOW;
    const R = f * f * (0.5 - 0.3333333333333333 * f);
    return k === 0 ? f - R : k * LN2_HIGH - (R - k * LN2_LOW - f);
  }
  const s = f / (2 + f);
  const R = series(s * s);
  if (((field - 0x6147a) | (0x6b851 - field)) > 0) {
    const h = 0.5 * f * f;
    return k === 0 ? f - (h - s * (h + R)) : k * LN2_HIGH - (h - (s * (h + R) + k * LN2_LOW) - f);
  }
  return k === 0 ? f - s * (f - R) : k * LN2_HIGH - (s * (f - R) - k * LN2_LOW - f);
}

export function log2(x: number): number {
  const known = special(x);
  if (known !== null) return known;
  if (x === 1) return 0;
  splitUp(x);
  const { k, m } = split;
  const f = m - 1;
  const h = 0.5 * f * f;
  const s = f / (2 + f);
  const r = s * (h + series(s * s));
  const high = headOf(f - h);
  const low = f - high - h + r;
  const first = high * 1.4426950407214463;
  const second = (low + high) * 1.6751713164886512e-10 + low * 1.4426950407214463;
  const w = k + first;
  return second + (k - w + first) + w;
}

export function log10(first: number): number {
  const known = special(first);
  if (known !== null) return known;
  if (first === 1) return 0;
  const isSmall = first < 2 ** -1022;
  const x = isSmall ? first * 2 ** 54 : first;
  const high = highWord(x);
  const k = (isSmall ? -54 : 0) + (high >> 20) - 1023;
  const i = k < 0 ? 1 : 0;
  const y = k + i;
  const m = withHigh(x, (high & 0xfffff) | ((0x3ff - i) << 20));
  const z = y * 3.694239077158931e-13 + 0.4342944819032518 * ln(m);
  return z + y * 0.30102999566361177;
}
