import { derivative } from '../formula/derivative.ts';
import {
  bind,
  bound,
  type Bound,
  type Expression,
  type IndexedLeaf,
  type NameLeaf,
  number,
  type Tree,
} from '../formula/expression.ts';
import { type LeafMeaning, Meanings } from '../problem/meaning.ts';
import type { Block, Problem } from '../problem/problem.ts';

/** A component of the state, or the element of a family `ahead` of the running one. */
export type Moving =
  | { readonly kind: 'component'; readonly place: number }
  | { readonly kind: 'neighbour'; readonly block: Block; readonly ahead: number };

/** What a leaf of a problem's formula is, once its names are looked up and edge values are substituted. */
export type RhsLeaf =
  | { readonly kind: 'time' }
  /** A parameter or a constant of the notation by its name; null for a number that has none. */
  | { readonly kind: 'constant'; readonly name: string | null; readonly value: number }
  /** The index of the running element: `from` for the first. */
  | { readonly kind: 'position'; readonly from: number }
  | Moving
  /** How fast a component moves, where Newton's method asks for that. */
  | { readonly kind: 'tangent'; readonly of: Moving };

/** A formula of a problem over the components of the state. */
export type RhsTree = Tree<Bound<RhsLeaf>>;

function keyOf(leaf: RhsLeaf): string {
  switch (leaf.kind) {
    case 'time':
      return 'time';
    case 'constant':
      return `constant ${leaf.name ?? leaf.value}`;
    case 'position':
      return `position ${leaf.from}`;
    case 'component':
      return `component ${leaf.place}`;
    case 'neighbour':
      return `neighbour ${leaf.block.offset} ${leaf.ahead}`;
    case 'tangent':
      return `tangent ${keyOf(leaf.of)}`;
  }
}

function leafTree(leaf: RhsLeaf): RhsTree {
  return bound(leaf, keyOf(leaf));
}

/** Where a formula is: at one element of a block, in the loop over all of them, or in none. */
interface Around {
  readonly block: Block | null;
  /** The element, from 0; null for the running one. */
  readonly element: number | null;
}

/** Binds the names of formulas of a problem. */
export class RhsTrees {
  readonly #meanings: Meanings;

  constructor(problem: Problem) {
    this.#meanings = new Meanings(problem);
  }

  /** A formula at one element of a block, from 0; null for one that belongs to no family. */
  at(expression: Expression, block: Block | null, element: number): RhsTree {
    return this.#bound(expression, { block, element });
  }

  /** A formula of a family at the running element. */
  running(expression: Expression, block: Block): RhsTree {
    return this.#bound(expression, { block, element: null });
  }

  #bound(expression: Expression, around: Around): RhsTree {
    const variable = around.block?.unknown.range?.variable ?? null;
    return bind(expression, (leaf: NameLeaf | IndexedLeaf) =>
      this.#tree(this.#meanings.of(leaf, variable), around),
    );
  }

  #tree(meaning: LeafMeaning, { block, element }: Around): RhsTree {
    const first = block?.unknown.range?.from ?? 0;
    switch (meaning.kind) {
      case 'time':
      case 'constant':
      case 'component':
        return leafTree(meaning);
      case 'position':
        return leafTree(
          element === null
            ? { kind: 'position', from: first }
            : { kind: 'constant', name: null, value: first + element },
        );
      case 'given':
        return this.#bound(meaning.value, { block: null, element: 0 });
      case 'neighbour': {
        const ahead = first + meaning.shift - (meaning.block.unknown.range?.from ?? 0);
        if (element === null) return leafTree({ kind: 'neighbour', block: meaning.block, ahead });
        const index = element + ahead;
        if (index >= 0 && index < meaning.block.size)
          return leafTree({ kind: 'component', place: meaning.block.offset + index });
        const given = meaning.block.unknown.given.get(first + element + meaning.shift);
        return given === undefined
          ? leafTree({ kind: 'constant', name: null, value: NaN })
          : this.#bound(given, { block: null, element: 0 });
      }
    }
  }
}

/** The derivative of a formula along a motion of the state. */
export function rhsTangent(tree: RhsTree): RhsTree {
  return derivative(tree, ({ to }) =>
    to.kind === 'component' || to.kind === 'neighbour' ? leafTree({ kind: 'tangent', of: to }) : number(0),
  );
}

/** Which partial derivative: how often by time and by y, and whether that by y is applied to a vector. */
export interface PartialKind {
  readonly times: number;
  readonly values: number;
  /** What the derivative by y is applied to; null for the number itself, of a problem of one equation. */
  readonly along: number | null;
}

/**
 * A partial derivative of a right-hand side; one that is applied to a vector holds how fast each component moves along
 * it.
 */
export function partialRhs(tree: RhsTree, { times, values, along }: PartialKind): RhsTree {
  return along === null ? rhsPartial(tree, times, values) : rhsTangent(rhsPartial(tree, times, 0));
}

/** A partial derivative of a formula by time, and by the component of a problem of one equation. */
function rhsPartial(tree: RhsTree, times: number, values: number): RhsTree {
  const by = (kind: 'time' | 'component', of: RhsTree): RhsTree =>
    derivative(of, ({ to }) => number(to.kind === kind ? 1 : 0));
  let made = tree;
  for (let i = 0; i < times; i += 1) made = by('time', made);
  for (let i = 0; i < values; i += 1) made = by('component', made);
  return made;
}
