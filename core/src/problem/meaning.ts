import { primed } from '../text/primes.ts';
import { CONSTANTS } from '../formula/functions.ts';
import type { Expression, IndexedLeaf, NameLeaf } from '../formula/expression.ts';
import { splitInto } from '../text/run-of-names.ts';
import { PlaceError, writing } from '../text/place.ts';
import { type Block, elementName, type Problem } from './problem.ts';

/** What a leaf of a right-hand side, an exact solution or a conserved quantity represents. */
export type LeafMeaning =
  | { readonly kind: 'time' }
  /** A parameter or a constant of the notation, by its name. */
  | { readonly kind: 'constant'; readonly name: string; readonly value: number }
  /** The index of the family around it, as a number. */
  | { readonly kind: 'position' }
  /** The one component of a block, or one fixed element of a family: a place in the state vector. */
  | { readonly kind: 'component'; readonly place: number }
  /** The element of a family at the current index plus a shift. */
  | { readonly kind: 'neighbour'; readonly block: Block; readonly shift: number }
  /** A value at the edge of a family, given by an expression. */
  | { readonly kind: 'given'; readonly value: Expression };

/** What the leaves of a problem mean: the parts of a Problem that matter for it. */
export type Naming = Pick<Problem, 'independent' | 'parameters' | 'blocks'>;

/** An index expression as `scale*i + shift`. */
export interface Affine {
  readonly scale: number;
  readonly shift: number;
}

/**
 * Reads an index such as `i-1` or `n+1` as scale*variable + shift.
 *
 * @throws PlaceError where it is not of that form
 */
export function affine(
  index: Expression,
  variable: string | null,
  constant: (leaf: NameLeaf) => number,
): Affine {
  switch (index.kind) {
    case 'number':
      return { scale: 0, shift: index.value };
    case 'name':
      return index.name === variable && index.primes === 0
        ? { scale: 1, shift: 0 }
        : { scale: 0, shift: constant(index) };
    case 'negate': {
      const of = affine(index.of, variable, constant);
      return { scale: -of.scale, shift: -of.shift };
    }
    case 'binary': {
      const left = affine(index.left, variable, constant);
      const right = affine(index.right, variable, constant);
      if (index.operator === '+') return { scale: left.scale + right.scale, shift: left.shift + right.shift };
      if (index.operator === '-') return { scale: left.scale - right.scale, shift: left.shift - right.shift };
      if (index.operator === '*' && left.scale * right.scale === 0)
        return {
          scale: left.scale * right.shift + right.scale * left.shift,
          shift: left.shift * right.shift,
        };
      if (index.operator === '/' && right.scale === 0)
        return { scale: left.scale / right.shift, shift: left.shift / right.shift };
      throw noIndex(index);
    }
    default:
      throw noIndex(index);
  }
}

function noIndex({ at }: Expression): PlaceError {
  return new PlaceError(at, 'an index must be an integer, or the running index plus or minus one');
}

/** Finds what leaves mean; the maps are made once for many leaves. */
export class Meanings {
  readonly #independent: string;
  readonly #constants = new Map<string, number>();
  readonly #blocks = new Map<string, Block>();

  constructor(naming: Naming) {
    this.#independent = naming.independent;
    for (const [constant, value] of CONSTANTS) this.#constants.set(constant, value);
    for (const parameter of naming.parameters) this.#constants.set(parameter.name, parameter.value);
    for (const block of naming.blocks) this.#blocks.set(`${block.unknown.name}/${block.derivative}`, block);
  }

  /**
   * @param variable the name of the running index, null outside a family
   * @throws PlaceError where the leaf means nothing, with what to write instead
   */
  of(leaf: NameLeaf | IndexedLeaf, variable: string | null): LeafMeaning {
    const block = this.#blocks.get(`${leaf.name}/${leaf.primes}`);
    if (leaf.kind === 'indexed') return this.#indexed(leaf, block, variable);
    if (block !== undefined) {
      const { range } = block.unknown;
      if (range === null) return { kind: 'component', place: block.offset };
      throw new PlaceError(leaf.at, `${leaf.name} is a family: write ${leaf.name}[${range.variable}]`);
    }
    if (leaf.primes > 0) throw new PlaceError(leaf.at, this.#strangeDerivative(leaf));
    if (leaf.name === variable) return { kind: 'position' };
    if (leaf.name === this.#independent) return { kind: 'time' };
    const value = this.#constants.get(leaf.name);
    if (value !== undefined) return { kind: 'constant', name: leaf.name, value };
    const { message, instead } = this.#unknownName(leaf.name);
    throw new PlaceError(leaf.at, message, instead === null ? [] : writing(leaf.at, instead));
  }

  #indexed(leaf: IndexedLeaf, block: Block | undefined, variable: string | null): LeafMeaning {
    const range = block?.unknown.range ?? null;
    if (block === undefined || range === null)
      throw new PlaceError(
        leaf.at,
        `${leaf.name} is not a family and takes no index; a family is written u[i]' = ... for i = 1..n`,
      );
    const { scale, shift } = affine(leaf.index, variable, (name) => {
      const value = this.#constants.get(name.name);
      if (value === undefined || name.primes > 0)
        throw new PlaceError(name.at, `${name.name} is not a constant; an index must be constant`);
      return value;
    });
    if (!Number.isInteger(shift) || (scale !== 0 && scale !== 1))
      throw new PlaceError(
        leaf.index.at,
        'an index must be an integer, or the running index plus or minus one',
      );
    if (scale === 1) return { kind: 'neighbour', block, shift };
    if (shift >= range.from && shift <= range.to)
      return { kind: 'component', place: block.offset + shift - range.from };
    const given = leaf.primes === 0 ? block.unknown.given.get(shift) : undefined;
    if (given === undefined) throw new PlaceError(leaf.at, missingEdge(block, shift));
    return { kind: 'given', value: given };
  }

  #strangeDerivative(leaf: NameLeaf): string {
    const known = this.#blocks.get(`${leaf.name}/0`);
    if (known === undefined)
      return `${leaf.name} has no equation, so ${primed(leaf.name, leaf.primes)} is not known`;
    return `only derivatives below the highest one, ${primed(leaf.name, known.unknown.order)}, are allowed here`;
  }

  #unknownName(name: string): { readonly message: string; readonly instead: string | null } {
    const known = [
      ...this.#constants.keys(),
      ...[...this.#blocks.values()].map((b) => b.unknown.name),
      this.#independent,
    ];
    const otherCase = known.find((other) => other.toLowerCase() === name.toLowerCase());
    if (otherCase !== undefined)
      return {
        message: `${name} is not known, but ${otherCase} is; names are case-sensitive`,
        instead: otherCase,
      };
    const product = splitInto(name, known)?.join('*');
    if (product !== undefined)
      return { message: `${name} is not known; to multiply write ${product}`, instead: product };
    if (name === 't')
      return {
        message: `${name} is not known; the interval names ${this.#independent} as the independent variable`,
        instead: this.#independent,
      };
    if (/^d\d+$/.test(name))
      return {
        message: `${name} is not known; a power of ten is written ${name.replace('d', 'e')}, as in 1.5${name.replace('d', 'e')}`,
        instead: null,
      };
    return {
      message: `${name} is not known; give it a value on a line of its own, such as ${name} = 1`,
      instead: null,
    };
  }
}

export function missingEdge(block: Block, index: number): string {
  return `${elementName(block, index)} lies outside the family and has no value; add a line ${block.unknown.name}[${index}] = ...`;
}
