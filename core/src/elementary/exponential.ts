import { fromWords, highWord, powerOfTwo } from './words.ts';

/** 2^k at place k + 1022, for k = -1022..1023. */
export const POWERS = Float64Array.from({ length: 2046 }, (_, i) => powerOfTwo(i - 1022));

export const LN2_HIGH = 0.6931471803691238;
export const LN2_LOW = 1.9082149292705877e-10;
export const INVERSE_LN2 = 1.4426950408889634;
/** |x| from here on needs a power of two taken out: half of ln 2, and one and a half. */
export const HALF_LN2 = fromWords(0x3fd62e43, 0);
export const MORE_LN2 = fromWords(0x3ff0a2b2, 0);

/** How many powers of two to take out of exp(x), for |x| above half of ln 2. */
function powersWithin(x: number): number {
  if (Math.abs(x) < MORE_LN2) return x > 0 ? 1 : -1;
  return Math.trunc(INVERSE_LN2 * x + (x < 0 ? -0.5 : 0.5));
}

/** The exponential function. Source of this and the functions beside it: Freely Distributable LIBM (Sun, 1993). */
export function exp(first: number): number {
  const a = Math.abs(first);
  if (!(a < 745.2)) {
    if (Number.isNaN(first)) return first;
    return first > 0 ? Infinity : 0;
  }
  if (first > 709.782712893384) return Infinity;
  if (first < -745.1332191019411) return 0;
  let x = first;
  let high = 0;
  let low = 0;
  let k = 0;
  if (a >= HALF_LN2) {
    if (first === 1) return Math.E;
    k = powersWithin(first);
    high = first - k * LN2_HIGH;
    low = k * LN2_LOW;
    x = high - low;
  } else if (a < 2 ** -28) return 1 + first;
  const t = x * x;
  const c =
    x -
    t *
      (0.16666666666666602 +
        t *
          (-0.0027777777777015593 +
            t * (6.613756321437934e-5 + t * (-1.6533902205465252e-6 + t * 4.1381367970572385e-8))));
  if (k === 0) return 1 - ((x * c) / (c - 2) - x);
  const y = 1 - (low - (x * c) / (2 - c) - high);
  if (k === 1024) return y * 2 * 2 ** 1023;
  return k >= -1021 ? y * powerOfTwo(k) : y * powerOfTwo(k + 1000) * 2 ** -1000;
}

/** exp(x) - 1, exact near zero too. */
function expm1(first: number): number {
  const a = Math.abs(first);
  if (Number.isNaN(first)) return first;
  if (a >= fromWords(0x4043687a, 0)) {
    if (first > 709.782712893384) return Infinity;
    if (first < 0) return -1;
  }
  let x = first;
  let c = 0;
  let k = 0;
  if (a >= HALF_LN2) {
    k = powersWithin(first);
    const high = first - k * LN2_HIGH;
    const low = k * LN2_LOW;
    x = high - low;
    c = high - x - low;
  } else if (a < 2 ** -54) return first;
  const half = 0.5 * x;
  const s = x * half;
  const r =
    1 +
    s *
      (-0.03333333333333313 +
        s *
          (0.0015873015872548146 +
            s * (-7.93650757867488e-5 + s * (4.008217827329362e-6 + s * -2.0109921818362437e-7))));
  const t = 3 - r * half;
  let e = s * ((r - t) / (6 - x * t));
  if (k === 0) return x - (x * e - s);
  e = x * (e - c) - c - s;
  if (k === -1) return 0.5 * (x - e) - 0.5;
  if (k === 1) return x < -0.25 ? -2 * (e - (x + 0.5)) : 1 + 2 * (x - e);
  if (k <= -2 || k > 56) {
    const y = 1 - (e - x);
    return (k === 1024 ? y * 2 * 2 ** 1023 : y * powerOfTwo(k)) - 1;
  }
  if (k < 20) return (1 - powerOfTwo(-k) - (e - x)) * powerOfTwo(k);
  return (x - (e + powerOfTwo(-k)) + 1) * powerOfTwo(k);
}

export function sinh(x: number): number {
  const h = x < 0 ? -0.5 : 0.5;
  const a = Math.abs(x);
  if (a < 22) {
    if (a < 2 ** -28) return x;
    const t = expm1(a);
    return a < 1 ? h * (2 * t - (t * t) / (t + 1)) : h * (t + t / (t + 1));
  }
  if (a < 709.7822265633563) return h * exp(a);
  if (a <= 710.4758600739439) {
    const w = exp(0.5 * a);
    return h * w * w;
  }
  return x * Infinity;
}

export function cosh(x: number): number {
  const a = Math.abs(x);
  if (a < HALF_LN2) {
    const t = expm1(a);
    const w = 1 + t;
    return a < 2 ** -55 ? w : 1 + (t * t) / (w + w);
  }
  if (a < 22) {
    const t = exp(a);
    return 0.5 * t + 0.5 / t;
  }
  if (a < fromWords(0x40862e42, 0)) return 0.5 * exp(a);
  if (a <= 710.4758600739439) {
    const w = exp(0.5 * a);
    return 0.5 * w * w;
  }
  return Number.isNaN(x) ? x : Infinity;
}

export function tanh(x: number): number {
  const a = Math.abs(x);
  if (Number.isNaN(x) || a < 2 ** -28) return x;
  let z = 1;
  if (a < 22) {
    if (a >= 1) z = 1 - 2 / (expm1(2 * a) + 2);
    else {
      const t = expm1(-2 * a);
      z = -t / (t + 2);
    }
  }
  return highWord(x) < 0 ? -z : z;
}
