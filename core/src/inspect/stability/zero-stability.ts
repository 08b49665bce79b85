import { keptIn } from '../form/form.ts';
import type { LinearMethod } from '../form/linear-method.ts';
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

/** The roots of r^(depth + 1) - sum of alpha_j r^(depth - j); zeros at its end are none of a formula that keeps slopes alone. */
function rootsOfKept(kept: ReturnType<typeof keptIn>, depth: number): readonly Complex[] {
  const coefficients: Complex[] = Array.from({ length: depth + 2 }, () => complex(0));
  coefficients[depth + 1] = complex(1);
  for (const { back, amount } of kept) coefficients[depth - back] = complex(-amount.value);
  return rootsOf(coefficients.slice(coefficients.findIndex((c) => sizeOf(c) > 0)));
}

function distance(a: Complex, b: Complex): number {
  return sizeOf({ re: a.re - b.re, im: a.im - b.im });
}

/** How a root condition is judged. */
interface RootCondition {
  /** How far from the circle a simple root counts as on it, and one that others are near to. */
  readonly simple: number;
  readonly multiple: number;
  /** How near two roots count as one. */
  readonly same: number;
  /** How often a root on the circle may be there. */
  readonly multiplicity: number;
}

function judged(
  roots: readonly Complex[],
  { simple, multiple, same, multiplicity }: RootCondition,
): ZeroStability {
  const on = roots.filter((root) => Math.abs(sizeOf(root) - 1) <= multiple);
  const alike = (root: Complex): number => on.filter((other) => distance(root, other) <= same).length;
  return {
    roots,
    stable:
      roots.every((root) => sizeOf(root) <= 1 + (alike(root) > 1 ? multiple : simple)) &&
      on.every((root) => alike(root) <= multiplicity),
    undamped: on.filter((root) => distance(root, complex(1)) > same),
  };
}

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
  if (depth === 0 || !('y' in next)) return null;
  const on = Math.max(near, NEAR);
  const condition = { simple: on, multiple: on, same: Math.max(on, SAME), multiplicity: 1 };
  return judged(rootsOfKept(keptIn(next.y, 'y'), depth), condition);
}

/**
 * The root condition of a formula that makes positions of earlier ones, for x'' = a: no root outside the unit circle, and
 * none on it more than twice; 1 is a double root of every consistent one, found to half of the digits only.
 *
 * Source: P. Henrici, Discrete Variable Methods in Ordinary Differential Equations (1962), chapter 6; E. Hairer, S. P.
 * Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.10.
 */
export function zeroStabilityOfPositions({ depth, next }: LinearMethod): ZeroStability | null {
  if (!('x' in next)) return null;
  const condition = { simple: NEAR, multiple: SAME, same: SAME, multiplicity: 2 };
  return judged(rootsOfKept(keptIn(next.x, 'x'), depth), condition);
}
