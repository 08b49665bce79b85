import { isSpelledPower } from '../../formula/evaluate.ts';
import { type Binary, type Bound, childrenOf, type Tree } from '../../formula/expression.ts';
import type { CodeNode } from '../nodes/code-node.ts';
import {
  BITSELECT,
  type Bytes,
  type Lanes,
  LANES,
  load,
  OP,
  REPLACE_SECOND,
  SPLAT,
  store,
  TYPE,
  unsigned,
  vector,
} from './encode.ts';

/** What a leaf of the body of an inner loop is: an element of an array near the running index, or the index itself. */
export type ElementLeaf =
  | { readonly kind: 'element'; readonly array: string; readonly shift: number }
  | { readonly kind: 'position'; readonly from: number };

/** A leaf of a formula as a kernel sees it; a scalar is computed before the loop. */
type KernelLeaf = ElementLeaf | { readonly kind: 'scalar'; readonly node: CodeNode };

/** A formula whose values along the loop are written to an array. */
export interface KernelFormula {
  readonly tree: Tree<Bound<unknown>>;
  /** What the parts of the tree are below which nothing is looked at. */
  readonly leaves: ReadonlyMap<Tree<Bound<unknown>>, KernelLeaf>;
  readonly into: ArrayPlace;
  /** Powers whose base is put aside. */
  readonly powers: number;
}

/** An array from one of its elements on, which belongs to running index 0. */
export interface ArrayPlace {
  readonly array: string;
  readonly offset: number;
}

/**
 * An inner loop `for i = from..to-1: out[i] = expression; other[i] = ...` as a WebAssembly function, two elements at a
 * time. It takes from, to, the addresses of what is written, those of the arrays that are read and then the scalars.
 */
export interface Kernel {
  /** Types of the inputs and body of the function. */
  readonly type: Bytes;
  readonly code: Bytes;
  /** Where the values of the formulas go, in their order. */
  readonly outputs: readonly ArrayPlace[];
  /** Arrays in the order of their addresses, with the smallest shift that is read of each. */
  readonly arrays: readonly { readonly name: string; readonly least: number }[];
  /** The scalars, in their order. */
  readonly scalars: readonly CodeNode[];
}

const FUNCTIONS: ReadonlyMap<string, Lanes> = new Map<string, Lanes>([
  ['sqrt', LANES.sqrt],
  ['abs', LANES.abs],
  ['floor', LANES.floor],
  ['min', LANES.min],
  ['max', LANES.max],
]);

const OPERATORS = { '+': LANES.add, '-': LANES.subtract, '*': LANES.multiply, '/': LANES.divide } as const;

/** Whether a node is an operation that has an instruction of its own; others stay with the loop in JavaScript. */
function isPlain<B>(node: Tree<Bound<B>>): boolean {
  if (node.kind === 'call') return node.primes === 0 && FUNCTIONS.has(node.name);
  return !(node.kind === 'binary' && node.operator === '^') || isSpelledPower(node.right);
}

/**
 * A formula as a kernel needs it.
 *
 * @param element tells leaves that change along the loop
 * @param scalar the node of a part that does not, to be computed before the loop
 * @returns null where some operation has no instruction of its own
 */
export function kernelFormula<B>(
  tree: Tree<Bound<B>>,
  into: ArrayPlace,
  element: (leaf: B) => ElementLeaf | null,
  scalar: (part: Tree<Bound<B>>) => CodeNode,
): KernelFormula | null {
  const moving = new Map<Tree<Bound<B>>, boolean>();
  const moves = (node: Tree<Bound<B>>): boolean => {
    const known = moving.get(node);
    if (known !== undefined) return known;
    const found = node.kind === 'bound' ? element(node.to) !== null : childrenOf(node).some(moves);
    moving.set(node, found);
    return found;
  };
  const isPlainThroughout = (node: Tree<Bound<B>>): boolean =>
    !moves(node) || (isPlain(node) && childrenOf(node).every(isPlainThroughout));
  const powers = (node: Tree<Bound<B>>): number => {
    if (!moves(node)) return 0;
    const own = node.kind === 'binary' && node.operator === '^' ? 1 : 0;
    return childrenOf(node).reduce((sum, part) => sum + powers(part), own);
  };
  if (!isPlainThroughout(tree)) return null;
  const leaves = new Map<Tree<Bound<unknown>>, KernelLeaf>();
  const collect = (node: Tree<Bound<B>>): void => {
    if (!moves(node)) {
      if (node.kind !== 'number') leaves.set(node, { kind: 'scalar', node: scalar(node) });
      return;
    }
    const leaf = node.kind === 'bound' ? element(node.to) : null;
    if (leaf !== null) leaves.set(node, leaf);
    else
      for (const part of childrenOf(node))
        if (!(node.kind === 'binary' && node.operator === '^' && part === node.right)) collect(part);
  };
  collect(tree);
  return { tree, leaves, into, powers: powers(tree) };
}

/** Whether one formula writes over what another one reads at other places along the loop. */
function isDisturbed(formulas: readonly KernelFormula[]): boolean {
  const reads = formulas.flatMap(({ leaves }) => [...leaves.values()]);
  return formulas.some(({ into: { array, offset } }) =>
    reads.some((leaf) => leaf.kind === 'element' && leaf.array === array && leaf.shift !== offset),
  );
}

/**
 * Compiles the body of an inner loop, operation by operation in the text's own order: formulas that are computed one
 * after the other for each element; a later one may hold the value of an earlier one there.
 *
 * @returns null where the formulas cannot be computed in one loop, or there are more powers than can be put aside
 */
export function compileKernel(formulas: readonly KernelFormula[]): Kernel | null {
  const powers = formulas.reduce((sum, formula) => sum + formula.powers, 0);
  return powers > MAX_ASIDE || isDisturbed(formulas) ? null : new KernelCode(formulas).compile();
}

class KernelCode {
  readonly #formulas: readonly KernelFormula[];
  readonly #arrays = new Map<string, { least: number }>();
  readonly #scalars: CodeNode[] = [];
  /** The place among the scalars of each part that does not move. */
  readonly #places = new Map<Tree<Bound<unknown>>, number>();
  /** How many numbers of each kind are put aside within one element. */
  #aside = 0;
  /** Elements between the running index and the one that is being computed. */
  #ahead = 0;
  /** The formula that is being computed. */
  #now = 0;
  /** Elements that the present turn has read, by array and place, with the locals that hold them. */
  readonly #read = new Map<string, number>();

  constructor(formulas: readonly KernelFormula[]) {
    this.#formulas = formulas;
  }

  compile(): Kernel {
    this.#formulas.forEach((formula, k) => this.#collect(formula, k));
    const arrays = [...this.#arrays].map(([name, { least }]) => ({ name, least }));
    const outputs = this.#formulas.map(({ into }) => into);
    const inputs = [
      TYPE.i32,
      TYPE.i32,
      ...outputs.map(() => TYPE.i32),
      ...arrays.map(() => TYPE.i32),
      ...this.#scalars.map(() => TYPE.f64),
    ];
    const first = inputs.length;
    const before = 2 + outputs.length;
    const reads = this.#readsOfTurn(UNROLLED);
    const asideTwo = MAX_ASIDE + outputs.length + reads;
    const twos = this.#scalars.length + asideTwo;
    // locals: the running index, the scalars twice over, and what is put aside of each kind
    const layout: Layout = {
      outputs: 2,
      arrays: new Map(arrays.map(({ name, least }, k) => [name, { local: before + k, least }])),
      scalars: before + arrays.length,
      index: first,
      pointers: [...outputs, ...arrays].map((_, k) => 2 + k),
      pairs: first + 1,
      two: asideFrom(first + 1 + this.#scalars.length, outputs.length),
      one: asideFrom(first + 1 + twos, outputs.length),
    };
    const spread = this.#scalars.flatMap((_, k) => [
      ...OP.get(layout.scalars + k),
      ...SPLAT,
      ...OP.set(layout.pairs + k),
    ]);
    const body = [
      ...spread,
      ...OP.get(0),
      ...OP.set(layout.index),
      ...layout.pointers.flatMap((pointer) => [
        ...OP.get(pointer),
        ...OP.get(0),
        ...OP.i32(3),
        ...OP.i32Shl,
        ...OP.i32Add,
        ...OP.set(pointer),
      ]),
      ...this.#loop(layout, true, UNROLLED),
      ...this.#loop(layout, true),
      ...this.#loop(layout, false),
    ];
    const locals = vector([
      [...unsigned(1), TYPE.i32],
      [...unsigned(twos), TYPE.v128],
      [...unsigned(asideTwo), TYPE.f64],
    ]);
    const content = [...locals, ...body, ...OP.end];
    return {
      type: [0x60, ...vector(inputs.map((type) => [type])), ...vector([])],
      code: [...unsigned(content.length), ...content],
      outputs,
      arrays,
      scalars: this.#scalars,
    };
  }

  /** Notes which arrays and scalars a formula needs; values of earlier formulas need no array. */
  #collect({ leaves }: KernelFormula, k: number): void {
    for (const [part, leaf] of leaves)
      if (leaf.kind === 'scalar') {
        const known = this.#scalars.findIndex(({ key }) => key === leaf.node.key);
        this.#places.set(part, known < 0 ? this.#scalars.push(leaf.node) - 1 : known);
      } else if (leaf.kind === 'element' && this.#maker(leaf.array, k) < 0) {
        const known = this.#arrays.get(leaf.array);
        this.#arrays.set(leaf.array, { least: Math.min(known?.least ?? leaf.shift, leaf.shift) });
      }
  }

  /** Elements of arrays that one turn of a loop reads, at most: each pair of them once. */
  #readsOfTurn(pairs: number): number {
    const places = new Set<string>();
    for (const { leaves } of this.#formulas)
      for (const leaf of leaves.values())
        if (leaf.kind === 'element')
          for (let k = 0; k < pairs; k += 1) places.add(`${leaf.array} ${leaf.shift + 2 * k}`);
    return places.size;
  }

  /** The last formula before the k-th whose values go to an array; -1 where none do. */
  #maker(array: string, k: number): number {
    return this.#formulas.findLastIndex(({ into }, earlier) => earlier < k && into.array === array);
  }

  /** While there are enough elements left: compute and store them, two at a time and `pairs` times, or one. */
  #loop(layout: Layout, isTwo: boolean, pairs = 1): Bytes {
    const { index, pointers } = layout;
    const count = isTwo ? 2 * pairs : 1;
    this.#read.clear();
    const elements = Array.from({ length: pairs }, (_, k) => this.#element(layout, isTwo, k)).flat();
    this.#ahead = 0;
    return [
      ...OP.block,
      ...OP.loop,
      ...OP.get(index),
      ...OP.i32(count),
      ...OP.i32Add,
      ...OP.get(1),
      ...OP.i32GreaterSigned,
      ...OP.brIf(1),
      ...elements,
      ...moved(index, count),
      ...pointers.flatMap((pointer) => moved(pointer, 8 * count)),
      ...OP.br(0),
      ...OP.end,
      ...OP.end,
    ];
  }

  /** All formulas at one element, or at one pair of them. */
  #element(layout: Layout, isTwo: boolean, pair: number): Bytes {
    this.#aside = 0;
    this.#ahead = 2 * pair;
    const { made } = isTwo ? layout.two : layout.one;
    return this.#formulas.flatMap((formula, k) => {
      this.#now = k;
      return [
        ...OP.get(layout.outputs + k),
        ...this.#value(formula.tree, layout, isTwo),
        ...OP.tee(made + k),
        ...store(isTwo, 16 * pair),
      ];
    });
  }

  #value(node: Tree<Bound<unknown>>, layout: Layout, isTwo: boolean): Bytes {
    const value = (part: Tree<Bound<unknown>>): Bytes => this.#value(part, layout, isTwo);
    const lanes = (of: Lanes): Bytes => (isTwo ? of.two : of.one);
    const leaf = this.#formulas[this.#now]!.leaves.get(node);
    if (leaf !== undefined) return this.#leaf(node, leaf, layout, isTwo);
    switch (node.kind) {
      case 'negate':
        return [...value(node.of), ...lanes(LANES.negate)];
      case 'binary': {
        if (node.operator === '^') return this.#power(node, layout, isTwo);
        return [...value(node.left), ...value(node.right), ...lanes(OPERATORS[node.operator])];
      }
      case 'call': {
        const known = FUNCTIONS.get(node.name) ?? LANES.abs;
        const [first, ...rest] = node.inputs;
        const start = first === undefined ? [] : value(first);
        if (rest.length === 0) return [...start, ...lanes(known)];
        return rest.reduce<Bytes>((code, input) => [...code, ...value(input), ...lanes(known)], start);
      }
      case 'if': {
        const { test, yes, no } = node;
        // made in the order in which they run: the first to read an element keeps it for the others
        return [
          ...value(yes),
          ...value(no),
          ...value(test.left),
          ...value(test.right),
          ...lanes(LANES[test.relation]),
          ...(isTwo ? BITSELECT : OP.select),
        ];
      }
      case 'number':
        return isTwo ? [...OP.f64(node.value), ...SPLAT] : OP.f64(node.value);
      case 'bound':
        throw new Error('a leaf of a kernel is neither an element nor a scalar');
    }
  }

  #leaf(node: Tree<Bound<unknown>>, leaf: KernelLeaf, layout: Layout, isTwo: boolean): Bytes {
    if (leaf.kind === 'scalar')
      return OP.get((isTwo ? layout.pairs : layout.scalars) + (this.#places.get(node) ?? 0));
    if (leaf.kind === 'element') {
      const maker = this.#maker(leaf.array, this.#now);
      if (maker >= 0) return OP.get((isTwo ? layout.two : layout.one).made + maker);
      const { local, least } = layout.arrays.get(leaf.array) ?? { local: 3, least: 0 };
      const shift = leaf.shift + this.#ahead;
      const place = `${leaf.array} ${shift}`;
      const known = this.#read.get(place);
      if (known !== undefined) return OP.get(known);
      const kept = (isTwo ? layout.two : layout.one).read + this.#read.size;
      this.#read.set(place, kept);
      return [...OP.get(local), ...load(isTwo, 8 * (shift - least)), ...OP.tee(kept)];
    }
    const position = (more: number): Bytes => [
      ...OP.get(layout.index),
      ...OP.i32(leaf.from + more + this.#ahead),
      ...OP.i32Add,
      ...OP.convert,
    ];
    return isTwo ? [...position(0), ...SPLAT, ...position(1), ...REPLACE_SECOND] : position(0);
  }

  /** x*x or (x*x)*x, with x computed once. */
  #power(node: Binary<Bound<unknown>>, layout: Layout, isTwo: boolean): Bytes {
    const place = this.#aside;
    this.#aside += 1;
    const local = (isTwo ? layout.two : layout.one).aside + place;
    const times = isTwo ? LANES.multiply.two : LANES.multiply.one;
    const base = this.#value(node.left, layout, isTwo);
    const square = [...base, ...OP.tee(local), ...OP.get(local), ...times];
    const isCube = node.right.kind === 'number' && node.right.value === 3;
    return isCube ? [...square, ...OP.get(local), ...times] : square;
  }
}

/** Adds to a local. */
function moved(local: number, by: number): Bytes {
  return [...OP.get(local), ...OP.i32(by), ...OP.i32Add, ...OP.set(local)];
}

/** Pairs of elements that one turn of the first loop does. */
const UNROLLED = 4;
/** Most powers within one formula. */
const MAX_ASIDE = 64;

/** Where things are among the locals of a kernel. */
interface Layout {
  /** The first address of what is written. */
  readonly outputs: number;
  readonly arrays: ReadonlyMap<string, { readonly local: number; readonly least: number }>;
  readonly scalars: number;
  readonly index: number;
  /** Addresses of the present element, which move along. */
  readonly pointers: readonly number[];
  readonly pairs: number;
  /** Values of formulas, and what is put aside, of pairs and of single numbers. */
  readonly two: Aside;
  readonly one: Aside;
}

/** The first locals of values of formulas, of bases of powers, and of elements that were read. */
interface Aside {
  readonly made: number;
  readonly aside: number;
  readonly read: number;
}

function asideFrom(first: number, formulas: number): Aside {
  return { made: first, aside: first + formulas, read: first + formulas + MAX_ASIDE };
}
