import { type Amount, factorial, fraction, less, over, times } from '../form/amount.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { exactCoefficient } from './step-series.ts';
import type { ProvedOrder } from './prove-order.ts';
import { Forest } from './trees.ts';

/** Highest order of trees over which a multiple of one derivative is spread. */
const HIGHEST = 10;

function norm(amounts: readonly Amount[]): number {
  return Math.hypot(...amounts.map(({ value }) => value));
}

/**
 * The norm of the principal error of a one-step method for y' = f: the root of the sum of the squares of the coefficients
 * of the elementary differentials of order p + 1 in the local error, (1/gamma - Phi)/sigma for every tree. Methods of one
 * order can be ranked by it.
 *
 * Source: E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I (2nd ed., 1993), section II.3.
 *
 * @returns null for multistep methods, methods in x and v, those for one equation alone, and where the order may be higher
 */
export function principalError(method: LinearMethod, proof: ProvedOrder): number | null {
  const { depth, next, oneEquation } = method;
  const [first] = proof.failing;
  if (!('y' in next) || depth > 0 || oneEquation || first === undefined || proof.order < 1) return null;
  const order = proof.order + 1;
  if (first.tree !== null)
    return norm(
      proof.failing.flatMap(({ tree, value, should }) =>
        tree === null ? [] : [over(less(should, value), fraction(tree.symmetry))],
      ),
    );
  if (order > HIGHEST || proof.errorConstant === null) return null;
  // C y^(p+1): every tree with as many monotonic labellings as it has
  const forest = new Forest({ form: 'first', withTime: false, withVelocity: true, anyJacobian: false });
  const counts = forest
    .ofOrder(order)
    .map((tree) => times(over(exactCoefficient(tree), fraction(tree.symmetry)), factorial(order)));
  return Math.abs(proof.errorConstant.value) * norm(counts);
}
