import { cos, sin } from '../../elementary/trigonometric.ts';

/** A complex number. */
export interface Complex {
  readonly re: number;
  readonly im: number;
}

export function complex(re: number, im = 0): Complex {
  return { re, im };
}

export function addComplex(a: Complex, b: Complex): Complex {
  return { re: a.re + b.re, im: a.im + b.im };
}

export function timesComplex(a: Complex, b: Complex): Complex {
  return { re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re };
}

export function overComplex(a: Complex, b: Complex): Complex {
  const size = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / size, im: (a.im * b.re - a.re * b.im) / size };
}

export function sizeOf({ re, im }: Complex): number {
  return Math.sqrt(re * re + im * im);
}

/** A polynomial at a place; coefficients from the constant on. */
export function polynomialAt(coefficients: readonly Complex[], z: Complex): Complex {
  return coefficients.reduceRight((sum, c) => addComplex(timesComplex(sum, z), c), complex(0));
}

/** Rounds of the iteration, at most. */
const ROUNDS = 60;

/**
 * All roots of a polynomial, multiple ones as often as they are.
 *
 * Source: O. Aberth, Math. Comp. 27 (1973) 339-344.
 *
 * @param coefficients from the constant on; leading zeros are passed over
 */
export function rootsOf(coefficients: readonly Complex[]): readonly Complex[] {
  const largest = Math.max(...coefficients.map(sizeOf));
  let degree = coefficients.length - 1;
  while (degree > 0 && sizeOf(coefficients[degree]!) <= 1e-14 * largest) degree -= 1;
  if (degree <= 0) return [];
  const own = coefficients.slice(0, degree + 1);
  if (degree === 1) return [overComplex({ re: -own[0]!.re, im: -own[0]!.im }, own[1]!)];
  const slope = own.slice(1).map((c, k) => ({ re: c.re * (k + 1), im: c.im * (k + 1) }));
  const radius = 1 + Math.max(...own.slice(0, degree).map((c) => sizeOf(c) / sizeOf(own[degree]!)));
  const reach = Math.min(radius, 2);
  let roots: readonly Complex[] = Array.from({ length: degree }, (_, k) => {
    const angle = (2 * Math.PI * k) / degree + 0.4;
    return { re: reach * 0.7 * cos(angle), im: reach * 0.7 * sin(angle) };
  });
  for (let round = 0; round < ROUNDS; round += 1) {
    let moved = 0;
    roots = roots.map((root, i) => {
      const value = polynomialAt(own, root);
      if (sizeOf(value) === 0) return root;
      const newton = overComplex(value, polynomialAt(slope, root));
      if (!Number.isFinite(newton.re)) return { re: root.re + 1e-6, im: root.im + 1e-6 };
      let others = complex(0);
      roots.forEach((other, j) => {
        if (j === i) return;
        const apart = { re: root.re - other.re, im: root.im - other.im };
        if (sizeOf(apart) > 0) others = addComplex(others, overComplex(complex(1), apart));
      });
      const product = timesComplex(newton, others);
      const step = overComplex(newton, { re: 1 - product.re, im: -product.im });
      moved = Math.max(moved, sizeOf(step) / Math.max(1e-3, sizeOf(root)));
      return { re: root.re - step.re, im: root.im - step.im };
    });
    if (moved < 1e-13) break;
  }
  return roots;
}
