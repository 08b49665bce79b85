import { count } from '../text/number-text.ts';
import { PlaceError, type Span } from '../text/place.ts';
import { childrenOf, type IndexedLeaf, type Leaf, type NameLeaf, partsOf, type Tree } from './expression.ts';

/** How large a tree is when it is written out, with every shared part as often as it occurs. */
export interface TreeSize {
  /** Operations and leaves. */
  readonly terms: number;
  /** The longest way from the root to a leaf. */
  readonly depth: number;
}

/** Most terms of a formula that was made from others; one that is typed is bounded by the length of a text. */
export const MAX_TERMS = 4_000;
/** Longest way from the root of a formula to a leaf; a sum of n terms is n deep. */
export const DEEPEST_TREE = 1_500;

const known = new WeakMap<Tree<Leaf>, TreeSize>();
const LEAF: TreeSize = { terms: 1, depth: 0 };

/**
 * Measures a tree. Trees that were put together share parts, so that forty lines may represent 2^40 terms: every
 * part is visited once, and its measure kept.
 */
export function measure(tree: Tree<Leaf>): TreeSize {
  const ready = known.get(tree);
  if (ready !== undefined) return ready;
  const parts = childrenOf(tree);
  if (parts.length === 0) return LEAF;
  let terms = 1;
  let depth = 0;
  for (const part of parts) {
    const of = measure(part);
    terms += of.terms;
    depth = Math.max(depth, of.depth);
  }
  const made = { terms, depth: depth + 1 };
  known.set(tree, made);
  return made;
}

/** What a formula was made for, as a complaint about its size tells it. */
export interface Origin {
  readonly at: Span;
  /** What grows, as in "the derivative of this formula". */
  readonly what: string;
  readonly remedy?: string;
}

/**
 * A formula that was made from others, when it can be worked with.
 *
 * @throws PlaceError where it has more than MAX_TERMS terms or is deeper than DEEPEST_TREE
 */
export function bounded<T extends Tree<Leaf>>(tree: T, { at, what, remedy = 'shorten it' }: Origin): T {
  const { terms, depth } = measure(tree);
  if (terms > MAX_TERMS)
    throw new PlaceError(at, `${what} has more than ${count(MAX_TERMS)} terms; ${remedy}`);
  if (depth > DEEPEST_TREE)
    throw new PlaceError(at, `${what} has more than ${count(DEEPEST_TREE)} nested operations; ${remedy}`);
  return tree;
}

/** Refuses a tree that is too deep to be walked by calls; it is looked at without any. */
export function refuseDeep(expression: Tree<NameLeaf | IndexedLeaf>): void {
  const open: { readonly node: Tree<NameLeaf | IndexedLeaf>; readonly depth: number }[] = [
    { node: expression, depth: 1 },
  ];
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const { node, depth } = next;
    if (depth > DEEPEST_TREE)
      throw new PlaceError(node.at, `a formula has at most ${DEEPEST_TREE} nested operations`);
    for (const part of partsOf(node)) open.push({ node: part, depth: depth + 1 });
  }
}
