import type { Binary, Bound, Comparison } from '../../formula/expression.ts';
import { isAtom, constantNode, operation, type CodeNode } from '../nodes/code-node.ts';
import type { RhsLeaf, RhsTree } from '../../program/rhs-tree.ts';
import { functionSeries } from './function-series.ts';
import { powerSeries } from './power-series.ts';
import type { Jets, MakeSeries } from './jets.ts';
import { type Coefficient, minus, orZero, type Series, sum, times } from './series.ts';

/**
 * Where the Taylor coefficients of a leaf come from: coefficient k, or null where it is zero.
 * Coefficient k of x(t + s) is the factor of s^k.
 */
export type LeafJet = (leaf: RhsLeaf, k: number) => Coefficient;

/** Puts a node of code aside; the same node gets the same name. */
export type Declare = (piece: CodeNode) => CodeNode;

/**
 * The Taylor coefficients of expressions along a solution, by the recurrences of automatic differentiation, as
 * straight-line code. Ask for coefficient k only when those below it have been asked for: cost then grows with
 * the square of k.
 *
 * Source: A. Griewank, A. Walther, Evaluating Derivatives (2nd ed., 2008), chapter 13;
 * E. Hairer, S. P. Norsett, G. Wanner, Solving Ordinary Differential Equations I, section I.8.
 */
export class JetCode implements Jets {
  readonly #leaf: LeafJet;
  readonly #declare: Declare;
  readonly #known = new Map<RhsTree, Coefficient[]>();
  readonly #partners = new Map<RhsTree, Map<string, Coefficient[]>>();

  constructor(leaf: LeafJet, declare: Declare) {
    this.#leaf = leaf;
    this.#declare = declare;
  }

  /**
   * The code of coefficient k.
   *
   * @throws PlaceError for a call that has no Taylor series here
   */
  readonly coefficient = (node: RhsTree, k: number): Coefficient => {
    const known = this.#known.get(node) ?? [];
    this.#known.set(node, known);
    for (let j = known.length; j <= k; j += 1) known.push(this.kept(this.#make(node, j)));
    return known[k] ?? null;
  };

  readonly kept = (piece: Coefficient): Coefficient =>
    piece === null || isAtom(piece) ? piece : this.#declare(piece);

  readonly series = (node: RhsTree, k: number): Series =>
    Array.from({ length: k + 1 }, (_, j) => this.coefficient(node, j));

  readonly zeroth = (node: RhsTree): CodeNode => orZero(this.coefficient(node, 0));

  readonly own = (node: RhsTree): Series => this.#known.get(node) ?? [];

  readonly partner = (node: RhsTree, key: string, k: number, make: MakeSeries): Series => {
    const all = this.#partners.get(node) ?? new Map<string, Coefficient[]>();
    this.#partners.set(node, all);
    const series = all.get(key) ?? [];
    all.set(key, series);
    for (let j = series.length; j <= k; j += 1) series.push(this.kept(make(j, series)));
    return series;
  };

  /** c[k] = sum of a[j] b[k-j]. */
  readonly product = (left: RhsTree, right: RhsTree, k: number): Coefficient =>
    sum(
      Array.from({ length: k + 1 }, (_, j) =>
        times(this.coefficient(left, j), this.coefficient(right, k - j)),
      ),
    );

  #make(node: RhsTree, k: number): Coefficient {
    switch (node.kind) {
      case 'number':
        return k === 0 ? constantNode(node.value, node.digits) : null;
      case 'bound':
        return this.#leaf(node.to, k);
      case 'negate':
        return minus(this.coefficient(node.of, k));
      case 'binary':
        return this.#binary(node, k);
      case 'call':
        return functionSeries(this, node, k);
      case 'if':
        return this.#choice(node.test, this.coefficient(node.yes, k), this.coefficient(node.no, k));
    }
  }

  #choice(test: Comparison<Bound<RhsLeaf>>, yes: Coefficient, no: Coefficient): Coefficient {
    if (yes === null && no === null) return null;
    const [left, right] = [this.zeroth(test.left), this.zeroth(test.right)];
    return operation({ choose: test.relation }, left, right, orZero(yes), orZero(no));
  }

  #binary(node: Binary<Bound<RhsLeaf>>, k: number): Coefficient {
    const { operator, left, right } = node;
    switch (operator) {
      case '+':
      case '-': {
        const a = this.coefficient(left, k);
        const b = this.coefficient(right, k);
        if (a === null) return operator === '+' ? b : minus(b);
        return b === null ? a : operation(operator, a, b);
      }
      case '*':
        return this.product(left, right, k);
      case '/':
        return this.#quotient(node, k);
      case '^':
        return powerSeries(this, node, k);
    }
  }

  /** c[k] = (a[k] - sum of b[j] c[k-j]) / b[0]. */
  #quotient(node: Binary<Bound<RhsLeaf>>, k: number): Coefficient {
    const below = this.zeroth(node.right);
    const own = this.own(node);
    const rest = sum([
      null,
      ...Array.from({ length: k }, (_, i) => times(this.coefficient(node.right, i + 1), own[k - i - 1])),
    ]);
    const above = this.coefficient(node.left, k);
    if (rest === null) return above === null ? null : operation('/', above, below);
    return operation('/', operation('-', orZero(above), rest), below);
  }
}
