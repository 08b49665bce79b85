import { type Expression, walk } from '../formula/expression.ts';
import type { Span } from '../formula/place.ts';

/** A number, or one value for each component. */
export type Shape = 'scalar' | 'vector';

/** One line of a method. */
export type MethodStatement =
  | {
      /** `k1 = f(t, y)` or a plain constant such as `theta = 1/2`. */
      readonly kind: 'let';
      readonly name: string;
      readonly shape: Shape;
      readonly value: Expression;
      readonly at: Span;
    }
  | { readonly kind: 'next'; readonly value: Expression; readonly at: Span };

/** A fixed-step formula for y' = f(t, y), as its text says it. */
export interface Method {
  readonly text: string;
  /** In the order of the text; the last one is the `next`. */
  readonly statements: readonly MethodStatement[];
}

/** Evaluations of f that one step costs. */
export function evaluationsPerStep(method: Method): number {
  let count = 0;
  for (const { value } of method.statements)
    walk(value, (node) => {
      if (node.kind === 'call' && node.name === 'f' && node.primes === 0) count += 1;
    });
  return count;
}
