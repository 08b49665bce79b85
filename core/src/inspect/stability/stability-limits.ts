import { ln } from '../../elementary/logarithm.ts';
import { pow } from '../../elementary/power.ts';
import { rounded } from '../../text/number-text.ts';
import { type Complex, complex, polynomialAt, rootsOf, sizeOf } from './complex.ts';
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
  const grows = (x: number): boolean => growthAt(polynomial, at(x)) > 1 + STILL;
  let low = 0;
  let x = 0.005;
  while (!grows(x)) {
    low = x;
    x += Math.max(0.01, x / 40);
    if (x > FARTHEST) return Infinity;
  }
  let high = x;
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2;
    if (grows(middle)) high = middle;
    else low = middle;
  }
  return startsAtZero(polynomial, at, high) ? 0 : rounded((low + high) / 2, 8);
}

/**
 * Whether growth that is first seen at a place begins at zero: near zero it falls with a power of the distance until
 * rounding hides it, and at a true end of stability it does not.
 */
function startsAtZero(polynomial: StabilityPolynomial, at: (x: number) => Complex, seen: number): boolean {
  const growth = (x: number): number => growthAt(polynomial, at(x)) - 1;
  const [near, far] = [growth(1.5 * seen), growth(3 * seen)];
  const power = ln(far / near) / Math.LN2;
  // c x^m: what is expected where it is first seen is the same as what is there
  return near > 0 && power > 0.8 && growth(seen) > (0.5 * near) / pow(1.5, power);
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

/** What is left of a decay after one step, the faster it is: 0 for an L-stable method. */
function atInfinity({ below, above }: StabilityPolynomial): number {
  const degree = below.length - 1;
  const lead = below[degree]?.value ?? NaN;
  const tops = above.map((p) => (p[degree]?.value ?? 0) / lead);
  if (above.some((p) => p.length > below.length)) return Infinity;
  const polynomial = [...tops].reverse().map((top) => complex(-top));
  return Math.max(0, ...rootsOf([...polynomial, complex(1)]).map(sizeOf));
}

/**
 * The ends of stability on both axes, to about nine digits, from the roots of the characteristic polynomial; A- and
 * L-stability by the size on the imaginary axis, the poles and the limit at infinity (maximum principle).
 *
 * Source: E. Hairer, G. Wanner, Solving Ordinary Differential Equations II (2nd ed., 1996), sections IV.2, IV.3, V.1.
 */
export function stabilityLimits(polynomial: StabilityPolynomial): StabilityLimits {
  const real = limitOn(polynomial, (x) => complex(-x));
  const imaginary = limitOn(polynomial, (x) => complex(0, x));
  const last = atInfinity(polynomial);
  const aStable =
    polynomial.below.length > 1 &&
    real === Infinity &&
    last <= 1 + 1e-9 &&
    hasNoPoleAtLeft(polynomial) &&
    isStableOnAxis(polynomial);
  return { real, imaginary, aStable, lStable: aStable && last < 1e-9 };
}
