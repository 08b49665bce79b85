import { applyFunction, compare, operate } from './arithmetic.ts';
import { isSpelledPower } from './evaluate.ts';
import type { Binary, Leaf, Tree } from './expression.ts';

/** A value in double precision, and a bound for what rounding has done to it. */
export interface Bounded {
  readonly value: number;
  readonly error: number;
}

const UNIT = 2 ** -53;
/** Part of a value by which it is moved to see how a function moves. */
const SEEN = 1e-7;

/** A result of one operation: what came in with its inputs, and its own rounding. */
function rounded(value: number, inherited: number): Bounded {
  return { value, error: inherited + UNIT * Math.abs(value) };
}

/**
 * Evaluates a tree in double precision with a running bound for its rounding error. A function adds one unit of rounding
 * of its own, and what its inputs' errors do to it by evaluating it at both ends.
 *
 * Source: N. J. Higham, Accuracy and Stability of Numerical Algorithms (2nd ed., 2002), section 3.3.
 *
 * @param leaf the value of a leaf, and how far it may be off
 * @example 1e6 and 0.3 added and 1e6 taken off again: the error is 2^-53 * 1e6, though the value is 0.3
 */
export function runningError<L extends Leaf>(tree: Tree<L>, leaf: (node: L) => Bounded): Bounded {
  const of = (node: Tree<L>): Bounded => {
    switch (node.kind) {
      case 'number':
        return { value: node.value, error: 0 };
      case 'negate': {
        const inner = of(node.of);
        return { value: -inner.value, error: inner.error };
      }
      case 'binary': {
        const [a, b] = [of(node.left), of(node.right)];
        const value = operate(
          node.operator,
          a.value,
          b.value,
          node.operator === '^' && isSpelledPower(node.right),
        );
        return rounded(value, inheritedBy(node, [a, b], value));
      }
      case 'call': {
        const inputs = node.inputs.map(of);
        const value = applyFunction(
          node.name,
          inputs.map((input) => input.value),
        );
        return rounded(
          value,
          moved(inputs, (at) => applyFunction(node.name, at), value),
        );
      }
      case 'if': {
        const test = compare(node.test.relation, of(node.test.left).value, of(node.test.right).value);
        return of(test ? node.yes : node.no);
      }
      default:
        return leaf(node);
    }
  };
  return of(tree);
}

/** The error of an operation that comes from those of its inputs. */
function inheritedBy<L extends Leaf>(
  { operator, right }: Binary<L>,
  [a, b]: readonly [Bounded, Bounded],
  value: number,
): number {
  switch (operator) {
    case '+':
    case '-':
      return a.error + b.error;
    case '*':
      return Math.abs(a.value) * b.error + Math.abs(b.value) * a.error;
    case '/':
      return (a.error + Math.abs(value) * b.error) / Math.abs(b.value);
    case '^':
      return moved([a, b], ([x = NaN, y = NaN]) => operate('^', x, y, isSpelledPower(right)), value);
  }
}

/** How far a function moves when its inputs do by their errors. */
function moved(inputs: readonly Bounded[], at: (values: readonly number[]) => number, value: number): number {
  let sum = 0;
  for (const [i, { error }] of inputs.entries()) {
    if (error === 0) continue;
    const values = inputs.map((input) => input.value);
    // by more than rounding, so that a difference of values is one of values
    const by = Math.max(error, SEEN * Math.abs(inputs[i]!.value));
    const shifted = (sign: number): number =>
      Math.abs(at(values.map((v, k) => (k === i ? v + sign * by : v))) - value);
    const most = (Math.max(shifted(1), shifted(-1)) * error) / by;
    sum += Number.isFinite(most) ? most : 0;
  }
  return sum;
}
