import { applyFunction, compare, operate } from '../formula/arithmetic.ts';
import { isSpelledPower } from '../formula/evaluate.ts';
import type { Bound, Tree } from '../formula/expression.ts';

/** A formula that is evaluated again and again; what its leaves are is looked up at each time. */
export type Evaluated = () => number;

/**
 * A formula as nested functions, with the arithmetic of a run: made faster than generated code, for runs of a few steps.
 *
 * @param leaf what a leaf is worth when it is asked
 * @param round rounds each result; null for double precision
 */
export function evaluated<B>(
  tree: Tree<Bound<B>>,
  leaf: (to: B) => Evaluated,
  round: ((x: number) => number) | null,
): Evaluated {
  const rounded = (make: Evaluated): Evaluated => (round === null ? make : () => round(make()));
  const of = (node: Tree<Bound<B>>): Evaluated => {
    switch (node.kind) {
      case 'number': {
        const value = round === null ? node.value : round(node.value);
        return () => value;
      }
      case 'bound':
        return rounded(leaf(node.to));
      case 'negate': {
        const inner = of(node.of);
        return () => -inner();
      }
      case 'binary':
        return binary(node.operator, of(node.left), of(node.right), isSpelledPower(node.right));
      case 'call': {
        const inputs = node.inputs.map(of);
        return rounded(() =>
          applyFunction(
            node.name,
            inputs.map((input) => input()),
          ),
        );
      }
      case 'if': {
        const { relation } = node.test;
        const [left, right, yes, no] = [of(node.test.left), of(node.test.right), of(node.yes), of(node.no)];
        return () => (compare(relation, left(), right()) ? yes() : no());
      }
    }
  };
  const binary = (
    operator: '+' | '-' | '*' | '/' | '^',
    left: Evaluated,
    right: Evaluated,
    isSpelled: boolean,
  ): Evaluated => {
    switch (operator) {
      case '+':
        return rounded(() => left() + right());
      case '-':
        return rounded(() => left() - right());
      case '*':
        return rounded(() => left() * right());
      case '/':
        return rounded(() => left() / right());
      case '^':
        return isSpelled && round !== null
          ? () => {
              // a cube is two products, each of which is rounded
              const [base, exponent] = [left(), right()];
              const square = round(base * base);
              return exponent === 2 ? square : round(square * base);
            }
          : rounded(() => operate('^', left(), right(), isSpelled));
    }
  };
  return of(tree);
}
