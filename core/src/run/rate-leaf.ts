import type { IndexedLeaf, NameLeaf } from '../formula/expression.ts';
import type { LeafMeaning } from '../problem/meaning.ts';
import { Meanings } from '../problem/meaning.ts';
import type { Block, Problem } from '../problem/problem.ts';

/** A leaf of a rate, resolved for one element of a block. */
export type PlacedLeaf = Exclude<LeafMeaning, { kind: 'neighbour' } | { kind: 'position' }>;

/** Resolves leaves of expressions of a problem for single components, neighbours and edges included. */
export class Placing {
  readonly #meanings: Meanings;

  constructor(problem: Problem) {
    this.#meanings = new Meanings(problem);
  }

  /**
   * @param block the block whose expression holds the leaf; null for one that belongs to no family
   * @param element which element of the block, from 0
   */
  of(leaf: NameLeaf | IndexedLeaf, block: Block | null, element: number): PlacedLeaf {
    const range = block?.unknown.range ?? null;
    const meaning = this.#meanings.of(leaf, range?.variable ?? null);
    const position = (range?.from ?? 0) + element;
    if (meaning.kind === 'position') return { kind: 'constant', value: position };
    if (meaning.kind !== 'neighbour') return meaning;
    const { block: neighbour, shift } = meaning;
    const index = position + shift;
    const over = neighbour.unknown.range;
    if (over !== null && index >= over.from && index <= over.to)
      return { kind: 'component', place: neighbour.offset + index - over.from };
    const value = neighbour.unknown.given.get(index);
    if (value === undefined) return { kind: 'constant', value: NaN };
    return { kind: 'given', value };
  }
}
