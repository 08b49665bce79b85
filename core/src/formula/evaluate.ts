import { applyFunction, compare, operate, SPELLED_POWERS } from './arithmetic.ts';
import type { Expression } from './expression.ts';

/** The value of a leaf or of a call that is not a function of the notation. */
export type Meaning = (node: Expression) => number;

/** One operation that was done: where it stands, what went in and what came out. */
export interface Operation {
  readonly node: Expression;
  readonly inputs: readonly number[];
  readonly result: number;
}

/** Whether an exponent is the literal 2 or 3, for which the power is spelled out as a product. */
export function isSpelledPower(exponent: Expression): boolean {
  return exponent.kind === 'number' && SPELLED_POWERS.has(exponent.value);
}

/**
 * Evaluates a tree in the text's own order, with the arithmetic of a run.
 *
 * @param round rounds each result; the identity for double, Math.fround for single precision
 * @param done is told of every operation, in the order in which they are done
 */
export function evaluate(
  expression: Expression,
  meaning: Meaning,
  round: (x: number) => number = (x) => x,
  done?: (operation: Operation) => void,
): number {
  const tell = (node: Expression, inputs: readonly number[], exact: number): number => {
    const result = round(exact);
    done?.({ node, inputs, result });
    return result;
  };
  const value = (node: Expression): number => {
    switch (node.kind) {
      case 'number':
        return round(node.value);
      case 'name':
      case 'indexed':
        return round(meaning(node));
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
    }
  };
  return value(expression);
}
