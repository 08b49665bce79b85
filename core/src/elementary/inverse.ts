import { fromWords, headOf, highWord } from './words.ts';

const ATAN_HIGH: readonly number[] = [
  0.4636476090008061, 0.7853981633974483, 0.982793723247329, 1.5707963267948966,
];
const ATAN_LOW: readonly number[] = [
  2.2698777452961687e-17, 3.061616997868383e-17, 1.3903311031230998e-17, 6.123233995736766e-17,
];
const SPLITS: readonly number[] = [0.4375, 0.6875, 1.1875, 2.4375];

/** Arc tangent. Source of this and the functions beside it: Freely Distributable LIBM (Sun Microsystems, 1993). */
export function atan(first: number): number {
  const a = Math.abs(first);
  if (a >= 2 ** 66) return Number.isNaN(first) ? first : Math.sign(first) * (ATAN_HIGH[3]! + ATAN_LOW[3]!);
  if (a < 2 ** -27) return first;
  let x: number;
  let part = -1;
  if (a < SPLITS[0]!) x = first;
  else if (a < SPLITS[1]!) {
    part = 0;
    x = (2 * a - 1) / (2 + a);
  } else if (a < SPLITS[2]!) {
    part = 1;
    x = (a - 1) / (a + 1);
  } else if (a < SPLITS[3]!) {
    part = 2;
    x = (a - 1.5) / (1 + 1.5 * a);
  } else {
    part = 3;
    x = -1 / a;
  }
  const z = x * x;
  const w = z * z;
  const s1 =
    z *
    (0.3333333333333293 +
      w *
        (0.14285714272503466 +
          w *
            (0.09090887133436507 +
              w * (0.06661073137387531 + w * (0.049768779946159324 + w * 0.016285820115365782)))));
  const s2 =
    w *
    (-0.19999999999876483 +
      w *
        (-0.11111110405462356 +
          w * (-0.0769187620504483 + w * (-0.058335701337905735 + w * -0.036531572744216916))));
  if (part < 0) return x - x * (s1 + s2);
  const value = ATAN_HIGH[part]! - (x * (s1 + s2) - ATAN_LOW[part]! - x);
  return first < 0 ? -value : value;
}

const PI_LOW = 1.2246467991473532e-16;

/** The angle of the point (x, y). */
export function atan2(y: number, x: number): number {
  if (Number.isNaN(x) || Number.isNaN(y)) return NaN;
  if (x === 1) return atan(y);
  const isLeft = x < 0 || Object.is(x, -0);
  const isBelow = y < 0 || Object.is(y, -0);
  if (y === 0) return isLeft ? (isBelow ? -Math.PI : Math.PI) : y;
  if (x === 0) return isBelow ? -Math.PI / 2 : Math.PI / 2;
  if (Math.abs(x) === Infinity) {
    if (Math.abs(y) === Infinity) return (isBelow ? -1 : 1) * (isLeft ? 3 * (Math.PI / 4) : Math.PI / 4);
    return (isBelow ? -1 : 1) * (isLeft ? Math.PI : 0);
  }
  if (Math.abs(y) === Infinity) return isBelow ? -Math.PI / 2 : Math.PI / 2;
  const k = ((highWord(y) & 0x7fffffff) - (highWord(x) & 0x7fffffff)) >> 20;
  if (k > 60) return (isBelow ? -1 : 1) * (Math.PI / 2 + 0.5 * PI_LOW);
  const z = isLeft && k < -60 ? 0 : atan(Math.abs(y / x));
  if (!isLeft) return isBelow ? -z : z;
  return isBelow ? z - PI_LOW - Math.PI : Math.PI - (z - PI_LOW);
}

const HALF_PI = 1.5707963267948966;
const HALF_PI_LOW = 6.123233995736766e-17;

/** The quotient that both arc functions are made of. */
function quotient(t: number): number {
  const p =
    t *
    (0.16666666666666666 +
      t *
        (-0.3255658186224009 +
          t *
            (0.20121253213486293 +
              t * (-0.04005553450067941 + t * (0.0007915349942898145 + t * 3.479331075960212e-5)))));
  const q =
    1 +
    t * (-2.403394911734414 + t * (2.0209457602335057 + t * (-0.6882839716054533 + t * 0.07703815055590194)));
  return p / q;
}

const NEAR_ONE = fromWords(0x3fef3333, 0);

export function asin(x: number): number {
  const a = Math.abs(x);
  if (a >= 1) return a === 1 ? x * HALF_PI + x * HALF_PI_LOW : NaN;
  if (a < 2 ** -27) return x;
  if (a < 0.5) return x + x * quotient(x * x);
  if (Number.isNaN(x)) return NaN;
  const t = (1 - a) * 0.5;
  const s = Math.sqrt(t);
  let value: number;
  if (a >= NEAR_ONE) value = HALF_PI - (2 * (s + s * quotient(t)) - HALF_PI_LOW);
  else {
    const head = headOf(s);
    const c = (t - head * head) / (s + head);
    const p = 2 * s * quotient(t) - (HALF_PI_LOW - 2 * c);
    const q = 0.7853981633974483 - 2 * head;
    value = 0.7853981633974483 - (p - q);
  }
  return x > 0 ? value : -value;
}

export function acos(x: number): number {
  const a = Math.abs(x);
  if (a >= 1) return x === 1 ? 0 : x === -1 ? Math.PI + 2 * HALF_PI_LOW : NaN;
  if (Number.isNaN(x)) return NaN;
  if (a < 0.5) {
    if (a <= 2 ** -57) return HALF_PI + HALF_PI_LOW;
    return HALF_PI - (x - (HALF_PI_LOW - x * quotient(x * x)));
  }
  const z = (1 - a) * 0.5;
  const s = Math.sqrt(z);
  if (x < 0) return Math.PI - 2 * (s + (quotient(z) * s - HALF_PI_LOW));
  const head = headOf(s);
  const c = (z - head * head) / (s + head);
  return 2 * (head + (quotient(z) * s + c));
}
