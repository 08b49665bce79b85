import { systemRightHandSides } from '../../src/compile/right-hand-sides.ts';
import { norm } from '../../src/run/norm.ts';
import { type Claimed, solutionAt } from './claimed.ts';

/** Size of the largest eigenvalue of one or two equations, by differences along the solution; null for more. */
export function steepness(of: Claimed): number | null {
  const { problem } = of.study;
  const { size } = problem;
  if (size > 2) return null;
  const rightHandSides = systemRightHandSides(problem);
  let most = 0;
  for (let i = 0; i <= 20; i += 1) {
    const t = problem.start + ((problem.end - problem.start) * i) / 20;
    const y = solutionAt(of, t);
    const d = 1e-6 * Math.max(1, norm(y));
    const base = rightHandSides(t, y).slice();
    const columns = Array.from({ length: size }, (_, j) => {
      const moved = y.slice();
      moved[j]! += d;
      return Array.from(rightHandSides(t, moved), (rhs, k) => (rhs - base[k]!) / d);
    });
    const [[a = 0, c = 0] = [], [b = 0, e = 0] = []] = columns;
    if (size === 1) most = Math.max(most, Math.abs(a));
    else {
      const [half, determinant] = [(a + e) / 2, a * e - b * c];
      const inner = half * half - determinant;
      // a pair of complex ones is of the size of the root of the determinant
      most = Math.max(most, inner < 0 ? Math.sqrt(determinant) : Math.abs(half) + Math.sqrt(inner));
    }
  }
  return most;
}
