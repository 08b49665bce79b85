import { Decimal } from 'decimal.js';

const working = new Map<number, typeof Decimal>();

/** The constructor of numbers that are rounded to the nearest with some digits; for results that are rounded again. */
export function workingWith(digits: number): typeof Decimal {
  const known = working.get(digits);
  if (known !== undefined) return known;
  const made = Decimal.clone({ defaults: true, precision: digits, rounding: Decimal.ROUND_HALF_EVEN });
  working.set(digits, made);
  return made;
}

/** A function to some more digits than are wanted: its relative error is below 10^(3 - digits). */
export type Approximation = (digits: number, ...inputs: readonly Decimal[]) => Decimal;

/** Exponents beyond which a difference of exponents is not bridged by digits. */
const FARTHEST = 2_000;

/** Digits that a sum of 1 and a number need to be exact. */
function exactBeside1(x: Decimal): number {
  return Math.max(0, x.e) + x.precision() + Math.max(0, -x.e);
}

function piOf(digits: number): Decimal {
  return workingWith(digits).acos(-1);
}

/** x / sqrt((1 - x)(1 + x)) and its like: 1 - x and 1 + x without rounding. */
function arcsine(digits: number, x: Decimal): Decimal {
  const kind = workingWith(digits + 5);
  if (x.abs().gt(1)) return new kind(NaN);
  if (x.abs().eq(1))
    return piOf(digits + 5)
      .div(2)
      .times(x);
  const exact = workingWith(exactBeside1(x) + 5);
  const one = new exact(1);
  const under = new kind(one.minus(x)).times(new kind(one.plus(x))).sqrt();
  return new kind(x).div(under).atan();
}

function arccosine(digits: number, x: Decimal): Decimal {
  const kind = workingWith(digits + 5);
  if (x.abs().gt(1)) return new kind(NaN);
  if (x.eq(-1)) return piOf(digits + 5);
  const exact = workingWith(exactBeside1(x) + 5);
  const one = new exact(1);
  return new kind(one.minus(x))
    .div(new kind(one.plus(x)))
    .sqrt()
    .atan()
    .times(2);
}

/** The angle of the point (x, y), from -pi to pi. */
function angle(digits: number, y: Decimal, x: Decimal): Decimal {
  const kind = workingWith(digits + 5);
  if (y.isNaN() || x.isNaN()) return new kind(NaN);
  const sign = y.isNegative() ? -1 : 1;
  if (y.isZero()) return x.isNegative() ? piOf(digits + 5).times(sign) : new kind(y);
  if (x.isZero())
    return piOf(digits + 5)
      .times(sign)
      .div(2);
  const slope = new kind(y).div(new kind(x)).atan();
  return x.isNegative() ? slope.plus(piOf(digits + 5).times(sign)) : slope;
}

/** Below this exponent the first two terms of a series are exact to all digits wanted. */
function isTiny(x: Decimal, digits: number): boolean {
  return !x.isZero() && -x.e > digits;
}

/** Half the sum or the difference of e^x and e^-x. */
function hyperbolic(digits: number, x: Decimal, sign: 1 | -1): Decimal {
  const wanted = workingWith(digits + 5);
  if (x.isZero() || !x.isFinite()) return sign === 1 ? new wanted(x).cosh() : new wanted(x);
  if (isTiny(x, digits)) {
    const own = new wanted(x);
    const term = own.times(own).div(sign === 1 ? 2 : 6);
    return sign === 1 ? term.plus(1) : own.times(term.plus(1));
  }
  const kind = workingWith(digits + 5 + (sign === -1 ? Math.max(0, -x.e) : 0));
  const up = new kind(x).exp();
  return up.plus(new kind(sign).div(up)).div(2);
}

function tangentOf(digits: number, x: Decimal): Decimal {
  const kind = workingWith(digits + 5);
  const own = new kind(x);
  return own.sin().div(own.cos());
}

function hyperbolicTangent(digits: number, x: Decimal): Decimal {
  const kind = workingWith(digits + 5);
  if (x.isZero()) return new kind(x);
  // beyond that it differs from 1 by less than all digits wanted
  if (x.abs().gt(1.5 * (digits + 5))) {
    const below = new (workingWith(3 * digits))(1).minus(new Decimal(10).pow(-2 * digits));
    return x.isNegative() ? below.neg() : below;
  }
  return hyperbolic(digits + 5, x, -1).div(hyperbolic(digits + 5, x, 1));
}

/** x - y*floor(x/y) without rounding on the way. */
function remainder(digits: number, x: Decimal, y: Decimal): Decimal {
  const kind = workingWith(digits + 5);
  if (!x.isFinite() || !y.isFinite() || y.isZero() || x.e - y.e > FARTHEST) return new kind(NaN);
  if (x.isZero()) return new kind(x);
  if (y.e - x.e > FARTHEST) return x.isNegative() === y.isNegative() ? new kind(x) : new kind(y).plus(x);
  const exact = workingWith(
    Math.max(0, x.e - y.e) + x.precision() + y.precision() + Math.abs(x.e - y.e) + 10,
  );
  const [a, b] = [new exact(x), new exact(y)];
  return a.minus(b.times(a.div(b).floor()));
}

/** Functions that are rounded once, at the end: to more digits than are wanted, by name. */
export const APPROXIMATIONS: ReadonlyMap<string, Approximation> = new Map<string, Approximation>([
  ['sin', (digits, x) => new (workingWith(digits))(x).sin()],
  ['cos', (digits, x) => new (workingWith(digits))(x).cos()],
  ['tan', (digits, x) => tangentOf(digits, x)],
  ['asin', (digits, x) => arcsine(digits, x)],
  ['acos', (digits, x) => arccosine(digits, x)],
  ['atan', (digits, x) => new (workingWith(digits))(x).atan()],
  ['atan2', (digits, y, x) => angle(digits, y, x)],
  ['sinh', (digits, x) => hyperbolic(digits, x, -1)],
  ['cosh', (digits, x) => hyperbolic(digits, x, 1)],
  ['tanh', (digits, x) => hyperbolicTangent(digits, x)],
  ['exp', (digits, x) => new (workingWith(digits))(x).exp()],
  ['ln', (digits, x) => new (workingWith(digits))(x).ln()],
  ['log10', (digits, x) => new (workingWith(digits))(x).log(10)],
  ['log2', (digits, x) => new (workingWith(digits))(x).log(2)],
  ['sqrt', (digits, x) => new (workingWith(digits))(x).sqrt()],
  ['cbrt', (digits, x) => new (workingWith(digits))(x).cbrt()],
  ['mod', (digits, x, y) => remainder(digits, x, y)],
  ['pow', (digits, x, y) => new (workingWith(digits + 5))(x).pow(y)],
  ['pi', (digits) => piOf(digits)],
  ['e', (digits) => new (workingWith(digits))(1).exp()],
]);
