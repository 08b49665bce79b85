import { primed } from '../text/primes.ts';
import type { Expression } from '../formula/expression.ts';
import { some } from '../formula/expression.ts';
import { linearIn } from '../formula/linear.ts';
import { PlaceError, type Span } from '../text/place.ts';
import { constantOf, simple } from '../formula/simplify.ts';

/** A highest derivative as it is in equations: `x''` or, of a family, `u[i]'`. */
export interface HighestDerivative {
  readonly name: string;
  readonly order: number;
}

/** Whether a node is that derivative. */
export function isDerivative(node: Expression, of: HighestDerivative): boolean {
  return (
    (node.kind === 'name' || node.kind === 'indexed') && node.name === of.name && node.primes === of.order
  );
}

/** How a derivative is written in messages. */
export function written(of: HighestDerivative, primes = of.order): string {
  return primed(of.name, primes);
}

/**
 * Solves left = right for a derivative. Where the left side is just the derivative, the right side is
 * taken as it is, so that a run does the arithmetic of the text; otherwise the equation is rearranged.
 *
 * @throws PlaceError where the equation is not linear in the derivative
 */
export function solveFor(
  left: Expression,
  right: Expression,
  of: HighestDerivative,
  at: Span,
): { readonly rhs: Expression; readonly rearranged: boolean } {
  const isIt = (node: Expression): boolean => isDerivative(node, of);
  if (isIt(left) && !some(right, isIt)) return { rhs: right, rearranged: false };
  const l = linearIn(left, isIt);
  const r = linearIn(right, isIt);
  if (!l.ok) throw notLinear(l.part, of);
  if (!r.ok) throw notLinear(r.part, of);
  const slope = simple.subtract(l.slope, r.slope);
  if (constantOf(slope) === 0)
    throw new PlaceError(
      at,
      `${written(of)} cancels out of this equation, so the equation does not determine it`,
    );
  return { rhs: simple.divide(simple.subtract(r.rest, l.rest), slope), rearranged: true };
}

function notLinear(part: Expression, of: HighestDerivative): PlaceError {
  return new PlaceError(
    part.at,
    `this equation is not linear in ${written(of)}, so it cannot be solved for it; write it as ${written(of)} = ...`,
  );
}
