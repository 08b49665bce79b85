import { fromWords, headOf, highWord } from './words.ts';

const ATAN_HIGH: readonly number[] = [
  4.63647609000806093515e-1, 7.85398163397448278999e-1, 9.82793723247329054082e-1, 1.570796326794896558,
];
const ATAN_LOW: readonly number[] = [
  2.26987774529616870924e-17, 3.06161699786838301793e-17, 1.39033110312309984516e-17,
  6.12323399573676603587e-17,
];
const SPLITS: readonly number[] = [0.4375, 0.6875, 1.1875, 2.4375];

/** Arc tangent. Source of this and the functions beside it: Freely Distributable LIBM (Sun Microsystems, 1993). */
export function atan(first: number): number {
  const a = Math.abs(first);
  if (a >= 2 ** 66) return Number.isNaN(first) ? first : Math.sign(first) * (ATAN_HIGH[3]! + ATAN_LOW[3]!);
  if (a < 2 ** -27) return first;
  let x = a;
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
    (3.33333333333329318027e-1 +
      w *
        (1.42857142725034663711e-1 +
          w *
            (9.09088713343650656196e-2 +
              w *
                (6.66107313738753120669e-2 +
                  w * (4.97687799461593236017e-2 + w * 1.62858201153657823623e-2)))));
  const s2 =
    w *
    (-1.99999999998764832476e-1 +
      w *
        (-1.1111110405462355788e-1 +
          w *
            (-7.69187620504482999495e-2 + w * (-5.83357013379057348645e-2 + w * -3.6531572744216915527e-2))));
  if (part < 0) return x - x * (s1 + s2);
  const value = ATAN_HIGH[part]! - (x * (s1 + s2) - ATAN_LOW[part]! - x);
  return first < 0 ? -value : value;
}

const PI_LOW = 1.2246467991473531772e-16;

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

const HALF_PI = 1.570796326794896558;
const HALF_PI_LOW = 6.12323399573676603587e-17;

/** The quotient that both arc functions are made of. */
function quotient(t: number): number {
  const p =
    t *
    (1.66666666666666657415e-1 +
      t *
        (-3.25565818622400915405e-1 +
          t *
            (2.01212532134862925881e-1 +
              t *
                (-4.00555345006794114027e-2 +
                  t * (7.91534994289814532176e-4 + t * 3.4793310759602116757e-5)))));
  const q =
    1 +
    t *
      (-2.40339491173441421878 +
        t * (2.02094576023350569471 + t * (-6.8828397160545329303e-1 + t * 7.70381505559019352791e-2)));
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
    const q = 7.85398163397448278999e-1 - 2 * head;
    value = 7.85398163397448278999e-1 - (p - q);
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
