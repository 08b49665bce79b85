import { type Amount, amountOf, NOTHING, plus, times, UNIT } from '../form/amount.ts';
import type { LinearForm } from '../form/form.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { soleTerm } from '../form/powers.ts';
import { complex, type Complex, rootsOf, sizeOf } from '../stability/complex.ts';
import type { ZeroStability } from '../stability/zero-stability.ts';

/** How near a root must be to the circle, or to another, to count as on it. */
const NEAR = 1e-6;
const SAME = 1e-3;

function keptIn(
  form: LinearForm,
  variable: 'x' | 'v',
): readonly { readonly back: number; readonly amount: Amount }[] {
  return [...form.values()].flatMap(({ basis, factor }) =>
    basis.kind === 'kept' && basis.variable === variable
      ? [{ back: basis.back, amount: soleTerm(factor)?.amount ?? NOTHING }]
      : [],
  );
}

/** Whether positions are made of earlier positions and slopes alone, as in two-step formulas for x'' = a. */
export function isPositionsOnly({ next, depth }: LinearMethod): boolean {
  return 'x' in next && depth > 0 && keptIn(next.x, 'v').length === 0;
}

/** Whether velocities are made of earlier ones, so that their errors add up. */
export function keepsVelocity({ next }: LinearMethod): boolean {
  return 'v' in next && keptIn(next.v, 'v').length > 0;
}

/** What a constant velocity gives for the new one: 1 for a formula that keeps it. */
export function unitOfVelocity({ next }: LinearMethod): { readonly rest: Amount; readonly value: Amount } {
  if (!('v' in next)) return { rest: NOTHING, value: UNIT };
  const [positions, velocities] = [keptIn(next.v, 'x'), keptIn(next.v, 'v')];
  return {
    // positions must cancel
    rest: positions.reduce((sum, { amount }) => plus(sum, amount), NOTHING),
    value: [
      ...positions.map(({ amount, back }) => times(amount, amountOf(-back))),
      ...velocities.map(({ amount }) => amount),
    ].reduce(plus, NOTHING),
  };
}

/**
 * The root condition of a two-step formula for x'' = a: no root outside the unit circle, and none on it more than twice; 1
 * is a double root of every consistent one.
 *
 * Source: P. Henrici, Discrete Variable Methods in Ordinary Differential Equations (1962), chapter 6; E. Hairer, S. P.
 * Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section III.10.
 */
export function zeroStabilityOfPositions({ next, depth }: LinearMethod): ZeroStability {
  const coefficients: Complex[] = Array.from({ length: depth + 2 }, () => complex(0));
  coefficients[depth + 1] = complex(1);
  for (const { back, amount } of 'x' in next ? keptIn(next.x, 'x') : [])
    coefficients[depth - back] = complex(-amount.value);
  const roots = rootsOf(
    coefficients.slice(
      Math.max(
        0,
        coefficients.findIndex((c) => sizeOf(c) > 0),
      ),
    ),
  );
  const unimodular = roots.filter((root) => Math.abs(sizeOf(root) - 1) <= SAME);
  const alike = (root: Complex): number =>
    unimodular.filter((other) => sizeOf({ re: root.re - other.re, im: root.im - other.im }) <= SAME).length;
  return {
    roots,
    // a double root is found to half of the digits only
    stable:
      roots.every((root) => sizeOf(root) <= 1 + (alike(root) > 1 ? SAME : NEAR)) &&
      unimodular.every((root) => alike(root) <= 2),
    undamped: unimodular.filter((root) => sizeOf({ re: root.re - 1, im: root.im }) > SAME),
  };
}
