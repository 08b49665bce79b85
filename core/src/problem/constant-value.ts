import { evaluate } from '../formula/evaluate.ts';
import type { Expression } from '../formula/expression.ts';
import { CONSTANTS } from '../formula/functions.ts';
import { PlaceError } from '../text/place.ts';

/** The value of an expression in constants and the parameters above it. */
export function constantValue(expression: Expression, known: ReadonlyMap<string, number>): number {
  const leaf = (node: Expression): number => {
    if (node.kind === 'name' && node.primes === 0) {
      const value = known.get(node.name) ?? CONSTANTS.get(node.name);
      if (value !== undefined) return value;
      throw new PlaceError(
        node.at,
        `${node.name} is not known here; define parameters above the lines that use them`,
      );
    }
    throw new PlaceError(node.at, 'only numbers and parameters are allowed here');
  };
  const value = evaluate(expression, leaf);
  if (!Number.isFinite(value)) throw new PlaceError(expression.at, `this is not a finite number (${value})`);
  return value;
}
