import { countOfStages, kindOf, type MethodKind } from '../form/kind.ts';
import type { LinearMethod } from '../form/linear-method.ts';

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

/** The order that the stages of a method suggest, and one up to which mistakes are looked for. */
export interface SuggestedOrder {
  readonly usual: number;
  readonly most: number;
}

/**
 * The order that the stages of a method suggest: what is usual for as many stages, derivatives, or earlier values and slopes,
 * and a bound where one is known, or else the same.
 *
 * @param unused stages of the text that nothing takes
 */
export function suggestedOrder(method: LinearMethod, unused = 0): SuggestedOrder {
  const { stages, depth, next } = method;
  const kind = kindOf(method);
  const count = countOfStages(method) + unused;
  const most = highestOrder(kind, count, depth);
  const terms = ('y' in next ? next.y.size : next.x.size) - 1;
  switch (kind) {
    case 'Taylor': {
      const rises = stages.map(
        ({ primes, partial }) => primes + (partial === null ? 0 : partial.times + partial.along.length),
      );
      return { usual: 1 + Math.max(...rises), most };
    }
    case 'explicit linear multistep':
    case 'implicit linear multistep':
      return { usual: Math.min(terms, most), most };
    case 'predictor-corrector':
      return { usual: depth + 1, most: depth + 1 };
    case 'Nystrom':
    case 'Rosenbrock':
      return { usual: count, most: count };
    default:
      return { usual: Number.isFinite(most) ? most : count, most };
  }
}
