import { derivative } from '../formula/derivative.ts';
import type { Span } from '../text/place.ts';
import { bound, type Bound, number, type Tree } from '../formula/expression.ts';

/** A place for a number or a vector inside one step. */
export type Register = number;

/** What a leaf of a method's formula is, once its names are looked up. */
export type StepLeaf =
  /** The time of the grid point `offset` steps from the present one. */
  | { readonly kind: 'time'; readonly offset: number }
  /** The step size. */
  | { readonly kind: 'step' }
  /** A constant of the notation by its name; null for a number that has none. */
  | { readonly kind: 'constant'; readonly name: string | null; readonly value: number }
  | { readonly kind: 'register'; readonly register: Register }
  /** How fast a register moves, where Newton's method asks for that. */
  | { readonly kind: 'tangent'; readonly register: Register };

/** A formula of a method over registers. */
export type StepTree = Tree<Bound<StepLeaf>>;

/** Leaves of a step's formula, with their place in the text where they are in one. */
export function registerTree(register: Register, at?: Span): StepTree {
  return bound({ kind: 'register', register }, `register ${register}`, at);
}

export function timeTree(offset: number, at?: Span): StepTree {
  return bound({ kind: 'time', offset }, `time ${offset}`, at);
}

export function stepTree(at: Span): StepTree {
  return bound({ kind: 'step' }, 'step', at);
}

export function constantTree(value: number, name: string | null = null, at?: Span): StepTree {
  return bound({ kind: 'constant', name, value }, `constant ${value}`, at);
}

/** The register that a tree is, if it is nothing more. */
export function bareRegister(tree: StepTree): Register | null {
  return tree.kind === 'bound' && tree.to.kind === 'register' ? tree.to.register : null;
}

/** The derivative of a formula along the registers that move. */
export function stepTangent(tree: StepTree, moving: (register: Register) => boolean): StepTree {
  return derivative(tree, ({ to }) =>
    to.kind === 'register' && moving(to.register)
      ? bound({ kind: 'tangent', register: to.register }, `tangent ${to.register}`)
      : number(0),
  );
}
