import { type Expression, number, some } from './expression.ts';
import { constantOf, simple } from './simplify.ts';

/** An expression as `slope * x + rest`, with neither holding x; or the smallest part that is not linear in x. */
export type Linear =
  | { readonly ok: true; readonly slope: Expression; readonly rest: Expression }
  | { readonly ok: false; readonly part: Expression };

const ZERO = number(0);

function linear(slope: Expression, rest: Expression): Linear {
  return { ok: true, slope, rest };
}

/**
 * Splits an expression into slope*x + rest. A part without x stays as it was written.
 *
 * @param isX tells the leaf x
 */
export function linearIn(expression: Expression, isX: (node: Expression) => boolean): Linear {
  if (isX(expression)) return linear(number(1), ZERO);
  if (expression.kind === 'negate') {
    const of = linearIn(expression.of, isX);
    if (!of.ok) return of;
    if (isZero(of.slope)) return linear(ZERO, expression);
    return linear(simple.negated(of.slope), simple.negated(of.rest));
  }
  if (expression.kind !== 'binary')
    return some(expression, isX) ? { ok: false, part: expression } : linear(ZERO, expression);
  const left = linearIn(expression.left, isX);
  if (!left.ok) return left;
  const right = linearIn(expression.right, isX);
  if (!right.ok) return right;
  const [inLeft, inRight] = [!isZero(left.slope), !isZero(right.slope)];
  if (!inLeft && !inRight) return linear(ZERO, expression);
  const nonlinear: Linear = { ok: false, part: expression };
  switch (expression.operator) {
    case '+':
      return linear(simple.add(left.slope, right.slope), simple.add(left.rest, right.rest));
    case '-':
      return linear(simple.subtract(left.slope, right.slope), simple.subtract(left.rest, right.rest));
    case '*':
      if (inLeft && inRight) return nonlinear;
      return inLeft
        ? linear(simple.multiply(left.slope, right.rest), simple.multiply(left.rest, right.rest))
        : linear(simple.multiply(left.rest, right.slope), simple.multiply(left.rest, right.rest));
    case '/':
      if (inRight) return nonlinear;
      return linear(simple.divide(left.slope, right.rest), simple.divide(left.rest, right.rest));
    case '^':
      return nonlinear;
  }
}

function isZero(expression: Expression): boolean {
  return constantOf(expression) === 0;
}
