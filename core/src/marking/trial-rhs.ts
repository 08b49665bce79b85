import { jetFunction } from '../compile/jets/jet-function.ts';
import { factorial } from '../formula/factorial.ts';
import type { Expression } from '../formula/expression.ts';
import type { Layout } from '../program/layout.ts';
import type { Instruction } from '../program/program.ts';
import { type PartialKind, partialRhs, type RhsLeaf, type RhsTree, RhsTrees } from '../program/rhs-tree.ts';
import type { Block, Problem } from '../problem/problem.ts';
import { typedDerivative } from '../problem/typed-derivatives.ts';
import { type Evaluated, evaluated } from './closures.ts';

/** Vectors as a method sees them: y, or x and v. */
export type Vectors = readonly ArrayLike<number>[];

/** Exact values of the state at a time, which a right-hand side is taken at instead; null for those of the run. */
export type ExactState = ((t: number) => ArrayLike<number>) | null;

/** How right-hand sides are taken. */
export interface RhsOptions {
  readonly round: ((x: number) => number) | null;
  readonly exact: ExactState;
}

/** The right-hand sides of a problem, of which each formula may be another than in its text. */
export class TrialRhs {
  readonly #problem: Problem;
  readonly #layout: Layout;
  readonly #options: RhsOptions;
  readonly #trees: RhsTrees;
  readonly #elements: readonly { readonly block: Block; readonly element: number }[];
  readonly #formulas: readonly Evaluated[];
  #when = 0;
  #at: Vectors = [];
  #along: ArrayLike<number> = [];

  constructor(problem: Problem, layout: Layout, options: RhsOptions) {
    this.#problem = problem;
    this.#layout = layout;
    this.#options = options;
    this.#trees = new RhsTrees(problem);
    this.#elements = layout.rated.flatMap(({ block }) =>
      Array.from({ length: block.size }, (_, element) => ({ block, element })),
    );
    this.#formulas = this.#elements.map(({ block, element }) => this.#formula(block.rhs, block, element));
  }

  #formula(
    expression: Expression,
    block: Block,
    element: number,
    change: (tree: RhsTree) => RhsTree = (tree) => tree,
  ): Evaluated {
    return evaluated(
      change(this.#trees.at(expression, block, element)),
      (to) => this.#leaf(to),
      this.#options.round,
    );
  }

  #leaf(to: RhsLeaf): Evaluated {
    switch (to.kind) {
      case 'time':
        return () => this.#when;
      case 'constant':
        return () => to.value;
      case 'component': {
        const { vector, index } = this.#layout.of[to.place] ?? { vector: 0, index: -1 };
        return () => this.#at[vector]?.[index] ?? NaN;
      }
      case 'tangent': {
        const { of } = to;
        return () => (of.kind === 'component' ? (this.#along[of.place] ?? NaN) : NaN);
      }
      default:
        return () => NaN;
    }
  }

  #goTo(when: number, at: Vectors): void {
    const { exact } = this.#options;
    this.#when = when;
    this.#at = at;
    if (exact === null) return;
    const state = exact(when);
    this.#at = this.#layout.places.map((places) => places.map((place) => state[place] ?? NaN));
  }

  /** The right-hand sides that a method asks for, at a time and values. */
  at(when: number, at: Vectors): Float64Array {
    this.#goTo(when, at);
    const out = new Float64Array(this.#formulas.length);
    for (let j = 0; j < out.length; j += 1) out[j] = this.#formulas[j]!();
    return out;
  }

  /** A partial derivative, applied to a vector where it is one by y. */
  partial(kind: PartialKind, when: number, at: Vectors, along: ArrayLike<number>): Float64Array {
    this.#goTo(when, at);
    this.#along = along;
    return Float64Array.from(this.#elements, ({ block, element }) =>
      this.#formula(block.rhs, block, element, (tree) => partialRhs(tree, kind))(),
    );
  }

  /** A total derivative of f, of an order from 1 on. */
  derivative(
    { order }: Instruction & { readonly kind: 'derivative' },
    when: number,
    present: ArrayLike<number>,
  ): Float64Array {
    const { size } = this.#problem;
    this.#goTo(when, [present]);
    const series = new Float64Array((order + 2) * size);
    jetFunction(this.#problem, order + 1)(when, this.#at[0] ?? [], series);
    return Float64Array.from(this.#elements, ({ block, element }, j) => {
      const typed = typedDerivative(this.#problem, block, order);
      return typed === null
        ? factorial(order + 1) * (series[(order + 1) * size + j] ?? NaN)
        : this.#formula(typed, block, element)();
    });
  }
}
