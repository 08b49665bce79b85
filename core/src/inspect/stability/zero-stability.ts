import type { LinearMethod } from '../form/linear-method.ts';
import { soleTerm } from '../form/powers.ts';
import { type Complex, complex, rootsOf, sizeOf } from './complex.ts';

/** What a multistep method does at h = 0: where the roots of its first polynomial are. */
export interface ZeroStability {
  /** Roots of r^k - sum of alpha_j r^(k-1-j); 1 is among them for a consistent formula. */
  readonly roots: readonly Complex[];
  /** Whether all are in the unit circle, and those on it simple (root condition of Dahlquist). */
  readonly stable: boolean;
  /** Roots on the unit circle besides 1: their parts of an error are not damped. */
  readonly undamped: readonly Complex[];
}

/** How near a root must be to the circle to count as on it. */
const NEAR = 1e-6;
/** How near two roots must be to count as a double one. */
const SAME = 1e-3;

/**
 * The root condition: an error in the starting values stays bounded as h falls only if no root leaves the unit circle
 * and none on it is double.
 *
 * Source: G. Dahlquist, Math. Scand. 4 (1956) 33-53.
 *
 * @param near how near a root must be to the circle to count as on it; more where coefficients are rounded
 * @returns null for a one-step method, which needs no such condition
 */
export function zeroStability({ depth, next }: LinearMethod, near = NEAR): ZeroStability | null {
  const on = Math.max(near, NEAR);
  const same = Math.max(on, SAME);
  if (depth === 0 || !('y' in next)) return null;
  const coefficients: Complex[] = Array.from({ length: depth + 2 }, () => complex(0));
  coefficients[depth + 1] = complex(1);
  for (const { basis, factor } of next.y.values()) {
    if (basis.kind !== 'kept') continue;
    const { amount } = soleTerm(factor) ?? {};
    coefficients[depth - basis.back] = complex(-(amount?.value ?? NaN));
  }
  // a formula that keeps slopes alone reaches back with zeros
  const least = coefficients.findIndex((c) => sizeOf(c) > 0);
  const roots = rootsOf(coefficients.slice(Math.max(0, least)));
  const unimodular = roots.filter((root) => Math.abs(sizeOf(root) - 1) <= on);
  const isDouble = unimodular.some((root, i) =>
    unimodular.some(
      (other, j) => j > i && sizeOf({ re: root.re - other.re, im: root.im - other.im }) <= same,
    ),
  );
  return {
    roots,
    stable: !isDouble && roots.every((root) => sizeOf(root) <= 1 + on),
    undamped: unimodular.filter((root) => sizeOf({ re: root.re - 1, im: root.im }) > same),
  };
}
