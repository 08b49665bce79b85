import { fromWords, headOf, highWord, lowWord, withHigh } from './words.ts';

/** Cube root. Source of this and the function beside it: Freely Distributable LIBM (Sun, 1993), and FreeBSD's msun. */
export function cbrt(x: number): number {
  if (!Number.isFinite(x) || x === 0) return x;
  const a = Math.abs(x);
  const isSmall = a < 2 ** -1022;
  const high = highWord(isSmall ? a * 2 ** 54 : a);
  let t = fromWords(Math.floor(high / 3) + (isSmall ? 696_219_795 : 715_094_163), 0);
  let r = t * t * (t / a);
  t =
    t *
    (1.87595182427177 +
      r * (-1.8849797954337717 + r * 1.6214297201053545) +
      r * r * r * (-0.758397934778766 + r * 0.14599619288661245));
  // rounded to 23 bits, so that t*t is exact
  const low = lowWord(t) + 0x80000000;
  t =
    low >= 0x100000000
      ? fromWords(highWord(t) + 1, (low - 0x100000000) & 0xc0000000)
      : fromWords(highWord(t), low & 0xc0000000);
  const s = t * t;
  r = a / s;
  r = (r - t) / (t + t + r);
  t = t + t * r;
  return x < 0 ? -t : t;
}

/** Powers of numbers and of exponents that are special; null for ordinary ones. */
function special(x: number, y: number): number | null {
  if (y === 0) return 1;
  if (Number.isNaN(x) || Number.isNaN(y)) return NaN;
  const a = Math.abs(x);
  if (Math.abs(y) === Infinity) return a === 1 ? NaN : a > 1 === y > 0 ? Infinity : 0;
  if (y === 1) return x;
  if (y === 2) return x * x;
  if (y === -1) return 1 / x;
  const isOdd = Math.abs(y) < 2 ** 53 && Math.abs(y % 2) === 1;
  if (a === Infinity || a === 0 || a === 1) {
    const z = y < 0 ? 1 / a : a;
    const isNegative = x < 0 || Object.is(x, -0);
    if (isNegative && a === 1 && !Number.isInteger(y)) return NaN;
    return isNegative && isOdd ? -z : z;
  }
  return x < 0 && !Number.isInteger(y) ? NaN : null;
}

/** x to the power y, for any real exponent. */
export function pow(x: number, y: number): number {
  const known = special(x, y);
  if (known !== null) return known;
  const sign = x < 0 && Math.abs(y % 2) === 1 ? -1 : 1;
  const a = Math.abs(x);
  if (y === 0.5 && x >= 0) return Math.sqrt(x);
  const [t1, t2] = Math.abs(y) > 2 ** 31 ? nearOne(a, y) : logarithm(a);
  if (Number.isNaN(t1)) return sign * t2;
  const head = headOf(y);
  const low = (y - head) * t1 + y * t2;
  return exponential(head * t1, low, sign);
}

/** log2(a) in two parts for a huge exponent; [NaN, result] where the power overflows or vanishes. */
function nearOne(a: number, y: number): readonly [number, number] {
  const high = highWord(a);
  if (Math.abs(y) > 2 ** 64) {
    if (high <= 0x3fefffff) return [NaN, y < 0 ? Infinity : 0];
    if (high >= 0x3ff00000) return [NaN, y > 0 ? Infinity : 0];
  }
  if (high < 0x3fefffff) return [NaN, y < 0 ? Infinity : 0];
  if (high > 0x3ff00000) return [NaN, y > 0 ? Infinity : 0];
  const t = a - 1;
  const w = t * t * (0.5 - t * (0.3333333333333333 - t * 0.25));
  const u = 1.4426950216293335 * t;
  const v = t * 1.9259629911266175e-8 - w * 1.4426950408889634;
  const t1 = headOf(u + v);
  return [t1, v - (t1 - u)];
}

/** log2(a) in two parts, to more than 70 bits. */
function logarithm(first: number): readonly [number, number] {
  const isSmall = first < 2 ** -1022;
  let a = isSmall ? first * 2 ** 53 : first;
  const high = highWord(a);
  let n = (isSmall ? -53 : 0) + (high >> 20) - 0x3ff;
  const j = high & 0x000fffff;
  let ix = j | 0x3ff00000;
  let k = 0;
  if (j <= 0x3988e) k = 0;
  else if (j < 0xbb67a) k = 1;
  else {
    n += 1;
    ix -= 0x00100000;
  }
  a = withHigh(a, ix);
  const bp = k === 0 ? 1 : 1.5;
  let u = a - bp;
  let v = 1 / (a + bp);
  const ss = u * v;
  const sHigh = headOf(ss);
  let tHigh = fromWords(((ix >> 1) | 0x20000000) + 0x00080000 + (k << 18), 0);
  let tLow = a - (tHigh - bp);
  const sLow = v * (u - sHigh * tHigh - sHigh * tLow);
  let s2 = ss * ss;
  let r =
    s2 *
    s2 *
    (0.5999999999999946 +
      s2 *
        (0.4285714285785502 +
          s2 *
            (0.33333332981837743 +
              s2 * (0.272728123808534 + s2 * (0.23066074577556175 + s2 * 0.20697501780033842)))));
  r += sLow * (sHigh + ss);
  s2 = sHigh * sHigh;
  tHigh = headOf(3 + s2 + r);
  tLow = r - (tHigh - 3 - s2);
  u = sHigh * tHigh;
  v = sLow * tHigh + tLow * ss;
  const pHigh = headOf(u + v);
  const pLow = v - (pHigh - u);
  const zHigh = 0.9617967009544373 * pHigh;
  const zLow =
    -7.028461650952758e-9 * pHigh + pLow * 0.9617966939259756 + (k === 0 ? 0 : 1.350039202129749e-8);
  const dHigh = k === 0 ? 0 : 0.5849624872207642;
  const t1 = headOf(zHigh + zLow + dHigh + n);
  return [t1, zLow - (t1 - n - dHigh - zHigh)];
}

/** 2^(high + low). */
function exponential(high: number, low: number, sign: number): number {
  const z = low + high;
  if (z >= 1024) {
    if (z > 1024 || low + 8.008566259537294e-17 > z - high) return sign * Infinity;
  } else if (z <= -1075) {
    if (z < -1075 || low <= z - high) return sign * 0;
  }
  let n = 0;
  let p = high;
  if (Math.abs(z) > 0.5) {
    const j = highWord(z);
    const i = j & 0x7fffffff;
    n = j + (0x00100000 >> ((i >> 20) - 0x3ff + 1));
    const k = ((n & 0x7fffffff) >> 20) - 0x3ff;
    const t = fromWords(n & ~(0x000fffff >> k), 0);
    n = ((n & 0x000fffff) | 0x00100000) >> (20 - k);
    if (j < 0) n = -n;
    p = high - t;
  }
  const t = headOf(low + p);
  const u = t * 0.6931471824645996;
  const v = (low - (t - p)) * 0.6931471805599453 + t * -1.904654299957768e-9;
  const y = u + v;
  const w = v - (y - u);
  const s = y * y;
  const t1 =
    y -
    s *
      (0.16666666666666602 +
        s *
          (-0.0027777777777015593 +
            s * (6.613756321437934e-5 + s * (-1.6533902205465252e-6 + s * 4.1381367970572385e-8))));
  // bracketed as in the engines that most people's programs run on, so that a loop typed by hand there agrees
  const r = (y * t1) / (t1 - 2 - (w + y * w));
  const value = 1 - (r - y);
  const j = highWord(value) + (n << 20);
  if (j >> 20 > 0) return sign * withHigh(value, j);
  return sign * (value * 2 ** Math.max(n, -1000) * 2 ** Math.min(0, n + 1000));
}
