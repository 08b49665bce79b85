import { binary, call, type Call, type Leaf, number, type Operator, type Tree } from './expression.ts';
import { bounded, type Origin } from './measure.ts';
import { PlaceError } from '../text/place.ts';
import { constantOf, simple } from './simplify.ts';

/** The derivative of a leaf with respect to what is asked for; a constant answers the number 0. */
export type LeafDerivative<L extends Leaf> = (leaf: L) => Tree<L>;

/** The derivative of a function of one input, as a function of that input. */
type Outer = <L extends Leaf>(x: Tree<L>) => Tree<L>;

const ZERO = number(0);
const ONE = number(1);

const OUTER: ReadonlyMap<string, Outer> = new Map<string, Outer>([
  ['sin', (x) => simple.apply('cos', x)],
  ['cos', (x) => simple.negated(simple.apply('sin', x))],
  ['tan', (x) => simple.add(ONE, square(simple.apply('tan', x)))],
  ['asin', (x) => simple.divide(ONE, simple.apply('sqrt', simple.subtract(ONE, square(x))))],
  ['acos', (x) => simple.negated(simple.divide(ONE, simple.apply('sqrt', simple.subtract(ONE, square(x)))))],
  ['atan', (x) => simple.divide(ONE, simple.add(ONE, square(x)))],
  ['sinh', (x) => simple.apply('cosh', x)],
  ['cosh', (x) => simple.apply('sinh', x)],
  ['tanh', (x) => simple.subtract(ONE, square(simple.apply('tanh', x)))],
  ['exp', (x) => simple.apply('exp', x)],
  ['ln', (x) => simple.divide(ONE, x)],
  ['log10', (x) => simple.divide(ONE, simple.multiply(x, simple.apply('ln', number(10))))],
  ['log2', (x) => simple.divide(ONE, simple.multiply(x, simple.apply('ln', number(2))))],
  ['sqrt', (x) => simple.divide(ONE, simple.multiply(number(2), simple.apply('sqrt', x)))],
  ['cbrt', (x) => simple.divide(ONE, simple.multiply(number(3), square(simple.apply('cbrt', x))))],
  ['abs', (x) => simple.apply('sign', x)],
  ['sign', () => ZERO],
  ['floor', () => ZERO],
]);

function square<L extends Leaf>(x: Tree<L>): Tree<L> {
  return simple.raise(x, number(2));
}

/** Differentiates the nodes of one tree; a part that occurs more than once is differentiated once. */
class Differentiation<L extends Leaf> {
  readonly #leaf: LeafDerivative<L>;
  readonly #known = new Map<Tree<L>, Tree<L>>();

  constructor(leaf: LeafDerivative<L>) {
    this.#leaf = leaf;
  }

  of(node: Tree<L>): Tree<L> {
    const ready = this.#known.get(node);
    if (ready !== undefined) return ready;
    const made = this.#make(node);
    this.#known.set(node, made);
    return made;
  }

  #make(node: Tree<L>): Tree<L> {
    switch (node.kind) {
      case 'number':
        return ZERO;
      case 'negate':
        return simple.negated(this.of(node.of));
      case 'binary':
        return this.#binary(node.operator, node.left, node.right);
      case 'if': {
        const yes = this.of(node.yes);
        const no = this.of(node.no);
        return constantOf(yes) === 0 && constantOf(no) === 0 ? ZERO : { ...node, yes, no };
      }
      case 'call':
        return this.#call(node);
      default:
        return this.#leaf(node);
    }
  }

  #binary(operator: Operator, left: Tree<L>, right: Tree<L>): Tree<L> {
    switch (operator) {
      case '+':
        return simple.add(this.of(left), this.of(right));
      case '-':
        return simple.subtract(this.of(left), this.of(right));
      case '*':
        return simple.add(simple.multiply(this.of(left), right), simple.multiply(left, this.of(right)));
      case '/': {
        const below = this.of(right);
        if (constantOf(below) === 0) return simple.divide(this.of(left), right);
        return simple.divide(
          simple.subtract(simple.multiply(this.of(left), right), simple.multiply(left, below)),
          square(right),
        );
      }
      case '^':
        return this.#power(left, right);
    }
  }

  #power(base: Tree<L>, exponent: Tree<L>): Tree<L> {
    const inner = this.of(base);
    const above = this.of(exponent);
    const lower = simple.multiply(
      simple.multiply(exponent, simple.raise(base, simple.subtract(exponent, ONE))),
      inner,
    );
    if (constantOf(above) === 0) return lower;
    const isE = base.kind === 'name' && base.name === 'e';
    const logarithm = isE ? ONE : simple.apply('ln', base);
    const upper = simple.multiply(simple.multiply(binary('^', base, exponent), logarithm), above);
    return constantOf(inner) === 0 ? upper : simple.add(lower, upper);
  }

  #call(node: Call<L>): Tree<L> {
    const [x, y] = node.inputs;
    const outer = node.primes === 0 && node.inputs.length === 1 ? OUTER.get(node.name) : undefined;
    if (outer !== undefined && x !== undefined) {
      const inner = this.of(x);
      return constantOf(inner) === 0 ? ZERO : simple.multiply(inner, outer(x));
    }
    if (x !== undefined && y !== undefined) {
      if (node.name === 'atan2')
        return simple.divide(
          simple.subtract(simple.multiply(this.of(x), y), simple.multiply(x, this.of(y))),
          simple.add(square(x), square(y)),
        );
      if (node.name === 'mod')
        return simple.subtract(
          this.of(x),
          simple.multiply(simple.apply('floor', simple.divide(x, y)), this.of(y)),
        );
      if (node.name === 'min' || node.name === 'max') return this.#extreme(node, x, node.inputs.slice(1));
    }
    throw new PlaceError(node.at, `${node.name} has no known derivative`);
  }

  /** That of the input which is the smallest or the largest, two at a time. */
  #extreme(node: Call<L>, first: Tree<L>, rest: readonly Tree<L>[]): Tree<L> {
    const [second, ...more] = rest;
    if (second === undefined) return this.of(first);
    const others = more.length === 0 ? second : call(node.name, rest, node.at);
    const yes = this.of(first);
    const no = this.of(others);
    if (constantOf(yes) === 0 && constantOf(no) === 0) return ZERO;
    const relation = node.name === 'min' ? '<=' : '>=';
    const test = { relation, left: first, right: others, at: node.at } as const;
    return { kind: 'if', test, yes, no, at: node.at };
  }
}

/**
 * The symbolic derivative, simplified for reading. Where a function has a kink (abs, min, max, floor,
 * sign, mod, if) it is the derivative on either side of it.
 *
 * @param leaf the derivatives of names
 * @param origin what to say where it grows too large
 * @throws PlaceError for a call that is not a function of the notation, and where the derivative grows too large
 */
export function derivative<L extends Leaf>(
  expression: Tree<L>,
  leaf: LeafDerivative<L>,
  origin: Origin = { at: expression.at, what: 'the derivative of this formula' },
): Tree<L> {
  return bounded(new Differentiation(leaf).of(expression), origin);
}
