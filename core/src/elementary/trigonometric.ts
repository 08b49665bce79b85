import { ENOUGH, MEDIUM, PART_1, PART_1T, reduce, reduced, ROUNDER, TWO_OVER_PI } from './reduce.ts';
import { fromWords, headOf, highWord } from './words.ts';

/** |x| below this has a first half of at most 0x3fe921fb: pi/4. */
export const QUARTER = fromWords(0x3fe921fc, 0);
const TINY = 2 ** -27;

/** The second coefficient of the series of the sine, that of x^3. */
export const FIRST_OF_SINE = -1.66666666666666324348e-1;
/** The series of the sine beyond its second term, over x^5, in powers of x^2. */
export const SINE_SERIES = [
  8.33333333332248946124e-3, -1.98412698298579493134e-4, 2.75573137070700676789e-6,
  -2.50507602534068634195e-8, 1.58969099521155010221e-10,
] as const;
/** The series of the cosine beyond its second term, over x^4, in powers of x^2. */
export const COSINE_SERIES = [
  4.16666666666666019037e-2, -1.38888888888741095749e-3, 2.48015872894767294178e-5,
  -2.75573143513906633035e-7, 2.0875723212981748279e-9, -1.13596475577881948265e-11,
] as const;
const [S1, S2, S3, S4, S5] = SINE_SERIES;
const [C1, C2, C3, C4, C5, C6] = COSINE_SERIES;

function sinTail(z: number): number {
  return S1 + z * (S2 + z * (S3 + z * (S4 + z * S5)));
}

/** sin(x + y) for |x| at most pi/4, y the tail of x. */
function sinKernel(x: number, y: number): number {
  if (Math.abs(x) < TINY) return x;
  const z = x * x;
  const v = z * x;
  const r = sinTail(z);
  return x - (z * (0.5 * y - v * r) - y - v * FIRST_OF_SINE);
}

/** sin(x) for |x| at most pi/4. */
function sinPlain(x: number): number {
  if (Math.abs(x) < TINY) return x;
  const z = x * x;
  const v = z * x;
  const r = sinTail(z);
  return x + v * (FIRST_OF_SINE + z * r);
}

export const THIRD = fromWords(0x3fd33333, 0);
export const LARGE = fromWords(0x3fe90001, 0);

/** cos(x + y) for |x| at most pi/4, y the tail of x. */
function cosKernel(x: number, y: number): number {
  const a = Math.abs(x);
  if (a < TINY) return 1;
  const z = x * x;
  const r = z * (C1 + z * (C2 + z * (C3 + z * (C4 + z * (C5 + z * C6)))));
  if (a < THIRD) return 1 - (0.5 * z - (z * r - x * y));
  // a quarter of a, cut off behind the first 20 bits of its fraction
  const quarter = 0.25 * a;
  const q =
    a >= LARGE
      ? 0.28125
      : quarter < 0.125
        ? Math.floor(quarter * 2 ** 24) * 2 ** -24
        : Math.floor(quarter * 2 ** 23) * 2 ** -23;
  const iz = 0.5 * z - q;
  return 1 - q - (iz - (z * r - x * y));
}

/** Both by quadrant: the sine of head + tail + quadrant*pi/2. */
function turned(quadrant: number, head: number, tail: number): number {
  if ((quadrant & 1) === 0) return quadrant === 0 ? sinKernel(head, tail) : -sinKernel(head, tail);
  return quadrant === 1 ? cosKernel(head, tail) : -cosKernel(head, tail);
}

/**
 * Sine; within one unit in the last place.
 * Source of this and the functions beside it: Freely Distributable LIBM (Sun Microsystems, 1993).
 */
export function sin(x: number): number {
  const t = Math.abs(x);
  if (t < QUARTER) return sinPlain(x);
  if (t < MEDIUM) {
    const n = t * TWO_OVER_PI + ROUNDER - ROUNDER;
    const r = t - n * PART_1;
    const w = n * PART_1T;
    const head = r - w;
    // little is cancelled: one subtraction is enough, and nothing needs to be stored
    if (Math.abs(head) > t * ENOUGH) {
      const value = turned(n & 3, head, r - head - w);
      return x < 0 ? -value : value;
    }
  }
  reduce(x);
  return turned(reduced.quadrant, reduced.head, reduced.tail);
}

export function cos(x: number): number {
  const t = Math.abs(x);
  if (t < QUARTER) return cosKernel(x, 0);
  if (t < MEDIUM) {
    const n = t * TWO_OVER_PI + ROUNDER - ROUNDER;
    const r = t - n * PART_1;
    const w = n * PART_1T;
    const head = r - w;
    if (Math.abs(head) > t * ENOUGH) return turned((n + 1) & 3, head, r - head - w);
  }
  reduce(x);
  return turned((reduced.quadrant + 1) & 3, reduced.head, reduced.tail);
}

const T: readonly number[] = [
  0.3333333333333341, 0.13333333333320124, 0.05396825397622605, 0.021869488294859542, 0.0088632398235993,
  0.0035920791075913124, 0.0014562094543252903, 0.0005880412408202641, 0.0002464631348184699,
  7.817944429395571e-5, 7.140724913826082e-5, -1.8558637485527546e-5, 2.590730518636337e-5,
];

/** tan(x + y), or -1/tan(x + y), for |x| at most pi/4. */
function tanKernel(first: number, second: number, inverse: boolean): number {
  const high = highWord(first);
  const isLarge = (high & 0x7fffffff) >= 0x3fe59428;
  if (!isLarge && Math.abs(first) < 2 ** -28 && !inverse) return first;
  let x = first;
  let y = second;
  if (isLarge) {
    const sign = high < 0 ? -1 : 1;
    x = 0.7853981633974483 - sign * first + (3.061616997868383e-17 - sign * second);
    y = 0;
  }
  const z = x * x;
  const u = z * z;
  const odd = T[1]! + u * (T[3]! + u * (T[5]! + u * (T[7]! + u * (T[9]! + u * T[11]!))));
  const even = z * (T[2]! + u * (T[4]! + u * (T[6]! + u * (T[8]! + u * (T[10]! + u * T[12]!)))));
  const s = z * x;
  const r = y + z * (s * (odd + even) + y) + T[0]! * s;
  const w = x + r;
  if (isLarge) {
    const v = inverse ? -1 : 1;
    return (high < 0 ? -1 : 1) * (v - 2 * (x - ((w * w) / (w + v) - r)));
  }
  if (!inverse) return w;
  const wHead = headOf(w);
  const rest = r - (wHead - x);
  const a = -1 / w;
  const aHead = headOf(a);
  return aHead + a * (1 + aHead * wHead + aHead * rest);
}

export function tan(x: number): number {
  if (Math.abs(x) < QUARTER) return tanKernel(x, 0, false);
  reduce(x);
  return tanKernel(reduced.head, reduced.tail, (reduced.quadrant & 1) === 1);
}
