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

/**
 * An inner loop `for i = from..to-1: out[i] = expression` as a WebAssembly function, two elements at a time.
 * It takes from, to, the address of out, those of the arrays and then the scalars.
 */
export interface Kernel {
  /** Types of the inputs and body of the function. */
  readonly type: Bytes;
  readonly code: Bytes;
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
 * Compiles the body of an inner loop, operation by operation in the text's own order.
 *
 * @param element tells leaves that change along the loop
 * @param scalar the node of a part that does not, to be computed before the loop
 * @returns null where some operation has no instruction of its own, or there are more powers than can be put aside
 */
export function compileKernel<B>(
  expression: Tree<Bound<B>>,
  element: (leaf: B) => ElementLeaf | null,
  scalar: (part: Tree<Bound<B>>) => CodeNode,
): Kernel | null {
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
  if (!isPlainThroughout(expression) || powers(expression) > MAX_ASIDE) return null;
  return new KernelCode(element, scalar, moves).compile(expression);
}

class KernelCode<B> {
  readonly #element: (leaf: B) => ElementLeaf | null;
  readonly #scalar: (part: Tree<Bound<B>>) => CodeNode;
  readonly #moves: (node: Tree<Bound<B>>) => boolean;
  readonly #arrays = new Map<string, { least: number }>();
  readonly #scalars: CodeNode[] = [];
  /** The place among the scalars of each part that does not move. */
  readonly #places = new Map<Tree<Bound<B>>, number>();
  /** How many numbers of each kind are put aside within one element. */
  #aside = 0;
  /** Elements between the running index and the one that is being computed. */
  #ahead = 0;

  constructor(
    element: (leaf: B) => ElementLeaf | null,
    scalar: (part: Tree<Bound<B>>) => CodeNode,
    moves: (node: Tree<Bound<B>>) => boolean,
  ) {
    this.#element = element;
    this.#scalar = scalar;
    this.#moves = moves;
  }

  compile(expression: Tree<Bound<B>>): Kernel {
    this.#collect(expression);
    const arrays = [...this.#arrays].map(([name, { least }]) => ({ name, least }));
    const inputs = [
      TYPE.i32,
      TYPE.i32,
      TYPE.i32,
      ...arrays.map(() => TYPE.i32),
      ...this.#scalars.map(() => TYPE.f64),
    ];
    const first = inputs.length;
    // locals: the running index, its address, the scalars twice over, and what is put aside of each kind
    const layout: Layout = {
      arrays: new Map(arrays.map(({ name, least }, k) => [name, { local: 3 + k, least }])),
      scalars: 3 + arrays.length,
      index: first,
      address: first + 1,
      pairs: first + 2,
      asideTwo: first + 2 + this.#scalars.length,
      asideOne: first + 2 + this.#scalars.length + MAX_ASIDE,
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
      ...this.#loop(expression, layout, true, UNROLLED),
      ...this.#loop(expression, layout, true),
      ...this.#loop(expression, layout, false),
    ];
    const locals = vector([
      [...unsigned(2), TYPE.i32],
      [...unsigned(this.#scalars.length + MAX_ASIDE), TYPE.v128],
      [...unsigned(MAX_ASIDE), TYPE.f64],
    ]);
    const content = [...locals, ...body, ...OP.end];
    return {
      type: [0x60, ...vector(inputs.map((type) => [type])), ...vector([])],
      code: [...unsigned(content.length), ...content],
      arrays,
      scalars: this.#scalars,
    };
  }

  /** Notes which arrays and scalars are needed. */
  #collect(node: Tree<Bound<B>>): void {
    if (!this.#moves(node)) {
      if (node.kind === 'number') return;
      const piece = this.#scalar(node);
      const known = this.#scalars.findIndex(({ key }) => key === piece.key);
      this.#places.set(node, known < 0 ? this.#scalars.push(piece) - 1 : known);
      return;
    }
    if (node.kind === 'bound') {
      const leaf = this.#element(node.to);
      if (leaf?.kind !== 'element') return;
      const known = this.#arrays.get(leaf.array);
      this.#arrays.set(leaf.array, { least: Math.min(known?.least ?? leaf.shift, leaf.shift) });
      return;
    }
    for (const part of childrenOf(node))
      if (!(node.kind === 'binary' && node.operator === '^' && part === node.right)) this.#collect(part);
  }

  /** While there are enough elements left: compute and store them, two at a time and `pairs` times, or one. */
  #loop(expression: Tree<Bound<B>>, layout: Layout, isTwo: boolean, pairs = 1): Bytes {
    const { index, address } = layout;
    const count = isTwo ? 2 * pairs : 1;
    const elements = Array.from({ length: pairs }, (_, k) => {
      this.#aside = 0;
      this.#ahead = 2 * k;
      return [
        ...OP.get(address),
        ...OP.get(2),
        ...OP.i32Add,
        ...this.#value(expression, layout, isTwo),
        ...store(isTwo, 16 * k),
      ];
    }).flat();
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
      ...OP.get(index),
      ...OP.i32(3),
      ...OP.i32Shl,
      ...OP.set(address),
      ...elements,
      ...OP.get(index),
      ...OP.i32(count),
      ...OP.i32Add,
      ...OP.set(index),
      ...OP.br(0),
      ...OP.end,
      ...OP.end,
    ];
  }

  #value(node: Tree<Bound<B>>, layout: Layout, isTwo: boolean): Bytes {
    const value = (part: Tree<Bound<B>>): Bytes => this.#value(part, layout, isTwo);
    const lanes = (of: Lanes): Bytes => (isTwo ? of.two : of.one);
    if (!this.#moves(node)) return this.#loopInvariant(node, layout, isTwo);
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
        const condition = [...value(test.left), ...value(test.right), ...lanes(LANES[test.relation])];
        return [...value(yes), ...value(no), ...condition, ...(isTwo ? BITSELECT : OP.select)];
      }
      case 'bound': {
        const leaf = this.#element(node.to);
        return leaf === null ? this.#loopInvariant(node, layout, isTwo) : this.#leaf(leaf, layout, isTwo);
      }
      case 'number':
        return this.#loopInvariant(node, layout, isTwo);
    }
  }

  #loopInvariant(node: Tree<Bound<B>>, layout: Layout, isTwo: boolean): Bytes {
    if (node.kind === 'number') return isTwo ? [...OP.f64(node.value), ...SPLAT] : OP.f64(node.value);
    return OP.get((isTwo ? layout.pairs : layout.scalars) + (this.#places.get(node) ?? 0));
  }

  #leaf(leaf: ElementLeaf, layout: Layout, isTwo: boolean): Bytes {
    if (leaf.kind === 'element') {
      const { local, least } = layout.arrays.get(leaf.array) ?? { local: 3, least: 0 };
      return [
        ...OP.get(local),
        ...OP.get(layout.address),
        ...OP.i32Add,
        ...load(isTwo, 8 * (leaf.shift - least + this.#ahead)),
      ];
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
  #power(node: Binary<Bound<B>>, layout: Layout, isTwo: boolean): Bytes {
    const place = this.#aside;
    this.#aside += 1;
    const local = (isTwo ? layout.asideTwo : layout.asideOne) + place;
    const times = isTwo ? LANES.multiply.two : LANES.multiply.one;
    const base = this.#value(node.left, layout, isTwo);
    const square = [...base, ...OP.tee(local), ...OP.get(local), ...times];
    const isCube = node.right.kind === 'number' && node.right.value === 3;
    return isCube ? [...square, ...OP.get(local), ...times] : square;
  }
}

/** Pairs of elements that one turn of the first loop does. */
const UNROLLED = 2;
/** Most powers within one formula. */
const MAX_ASIDE = 64;

/** Where things are among the locals of a kernel. */
interface Layout {
  readonly arrays: ReadonlyMap<string, { readonly local: number; readonly least: number }>;
  readonly scalars: number;
  readonly index: number;
  readonly address: number;
  readonly pairs: number;
  readonly asideTwo: number;
  readonly asideOne: number;
}
