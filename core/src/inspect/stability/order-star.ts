import { exp } from '../../elementary/exponential.ts';
import { ln } from '../../elementary/logarithm.ts';
import { type Complex, complex, timesComplex } from './complex.ts';
import { excessPicture, type RegionPicture } from './region.ts';
import type { LeadingTerm, PhaseErrors } from './phase-errors.ts';
import { growthAt } from './stability-limits.ts';
import type { StabilityPolynomial } from './stability-polynomial.ts';

/** Below that, ln|R(z)| - Re z is lost in rounding, and its leading term tells the sign. */
const LOST = 1e-10;
/** Half the side of the picture: more than zeros and poles are from the origin, as a rule. */
const REACH = { least: 2, perDegree: 0.7 };
/** Points along each side: the sectors of a high order are narrow. */
const POINTS = 160;

function power(z: Complex, n: number): Complex {
  let made = complex(1);
  for (let i = 0; i < n; i += 1) made = timesComplex(made, z);
  return made;
}

/** ln|R(z) / exp(z)| of a one-step method. */
function relativeGrowth(polynomial: StabilityPolynomial, error: LeadingTerm): (z: Complex) => number {
  return (z) => {
    const direct = ln(growthAt(polynomial, z)) - z.re;
    return Math.abs(direct) > LOST ? direct : error.coefficient.value * power(z, error.power).re;
  };
}

/**
 * How much faster a one-step method grows over a step than the exact solution, |R(z) / exp(z)|.
 *
 * @example relativeGrowthAt(inspection.stability!.polynomial, { re: 0, im: 0 }) // 1
 */
export function relativeGrowthAt(polynomial: StabilityPolynomial, z: Complex): number {
  return growthAt(polynomial, z) * exp(-z.re);
}

/**
 * The order star of a one-step method: hatched where |R(z)| > |exp(z)|. At the origin p + 1 sectors of it meet for order p;
 * a method is A-stable just when it has no part on the imaginary axis and no pole in the left half plane.
 *
 * Source: G. Wanner, E. Hairer, S. P. Norsett, BIT 18 (1978) 475-489.
 *
 * @param phase the leading terms of its errors
 * @returns null for a multistep method, and for one that is not consistent
 *
 * @example orderStar(inspection.stability!)!.box.left < -2 // true
 */
export function orderStar({
  polynomial,
  phase,
}: {
  readonly polynomial: StabilityPolynomial;
  readonly phase: PhaseErrors | null;
}): RegionPicture | null {
  if (phase === null) return null;
  const degree = Math.max(polynomial.below.length, ...polynomial.above.map((p) => p.length)) - 1;
  const reach = REACH.least + REACH.perDegree * degree;
  const growth = relativeGrowth(polynomial, phase.error);
  const box = { left: -reach, right: reach, bottom: -reach, top: reach };
  return excessPicture(box, 'unbounded', POINTS, (z) => -growth(z));
}
