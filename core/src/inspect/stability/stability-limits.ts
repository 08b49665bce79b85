import { atan2 } from '../../elementary/inverse.ts';
import { cos, sin } from '../../elementary/trigonometric.ts';
import { ln } from '../../elementary/logarithm.ts';
import { pow } from '../../elementary/power.ts';
import { rounded } from '../../text/number-text.ts';
import { type Amount, less, NOTHING, opposite, plus, times } from '../form/amount.ts';
import { addComplex, type Complex, complex, polynomialAt, rootsOf, sizeOf, timesComplex } from './complex.ts';
import type { StabilityPolynomial } from './stability-polynomial.ts';
import type { ZPolynomial } from './z-polynomial.ts';

/** How far a method is stable on y' = lambda y, in z = h lambda. */
export interface StabilityLimits {
  /** All errors of decays stay bounded for z from -real to 0; Infinity where there is no end. */
  readonly real: number;
  /** The same for oscillations, on the imaginary axis. */
  readonly imaginary: number;
  /** Whether it is stable for every z of the left half plane. */
  readonly aStable: boolean;
  /** A-stable, and what decays fastest is gone after one step. */
  readonly lStable: boolean;
  /** How much of an infinitely fast decay is left after one step: |R(infinity)|; Infinity for an explicit formula. */
  readonly atInfinity: number;
  /**
   * The largest angle of a sector about the negative real axis, to each side of it, in which it is stable, in degrees: 90
   * where it is A-stable; null where it is not stable on the whole axis.
   */
  readonly alpha: number | null;
}

function coefficientsOf(p: ZPolynomial): readonly Complex[] {
  return p.map(({ value }) => complex(value));
}

function valueAt(p: ZPolynomial, z: Complex): Complex {
  return polynomialAt(coefficientsOf(p), z);
}

/**
 * How much an error grows over one step at a place z: the size of the largest root.
 *
 * @example growthAt(inspection.stability!.polynomial, { re: -1, im: 0 }) // 0.5
 */
export function growthAt({ below, above }: StabilityPolynomial, z: Complex): number {
  const [only, ...others] = above;
  const under = valueAt(below, z);
  if (others.length === 0 && only !== undefined) return sizeOf(valueAt(only, z)) / sizeOf(under);
  const lower = above.map((p) => valueAt(p, z));
  const polynomial = [...lower].reverse().map(({ re, im }) => ({ re: -re, im: -im }));
  return Math.max(0, ...rootsOf([...polynomial, under]).map(sizeOf));
}

/** Growth that is none but rounding. */
const STILL = 1e-10;
/** How far an end of stability is looked for. */
const FARTHEST = 1e3;

/** The first place on a ray at which errors grow; Infinity for none. */
function limitOn(polynomial: StabilityPolynomial, at: (x: number) => Complex): number {
  return limitOfGrowth((x) => growthAt(polynomial, at(x)));
}

/**
 * The first distance from zero at which errors grow, to about nine digits; Infinity for none up to a thousand.
 *
 * @param growth by how much an error is multiplied per step, at a distance
 */
export function limitOfGrowth(growth: (x: number) => number): number {
  const end = firstWhere((x) => growth(x) > 1 + STILL);
  return end !== Infinity && startsAtZero(growth, end) ? 0 : rounded(end, 8);
}

/** The first distance from zero at which something holds, by steps that become wider and then by halving. */
function firstWhere(holds: (x: number) => boolean): number {
  let [low, high] = [0, 0.005];
  while (!holds(high)) {
    low = high;
    high += Math.max(0.01, high / 40);
    if (high > FARTHEST) return Infinity;
  }
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2;
    if (holds(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/**
 * Whether growth that is first seen at a place begins at zero: near zero it falls with a power of the distance until
 * rounding hides it, and at a true end of stability it does not.
 */
function startsAtZero(growthAtDistance: (x: number) => number, seen: number): boolean {
  const growth = (x: number): number => growthAtDistance(x) - 1;
  const [near, far] = [growth(1.5 * seen), growth(3 * seen)];
  const power = ln(far / near) / Math.LN2;
  // c x^m: what is expected where it is first seen is the same as what is there
  return near > 0 && power > 0.8 && growth(seen) > (0.5 * near) / pow(1.5, power);
}

/** |p(iy)|^2 as a polynomial in y^2. */
function squaredOnAxis(p: ZPolynomial): readonly Amount[] {
  const made: Amount[] = Array.from({ length: Math.max(1, p.length) }, () => NOTHING);
  p.forEach((a, i) => {
    p.forEach((b, j) => {
      if ((i + j) % 2 !== 0) return;
      // i^i times the conjugate of i^j is real where i + j is even
      const product = times(a, b);
      const place = (i + j) / 2;
      made[place] = plus(made[place]!, (i - j) % 4 === 0 ? product : opposite(product));
    });
  });
  return made;
}

/**
 * The end of stability of a one-step method on the imaginary axis, by the E-polynomial |below(iy)|^2 - |above(iy)|^2: where
 * it first becomes negative. Its lowest terms cancel exactly, however slight the growth is.
 *
 * Source: E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), section IV.3.
 */
function limitOnImaginaryAxis(below: ZPolynomial, above: ZPolynomial, slack: number): number {
  const [under, over] = [squaredOnAxis(below), squaredOnAxis(above)];
  const length = Math.max(under.length, over.length);
  const difference = Array.from({ length }, (_, k) => ({
    value: less(under[k] ?? NOTHING, over[k] ?? NOTHING),
    scale: Math.abs(under[k]?.value ?? 0) + Math.abs(over[k]?.value ?? 0),
  })).map(({ value, scale }) =>
    Math.abs(value.value) <= (value.exact === null ? Math.max(slack, 1e-12) : slack) * scale
      ? 0
      : value.value,
  );
  const lowest = difference.findIndex((c) => c !== 0);
  if (lowest < 0) return Infinity;
  const rest = difference.slice(lowest);
  if (rest[0]! < 0) return 0;
  return rounded(
    firstWhere((y) => rest.reduceRight((sum, c) => sum * y * y + c, 0) < 0),
    8,
  );
}

/** Angles of the unit circle at which the edge of the region is looked for. */
const LOCUS = 1440;

/**
 * The angle of A(alpha)-stability: the least angle to the negative real axis of any place in the left half plane where a
 * root of the characteristic polynomial has size 1.
 *
 * Source: O. B. Widlund, BIT 7 (1967) 65-70.
 */
function angleOf({ below, above }: StabilityPolynomial): number {
  const steps = above.length;
  const length = Math.max(below.length, ...above.map((p) => p.length));
  const angleAt = (phi: number): number => {
    // below(z) w^k - sum of above_j(z) w^(k-1-j) = 0 as a polynomial in z, with w on the unit circle
    const w = (power: number): Complex => complex(cos(phi * power), sin(phi * power));
    const inZ = Array.from({ length }, (_, k) =>
      above.reduce(
        (sum, p, j) => addComplex(sum, timesComplex(complex(-(p[k]?.value ?? 0)), w(steps - 1 - j))),
        timesComplex(complex(below[k]?.value ?? 0), w(steps)),
      ),
    );
    return Math.min(
      90,
      ...rootsOf(inZ)
        .filter(({ re, im }) => re < -1e-9 * Math.abs(im))
        .map(({ re, im }) => (atan2(Math.abs(im), -re) * 180) / Math.PI),
    );
  };
  let [best, at] = [90, 0];
  for (let i = 1; i < LOCUS; i += 1) {
    const phi = (Math.PI * i) / LOCUS;
    const angle = angleAt(phi);
    if (angle < best) [best, at] = [angle, phi];
  }
  // the minimum lies between the neighbours of the least
  let width = Math.PI / LOCUS;
  for (let i = 0; i < 40; i += 1) {
    width /= 1.7;
    for (const phi of [at - width, at + width]) {
      const angle = angleAt(phi);
      if (angle < best) [best, at] = [angle, phi];
    }
  }
  return rounded(best, 6);
}

/** Points of the imaginary axis at which stability is looked for, close together near zero and out to infinity. */
const LOOKS = 400;

function isStableOnAxis(polynomial: StabilityPolynomial): boolean {
  for (let i = 1; i < LOOKS; i += 1) {
    const y = (2 * i) / (LOOKS - i);
    if (growthAt(polynomial, complex(0, y)) > 1 + 1e-9) return false;
  }
  return true;
}

/** Whether the denominator vanishes nowhere in the left half plane, so that the largest growth is on its edge. */
function hasNoPoleAtLeft({ below }: StabilityPolynomial): boolean {
  return rootsOf(coefficientsOf(below)).every(({ re }) => re > 0);
}

/** A part of a decay that is none but rounding. */
const NOTHING_LEFT = 1e-12;

/** What is left of a decay after one step, the faster it is: 0 for an L-stable method. */
function atInfinity({ below, above }: StabilityPolynomial): number {
  const degree = below.length - 1;
  const lead = below[degree]?.value ?? NaN;
  const tops = above.map((p) => (p[degree]?.value ?? 0) / lead);
  if (above.some((p) => p.length > below.length)) return Infinity;
  // a multiple root at zero is found to few digits
  if (tops.every((top) => top === 0)) return 0;
  const polynomial = [...tops].reverse().map((top) => complex(-top));
  const largest = Math.max(0, ...rootsOf([...polynomial, complex(1)]).map(sizeOf));
  return largest < NOTHING_LEFT ? 0 : largest;
}

/**
 * The ends of stability on both axes, to about nine digits, from the roots of the characteristic polynomial; A- and
 * L-stability by the size on the imaginary axis, the poles and the limit at infinity (maximum principle).
 *
 * @param isZeroStable whether it is stable at h = 0; a method that is not is stable nowhere near it
 * @param slack what coefficients may be off by, relative to their terms: the rounding of typed decimals
 *
 * Source: E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), sections IV.2, IV.3, V.1.
 */
export function stabilityLimits(
  polynomial: StabilityPolynomial,
  { isZeroStable = true, slack = 0 }: { readonly isZeroStable?: boolean; readonly slack?: number } = {},
): StabilityLimits {
  const last = atInfinity(polynomial);
  if (!isZeroStable)
    return { real: 0, imaginary: 0, aStable: false, lStable: false, atInfinity: last, alpha: null };
  const real = limitOn(polynomial, (x) => complex(-x));
  const [only, ...others] = polynomial.above;
  const imaginary =
    only !== undefined && others.length === 0
      ? limitOnImaginaryAxis(polynomial.below, only, slack)
      : limitOn(polynomial, (x) => complex(0, x));
  const aStable =
    polynomial.below.length > 1 &&
    real === Infinity &&
    last <= 1 + 1e-9 &&
    hasNoPoleAtLeft(polynomial) &&
    isStableOnAxis(polynomial);
  const isStableOnRay = real === Infinity && last <= 1 + 1e-9;
  const alpha = aStable ? 90 : isStableOnRay ? angleOf(polynomial) : null;
  return { real, imaginary, aStable, lStable: aStable && last < 1e-9, atInfinity: last, alpha };
}
