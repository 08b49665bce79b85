import { solveDense } from '../../compile/newton/linear-system.ts';
import type { NystromTableau } from '../properties/geometric.ts';
import { limitOfGrowth } from './stability-limits.ts';

/** By how much a step multiplies (x, h v) on x'' = -w^2 x at z = h w: the size of the largest eigenvalue. */
function growthOn({ c, A, bx, bv }: NystromTableau, z: number): number {
  // K_i = h^2 a_i = -z^2 (x + c_i h v + sum A_ij K_j): a linear system for all stages
  const n = c.length;
  const matrix = A.flatMap((row, i) => row.map(({ value }, j) => (i === j ? 1 : 0) + z * z * value));
  const stages = (right: readonly number[]): Float64Array => {
    const solution = Float64Array.from(right, (value) => -z * z * value);
    return solveDense(Float64Array.from(matrix), solution, n) ? solution : solution.fill(NaN);
  };
  const [byX, byV] = [stages(c.map(() => 1)), stages(c.map(({ value }) => value))];
  const sum = (weights: NystromTableau['bx'], of: Float64Array): number =>
    weights.reduce((total, { value }, i) => total + value * of[i]!, 0);
  const [xx, xv, vx, vv] = [1 + sum(bx, byX), 1 + sum(bx, byV), sum(bv, byX), 1 + sum(bv, byV)];
  const [trace, determinant] = [xx + vv, xx * vv - xv * vx];
  const inside = (trace * trace) / 4 - determinant;
  return inside < 0 ? Math.sqrt(Math.max(0, determinant)) : Math.abs(trace) / 2 + Math.sqrt(inside);
}

/**
 * The end of the interval of stability of a method in x and v: on x'' = -w^2 x errors do not grow for h w up to it; 0 where
 * they always do, Infinity where they never do.
 *
 * Source: E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section II.14; P. J.
 * van der Houwen, B. P. Sommeijer, SIAM J. Numer. Anal. 24 (1987) 595-617.
 */
export function oscillationLimit(tableau: NystromTableau): number {
  return limitOfGrowth((z) => growthOn(tableau, z));
}
