import { applyFunction, compare, operate, SPELLED_POWERS } from './arithmetic.ts';
import type { Call, Leaf, Tree } from './expression.ts';

/** The value of a leaf, or of a call with primes. */
export type Meaning<L extends Leaf> = (node: L | Call<L>) => number;

/** One operation that was done: where it is, what went in and what came out. */
export interface Operation {
  readonly node: Tree<Leaf>;
  readonly inputs: readonly number[];
  readonly result: number;
}

/** Whether an exponent is the literal 2 or 3, for which the power is spelled out as a product. */
export function isSpelledPower(exponent: Tree<Leaf>): boolean {
  return exponent.kind === 'number' && SPELLED_POWERS.has(exponent.value);
}

/**
 * Evaluates a tree in the text's own order, with the arithmetic of a run.
 *
 * @param round rounds each result; the identity for double, Math.fround for single precision
 * @param done called after every operation, in order
 */
export function evaluate<L extends Leaf>(
  expression: Tree<L>,
  meaning: Meaning<L>,
  round: (x: number) => number = (x) => x,
  done?: (operation: Operation) => void,
): number {
  const tell = (node: Tree<L>, inputs: readonly number[], exact: number): number => {
    const result = round(exact);
    done?.({ node, inputs, result });
    return result;
  };
  const value = (node: Tree<L>): number => {
    switch (node.kind) {
      case 'number':
        return round(node.value);
      case 'negate':
        return -value(node.of);
      case 'binary': {
        const left = value(node.left);
        const spelled = node.operator === '^' && isSpelledPower(node.right);
        const right = value(node.right);
        if (spelled && right === 3) return tell(node, [left, right], round(left * left) * left);
        return tell(node, [left, right], operate(node.operator, left, right, spelled));
      }
      case 'call': {
        if (node.primes > 0) return round(meaning(node));
        const inputs = node.inputs.map(value);
        return tell(node, inputs, applyFunction(node.name, inputs));
      }
      case 'if': {
        const test = compare(node.test.relation, value(node.test.left), value(node.test.right));
        return value(test ? node.yes : node.no);
      }
      default:
        return round(meaning(node));
    }
  };
  return value(expression);
}
