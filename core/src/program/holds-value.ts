import type { Expression } from '../formula/expression.ts';

const VARIABLES: ReadonlySet<string> = new Set(['y', 'x', 'v']);

/** Whether an expression is a value, as y + h*f(...) is, and no slope: a name of y is outside of all calls. */
export function holdsValue(expression: Expression): boolean {
  switch (expression.kind) {
    case 'name':
      return expression.primes === 0 && VARIABLES.has(expression.name);
    case 'indexed':
      return VARIABLES.has(expression.name);
    case 'negate':
      return holdsValue(expression.of);
    case 'binary':
      return holdsValue(expression.left) || holdsValue(expression.right);
    default:
      return false;
  }
}
