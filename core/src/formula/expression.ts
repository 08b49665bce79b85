import type { Span } from '../text/place.ts';

/** The arithmetic operators; `^` is a power. */
export type Operator = '+' | '-' | '*' | '/' | '^';

/** The comparisons that may be in `if(a < b, x, y)`. */
export type Relation = '<' | '<=' | '>' | '>=' | '==' | '!=';

export interface NumberLeaf {
  readonly kind: 'number';
  readonly value: number;
  /** As it is typed, where it has more digits than a double keeps. */
  readonly digits?: string;
  readonly at: Span;
}

/** A name, with the primes behind it: `x` or `x''`. */
export interface NameLeaf {
  readonly kind: 'name';
  readonly name: string;
  readonly primes: number;
  readonly at: Span;
}

/** A name with an index: `u[i-1]`, `y[n+1]`, `x'[i]` is written `x[i]'`. */
export interface IndexedLeaf {
  readonly kind: 'indexed';
  readonly name: string;
  readonly primes: number;
  readonly index: Expression;
  readonly at: Span;
}

/** A leaf whose meaning has been found; what it can be bound to is for a later room to say. */
export interface Bound<B> {
  readonly kind: 'bound';
  readonly to: B;
  /** The same for leaves that mean the same. */
  readonly key: string;
  readonly at: Span;
}

export type Leaf = NameLeaf | IndexedLeaf | Bound<unknown>;

export interface Negation<L extends Leaf> {
  readonly kind: 'negate';
  readonly of: Tree<L>;
  readonly at: Span;
}

export interface Binary<L extends Leaf> {
  readonly kind: 'binary';
  readonly operator: Operator;
  readonly left: Tree<L>;
  readonly right: Tree<L>;
  readonly at: Span;
}

/** `sin(x)`, and in a text also `f'(t, y)` of a method or `x(0)` of a problem: who reads it decides. */
export interface Call<L extends Leaf> {
  readonly kind: 'call';
  readonly name: string;
  readonly primes: number;
  readonly inputs: readonly Tree<L>[];
  readonly at: Span;
  readonly nameAt: Span;
}

export interface Conditional<L extends Leaf> {
  readonly kind: 'if';
  readonly test: Comparison<L>;
  readonly yes: Tree<L>;
  readonly no: Tree<L>;
  readonly at: Span;
}

export interface Comparison<L extends Leaf> {
  readonly relation: Relation;
  readonly left: Tree<L>;
  readonly right: Tree<L>;
  readonly at: Span;
}

/**
 * A formula: one node for each operation, in the text's own order. Brackets leave no node, they only shape the
 * tree. `at` is the place in the text.
 */
export type Tree<L extends Leaf> = NumberLeaf | L | Negation<L> | Binary<L> | Call<L> | Conditional<L>;

/** A formula as it was written, its names not yet looked up. */
export type Expression = Tree<NameLeaf | IndexedLeaf>;

/** The parts of a node that are trees of the same leaves, in the order of the text. */
export function childrenOf<L extends Leaf>(tree: Tree<L>): readonly Tree<L>[] {
  switch (tree.kind) {
    case 'negate':
      return [tree.of];
    case 'binary':
      return [tree.left, tree.right];
    case 'call':
      return tree.inputs;
    case 'if':
      return [tree.test.left, tree.test.right, tree.yes, tree.no];
    default:
      return [];
  }
}

/** The parts of a node that are expressions themselves, the index of a name among them. */
export function partsOf(expression: Expression): readonly Expression[] {
  return expression.kind === 'indexed' ? [expression.index] : childrenOf(expression);
}

/** Calls `visit` for the node and all below it, in the order of the text. */
export function walk(expression: Expression, visit: (node: Expression) => void): void {
  visit(expression);
  for (const part of partsOf(expression)) walk(part, visit);
}

/** Whether some node of the tree answers to `is`. */
export function some(expression: Expression, is: (node: Expression) => boolean): boolean {
  return is(expression) || partsOf(expression).some((part) => some(part, is));
}

/** What the leaves of a tree are bound to, in its order. */
export function meaningsOf<B>(tree: Tree<Bound<B>>): readonly B[] {
  return tree.kind === 'bound' ? [tree.to] : childrenOf(tree).flatMap((part) => meaningsOf(part));
}

const NOWHERE: Span = { from: 0, to: 0 };

/** A number as a node; a negative one as the negation of a positive one, as it would be written. */
export function number(value: number, at: Span = NOWHERE): Tree<never> {
  return value < 0 || Object.is(value, -0)
    ? { kind: 'negate', of: { kind: 'number', value: -value, at }, at }
    : { kind: 'number', value, at };
}

export function name(text: string, primes = 0, at: Span = NOWHERE): NameLeaf {
  return { kind: 'name', name: text, primes, at };
}

export function bound<B>(to: B, key: string, at: Span = NOWHERE): Bound<B> {
  return { kind: 'bound', to, key, at };
}

export function binary<L extends Leaf>(
  operator: Operator,
  left: Tree<L>,
  right: Tree<L>,
  at: Span = NOWHERE,
): Tree<L> {
  return { kind: 'binary', operator, left, right, at };
}

export function negate<L extends Leaf>(of: Tree<L>, at: Span = NOWHERE): Tree<L> {
  return { kind: 'negate', of, at };
}

export function call<L extends Leaf>(text: string, inputs: readonly Tree<L>[], at: Span = NOWHERE): Tree<L> {
  return { kind: 'call', name: text, primes: 0, inputs, at, nameAt: at };
}

/** The same node with other parts in place of its own. */
function rebuilt<L extends Leaf, M extends Leaf>(
  tree: Exclude<Tree<L>, L>,
  again: (part: Tree<L>) => Tree<M>,
): Tree<M> {
  switch (tree.kind) {
    case 'number':
      return tree;
    case 'negate':
      return { kind: 'negate', of: again(tree.of), at: tree.at };
    case 'binary':
      return {
        kind: 'binary',
        operator: tree.operator,
        left: again(tree.left),
        right: again(tree.right),
        at: tree.at,
      };
    case 'call':
      return {
        kind: 'call',
        name: tree.name,
        primes: tree.primes,
        inputs: tree.inputs.map(again),
        at: tree.at,
        nameAt: tree.nameAt,
      };
    case 'if':
      return {
        ...tree,
        test: { ...tree.test, left: again(tree.test.left), right: again(tree.test.right) },
        yes: again(tree.yes),
        no: again(tree.no),
      };
  }
}

/** The same tree with other trees in place of its leaves. */
export function mapLeaves<B, M extends Leaf>(tree: Tree<Bound<B>>, leaf: (to: B) => Tree<M>): Tree<M> {
  return tree.kind === 'bound' ? leaf(tree.to) : rebuilt(tree, (part) => mapLeaves(part, leaf));
}

/**
 * The same tree with some nodes exchanged: where `change` answers null the node stays and its parts are asked. What has no
 * changed part is the same object as before.
 */
export function rewrite(expression: Expression, change: (node: Expression) => Expression | null): Expression {
  const again = (node: Expression): Expression => {
    const changed = change(node);
    if (changed !== null) return changed;
    if (node.kind === 'name') return node;
    if (node.kind === 'indexed') {
      const index = again(node.index);
      return index === node.index ? node : { ...node, index };
    }
    const made = rebuilt(node, again);
    const parts = childrenOf(node);
    return childrenOf(made).every((part, i) => part === parts[i]) ? node : made;
  };
  return again(expression);
}

/**
 * The same tree with every name bound to its meaning.
 *
 * @param leaf the meaning of a name
 * @param called what represents a call that is not a function of the notation; null where it is one
 */
export function bind<M extends Leaf>(
  expression: Expression,
  leaf: (node: NameLeaf | IndexedLeaf) => Tree<M>,
  called: (node: Call<NameLeaf | IndexedLeaf>) => Tree<M> | null = () => null,
): Tree<M> {
  const again = (node: Expression): Tree<M> => {
    if (node.kind === 'name' || node.kind === 'indexed') return leaf(node);
    return (node.kind === 'call' ? called(node) : null) ?? rebuilt(node, again);
  };
  return again(expression);
}
