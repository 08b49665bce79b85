import { type Amount, amountOf, NOTHING, plus, times, UNIT } from '../form/amount.ts';
import { keptIn } from '../form/form.ts';
import type { LinearMethod } from '../form/linear-method.ts';

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
