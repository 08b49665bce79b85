import { rhsSeries } from '../../compile/jets/rhs-series.ts';
import type { Problem } from '../../problem/problem.ts';
import { type Complex, complex, rootsOf, sizeOf } from './complex.ts';
import { growthAt } from './stability-limits.ts';
import type { StabilityPolynomial } from './stability-polynomial.ts';

/** Most components whose eigenvalues are found. */
export const MAX_EIGENVALUES = 8;

/** The Jacobian of the right-hand sides at a time and state, row by row. */
export function jacobianAt(problem: Problem, t: number, state: ArrayLike<number>): readonly Float64Array[] {
  const { size } = problem;
  const rightHandSides = rhsSeries(problem, 1);
  const [pair, out] = [new Float64Array(2 * size), new Float64Array(2 * size)];
  pair.set(Array.from(state).slice(0, size));
  const rows = Array.from({ length: size }, () => new Float64Array(size));
  for (let j = 0; j < size; j += 1) {
    pair.fill(0, size);
    pair[size + j] = 1;
    rightHandSides(t, 0, pair, out);
    for (let i = 0; i < size; i += 1) rows[i]![j] = out[size + i]!;
  }
  return rows;
}

/**
 * The eigenvalues of a small matrix, as the roots of its characteristic polynomial (Faddeev-LeVerrier).
 *
 * Source: D. K. Faddeev, V. N. Faddeeva, Computational Methods of Linear Algebra (1963), section 47.
 */
export function eigenvalues(matrix: readonly Float64Array[]): readonly Complex[] {
  const n = matrix.length;
  const coefficients: Complex[] = Array.from({ length: n + 1 }, () => complex(0));
  coefficients[n] = complex(1);
  let product = matrix.map((row) => Float64Array.from(row));
  for (let k = 1; k <= n; k += 1) {
    const trace = product.reduce((sum, row, i) => sum + row[i]!, 0);
    const c = -trace / k;
    coefficients[n - k] = complex(c);
    const shifted = product.map((row, i) =>
      Float64Array.from(row, (value, j) => (i === j ? value + c : value)),
    );
    product = matrix.map((row) =>
      Float64Array.from({ length: n }, (_, j) =>
        row.reduce((sum, value, m) => sum + value * shifted[m]![j]!, 0),
      ),
    );
  }
  const size = Math.max(...coefficients.map(sizeOf));
  // zeros at the end of the polynomial are eigenvalues zero
  const first = coefficients.findIndex((c) => sizeOf(c) > 1e-14 * size);
  return [...Array.from({ length: first }, () => complex(0)), ...rootsOf(coefficients.slice(first))];
}

/**
 * Eigenvalues of the Jacobian of a problem along a solution; none for more than eight components.
 *
 * @example spectrumAlong(problem, () => 4, [0])[0] // { re: -0.0875, im: 0 }
 */
export function spectrumAlong(
  problem: Problem,
  solution: (place: number, t: number) => number,
  times: readonly number[],
): readonly Complex[] {
  if (problem.size > MAX_EIGENVALUES) return [];
  return times.flatMap((t) => {
    const state = Array.from({ length: problem.size }, (_, j) => solution(j, t));
    const matrix = state.every((value) => Number.isFinite(value)) ? jacobianAt(problem, t, state) : null;
    if (matrix === null || !matrix.every((row) => row.every((value) => Number.isFinite(value)))) return [];
    return eigenvalues(matrix);
  });
}

/** How far along a ray a method is stable, at most. */
const FARTHEST = 1e3;

/**
 * The largest h at which no error of a motion with an eigenvalue of the left half plane grows.
 *
 * @returns Infinity where there is no end; null for an eigenvalue with a positive real part, which grows itself, or zero
 * @example largestStep(inspection.stability!.polynomial, { re: -1, im: 0 })
 */
export function largestStep(polynomial: StabilityPolynomial, { re, im }: Complex): number | null {
  const size = sizeOf({ re, im });
  if (!(size > 0) || re > 1e-9 * size) return null;
  const grows = (x: number): boolean =>
    growthAt(polynomial, complex((x * re) / size, (x * im) / size)) > 1 + 1e-9;
  let [low, high] = [0, 0.02];
  while (!grows(high)) {
    low = high;
    high *= 1.04;
    if (high > FARTHEST) return Infinity;
  }
  for (let i = 0; i < 50; i += 1) {
    const middle = (low + high) / 2;
    if (grows(middle)) high = middle;
    else low = middle;
  }
  return low / size;
}
