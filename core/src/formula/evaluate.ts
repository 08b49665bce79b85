import { type Arithmetic, roundedDoubles, SPELLED_POWERS } from './arithmetic.ts';
import type { Call, Leaf, Tree } from './expression.ts';

/** The value of a leaf, or of a call with primes. */
export type Meaning<L extends Leaf, V = number> = (node: L | Call<L>) => V;

/** One operation that was done: where it is, what went in and what came out. */
export interface Operation<V = number> {
  readonly node: Tree<Leaf>;
  readonly inputs: readonly V[];
  readonly result: V;
}

/** Whether an exponent is the literal 2 or 3, for which the power is spelled out as a product. */
export function isSpelledPower(exponent: Tree<Leaf>): boolean {
  return exponent.kind === 'number' && SPELLED_POWERS.has(exponent.value);
}

/**
 * Evaluates a tree in the text's own order, with the arithmetic of a run.
 *
 * @param done called after every operation, in order
 */
export function evaluateIn<L extends Leaf, V>(
  arithmetic: Arithmetic<V>,
  expression: Tree<L>,
  meaning: Meaning<L, V>,
  done?: (operation: Operation<V>) => void,
): V {
  const tell = (node: Tree<L>, inputs: readonly V[], result: V): V => {
    done?.({ node, inputs, result });
    return result;
  };
  const power = (base: V, exponent: Tree<L>, above: V): V => {
    if (!isSpelledPower(exponent) || exponent.kind !== 'number') return arithmetic.operate('^', base, above);
    const square = arithmetic.operate('*', base, base);
    return exponent.value === 2 ? square : arithmetic.operate('*', square, base);
  };
  const value = (node: Tree<L>): V => {
    switch (node.kind) {
      case 'number':
        return arithmetic.number(node);
      case 'negate':
        return arithmetic.negate(value(node.of));
      case 'binary': {
        const left = value(node.left);
        const right = value(node.right);
        const result =
          node.operator === '^'
            ? power(left, node.right, right)
            : arithmetic.operate(node.operator, left, right);
        return tell(node, [left, right], result);
      }
      case 'call': {
        if (node.primes > 0) return arithmetic.kept(meaning(node));
        const inputs = node.inputs.map(value);
        return tell(node, inputs, arithmetic.call(node.name, inputs));
      }
      case 'if': {
        const test = arithmetic.compare(node.test.relation, value(node.test.left), value(node.test.right));
        return value(test ? node.yes : node.no);
      }
      default:
        return arithmetic.kept(meaning(node));
    }
  };
  return value(expression);
}

const DOUBLES = roundedDoubles((x) => x);

/** Evaluates a tree in double precision, in the text's own order. */
export function evaluate<L extends Leaf>(expression: Tree<L>, meaning: Meaning<L>): number {
  return evaluateIn(DOUBLES, expression, meaning);
}
