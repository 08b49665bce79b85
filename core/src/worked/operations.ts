import type { Arithmetic } from '../formula/arithmetic.ts';
import { evaluateIn } from '../formula/evaluate.ts';
import { bound, type Bound, type Tree } from '../formula/expression.ts';

/** Rounds of operations that are shown, at most. */
const MOST = 12;

/** The number that a tree is, if it is nothing more; null for a formula. */
function numberOf<V>(tree: Tree<Bound<V>>, arithmetic: Arithmetic<V>): { readonly value: V } | null {
  if (tree.kind === 'bound') return { value: tree.to };
  if (tree.kind === 'number') return { value: arithmetic.number(tree) };
  const of = tree.kind === 'negate' ? numberOf(tree.of, arithmetic) : null;
  return of === null ? null : { value: arithmetic.negate(of.value) };
}

/** The same formula after one round: every operation on two numbers has been done. */
function afterOneRound<V>(tree: Tree<Bound<V>>, arithmetic: Arithmetic<V>): Tree<Bound<V>> {
  const isNumber = (part: Tree<Bound<V>>): boolean => numberOf(part, arithmetic) !== null;
  const again = (part: Tree<Bound<V>>): Tree<Bound<V>> => afterOneRound(part, arithmetic);
  const done = (): Tree<Bound<V>> =>
    bound(
      evaluateIn(arithmetic, tree, (node) => {
        if (node.kind !== 'bound') throw new Error('a formula of numbers has no other leaves');
        return node.to;
      }),
      '',
    );
  if (isNumber(tree)) return tree;
  switch (tree.kind) {
    case 'negate':
      return { ...tree, of: again(tree.of) };
    case 'binary':
      return isNumber(tree.left) && isNumber(tree.right)
        ? done()
        : { ...tree, left: again(tree.left), right: again(tree.right) };
    case 'call':
      return tree.inputs.every(isNumber) ? done() : { ...tree, inputs: tree.inputs.map(again) };
    case 'if': {
      const { test } = tree;
      const [left, right] = [numberOf(test.left, arithmetic), numberOf(test.right, arithmetic)];
      if (left !== null && right !== null)
        return arithmetic.compare(test.relation, left.value, right.value) ? tree.yes : tree.no;
      return { ...tree, test: { ...test, left: again(test.left), right: again(test.right) } };
    }
    default:
      return tree;
  }
}

/**
 * A formula of numbers, and what it becomes round by round as the operations in it are done; the last one is not yet a
 * number. Of a long formula the first rounds alone.
 */
export function operationsOf<V>(tree: Tree<Bound<V>>, arithmetic: Arithmetic<V>): readonly Tree<Bound<V>>[] {
  const trees = [tree];
  for (let here = tree; trees.length < MOST;) {
    const next = afterOneRound(here, arithmetic);
    if (numberOf(next, arithmetic) !== null) break;
    trees.push(next);
    here = next;
  }
  return trees;
}
