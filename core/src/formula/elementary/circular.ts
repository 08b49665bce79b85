import { reduce, reduced } from './reduce.ts';
import { fromWords, headOf, highWord } from './words.ts';

/** |x| below this has a first half of at most 0x3fe921fb: pi/4. */
const QUARTER = fromWords(0x3fe921fc, 0);
const TINY = 2 ** -27;

/** sin(x + y) for |x| at most pi/4, y the tail of x. */
function sinKernel(x: number, y: number): number {
  if (Math.abs(x) < TINY) return x;
  const z = x * x;
  const v = z * x;
  const r =
    8.33333333332248946124e-3 +
    z *
      (-1.98412698298579493134e-4 +
        z * (2.75573137070700676789e-6 + z * (-2.50507602534068634195e-8 + z * 1.58969099521155010221e-10)));
  return x - (z * (0.5 * y - v * r) - y - v * -1.66666666666666324348e-1);
}

/** sin(x) for |x| at most pi/4. */
function sinPlain(x: number): number {
  if (Math.abs(x) < TINY) return x;
  const z = x * x;
  const v = z * x;
  const r =
    8.33333333332248946124e-3 +
    z *
      (-1.98412698298579493134e-4 +
        z * (2.75573137070700676789e-6 + z * (-2.50507602534068634195e-8 + z * 1.58969099521155010221e-10)));
  return x + v * (-1.66666666666666324348e-1 + z * r);
}

const THIRD = fromWords(0x3fd33333, 0);
const LARGE = fromWords(0x3fe90001, 0);

/** cos(x + y) for |x| at most pi/4, y the tail of x. */
function cosKernel(x: number, y: number): number {
  const a = Math.abs(x);
  if (a < TINY) return 1;
  const z = x * x;
  const r =
    z *
    (4.16666666666666019037e-2 +
      z *
        (-1.38888888888741095749e-3 +
          z *
            (2.48015872894767294178e-5 +
              z *
                (-2.75573143513906633035e-7 +
                  z * (2.0875723212981748279e-9 + z * -1.13596475577881948265e-11)))));
  if (a < THIRD) return 1 - (0.5 * z - (z * r - x * y));
  const q = a >= LARGE ? 0.28125 : fromWords((highWord(a) & 0x7fffffff) - 0x00200000, 0);
  const iz = 0.5 * z - q;
  return 1 - q - (iz - (z * r - x * y));
}

/**
 * Sine; within one unit in the last place.
 * Source of this and the functions beside it: Freely Distributable LIBM (Sun Microsystems, 1993).
 */
export function sin(x: number): number {
  if (Math.abs(x) < QUARTER) return sinPlain(x);
  reduce(x);
  const { quadrant, head, tail } = reduced;
  if ((quadrant & 1) === 0) return quadrant === 0 ? sinKernel(head, tail) : -sinKernel(head, tail);
  return quadrant === 1 ? cosKernel(head, tail) : -cosKernel(head, tail);
}

export function cos(x: number): number {
  if (Math.abs(x) < QUARTER) return cosKernel(x, 0);
  reduce(x);
  const { quadrant, head, tail } = reduced;
  if ((quadrant & 1) === 0) return quadrant === 0 ? cosKernel(head, tail) : -cosKernel(head, tail);
  return quadrant === 1 ? -sinKernel(head, tail) : sinKernel(head, tail);
}

const T: readonly number[] = [
  3.33333333333334091986e-1, 1.33333333333201242699e-1, 5.39682539762260521377e-2, 2.18694882948595424599e-2,
  8.86323982359930005737e-3, 3.59207910759131235356e-3, 1.45620945432529025516e-3, 5.88041240820264096874e-4,
  2.46463134818469906812e-4, 7.817944429395570923e-5, 7.14072491382608190305e-5, -1.85586374855275456654e-5,
  2.59073051863633712884e-5,
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
    x = 7.85398163397448278999e-1 - sign * first + (3.06161699786838301793e-17 - sign * second);
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
