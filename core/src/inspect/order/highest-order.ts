import type { MethodKind } from '../form/kind.ts';

/** Highest order of an explicit Runge-Kutta method, by its stages. */
const BY_STAGES = [0, 1, 2, 3, 4, 4, 5, 6, 6, 7, 7, 8];

/**
 * The highest order that a formula of a kind can have, whatever its coefficients are; Infinity where no such bound is
 * known.
 *
 * Source: J. C. Butcher, Numerical Methods for Ordinary Differential Equations (3rd ed., 2016), section 324 (explicit
 * Runge-Kutta methods); S. P. Norsett, G. Wanner, BIT 19 (1979) 86-94 (diagonally implicit ones); G. Dahlquist, Math. Scand. 4 (1956) 33-53 (stable multistep formulas).
 *
 * @param stages of a Runge-Kutta method
 * @param depth how many steps back a multistep formula reaches, 0 for y[n] alone
 */
export function highestOrder(kind: MethodKind, stages: number, depth: number): number {
  const steps = depth + 1;
  switch (kind) {
    case 'explicit Runge-Kutta':
      return BY_STAGES[stages] ?? Infinity;
    case 'diagonally implicit Runge-Kutta':
      return stages + 1;
    case 'implicit Runge-Kutta':
      return 2 * stages;
    case 'explicit linear multistep':
      return steps;
    case 'implicit linear multistep':
      return steps % 2 === 0 ? steps + 2 : steps + 1;
    default:
      return Infinity;
  }
}
