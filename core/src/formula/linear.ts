import { type Expression, number, partsOf, some } from './expression.ts';
import { constantOf, simple } from './simplify.ts';

/** An expression as `slope * x + rest`. */
export interface Linear {
  readonly slope: Expression;
  readonly rest: Expression;
}

/**
 * Splits an expression into slope*x + rest, with neither holding x.
 *
 * @param isX tells the leaf x
 * @returns null where the expression is not linear in x
 */
export function linearIn(expression: Expression, isX: (node: Expression) => boolean): Linear | null {
  const zero = number(0);
  if (isX(expression)) return { slope: number(1), rest: zero };
  if (!some(expression, isX)) return { slope: zero, rest: expression };
  if (expression.kind === 'negate') {
    const of = linearIn(expression.of, isX);
    return of && { slope: simple.negated(of.slope), rest: simple.negated(of.rest) };
  }
  if (expression.kind !== 'binary' || partsOf(expression).length !== 2) return null;
  const left = linearIn(expression.left, isX);
  const right = linearIn(expression.right, isX);
  if (left === null || right === null) return null;
  switch (expression.operator) {
    case '+':
      return { slope: simple.add(left.slope, right.slope), rest: simple.add(left.rest, right.rest) };
    case '-':
      return {
        slope: simple.subtract(left.slope, right.slope),
        rest: simple.subtract(left.rest, right.rest),
      };
    case '*': {
      const rightFree = constantOf(right.slope) === 0;
      if (!rightFree && constantOf(left.slope) !== 0) return null;
      return rightFree
        ? { slope: simple.multiply(left.slope, right.rest), rest: simple.multiply(left.rest, right.rest) }
        : { slope: simple.multiply(left.rest, right.slope), rest: simple.multiply(left.rest, right.rest) };
    }
    case '/':
      if (constantOf(right.slope) !== 0) return null;
      return { slope: simple.divide(left.slope, right.rest), rest: simple.divide(left.rest, right.rest) };
    case '^':
      return null;
  }
}
