import { type Expression, number, rewrite, type Tree } from '../formula/expression.ts';
import type { RateLeaf, RateTree } from '../compile/program/rate-tree.ts';
import { rounded } from '../text/number-text.ts';
import { componentOf, type StepNames, valueOf } from './values.ts';

/** Digits of numbers that are put into a formula. */
export const DIGITS = 7;

/** A number as it is put into a formula: rounded, and negative ones as such, so that they get brackets. */
export function shown(value: number): Expression {
  return number(rounded(value, DIGITS));
}

/**
 * A formula of a method with numbers in place of its names and of its calls of f, for one component; numbers of the text stay.
 *
 * @returns null where some part has no value
 */
export function withNumbers(
  expression: Expression,
  component: number,
  names: StepNames,
  isCall: (name: string) => boolean,
): Expression | null {
  const missing: Expression[] = [];
  const made = rewrite(expression, (node) => {
    const isRate = node.kind === 'call' && (node.primes > 0 || isCall(node.name));
    if (node.kind !== 'name' && node.kind !== 'indexed' && !isRate) return null;
    const value = valueOf(node, names);
    if (value === null || !Number.isFinite(componentOf(value, component))) {
      missing.push(node);
      return node;
    }
    return shown(componentOf(value, component));
  });
  return missing.length === 0 ? made : null;
}

/** A rate of the problem with numbers in place of its names. */
export function rateWithNumbers(tree: RateTree, leaf: (to: RateLeaf) => number): Expression {
  const again = (node: Tree<Extract<RateTree, { readonly kind: 'bound' }>>): Expression => {
    switch (node.kind) {
      case 'number':
        return node;
      case 'bound':
        return shown(leaf(node.to));
      case 'negate':
        return { ...node, of: again(node.of) };
      case 'binary':
        return { ...node, left: again(node.left), right: again(node.right) };
      case 'call':
        return { ...node, inputs: node.inputs.map(again) };
      case 'if':
        return {
          ...node,
          test: { ...node.test, left: again(node.test.left), right: again(node.test.right) },
          yes: again(node.yes),
          no: again(node.no),
        };
    }
  };
  return again(tree);
}
