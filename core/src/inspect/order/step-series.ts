import {
  type Amount,
  amountOf,
  factorial,
  fraction,
  NOTHING,
  over,
  plus,
  powerOf,
  times,
  UNIT,
} from '../form/amount.ts';
import type { Basis, LinearForm } from '../form/form.ts';
import type { FormStage, LinearMethod } from '../form/linear-method.ts';
import { soleTerm } from '../form/powers.ts';
import { holdsMatrix, type RootedTree } from './trees.ts';

/** A polynomial in the time s after a stage, by power. */
type InTime = readonly Amount[];

/** The coefficients of what a step makes, over trees: a B-series, or a P-series for positions and velocities. */
export interface StepSeries {
  /** The coefficient of the value itself: 1 for a formula that leaves constants as they are. */
  readonly unit: (next: 'y' | 'x' | 'v') => Amount;
  readonly of: (tree: RootedTree) => Amount;
}

/** What the exact solution has for a tree. */
export function exactCoefficient(tree: RootedTree): Amount {
  return holdsMatrix(tree) ? NOTHING : fraction(1n, tree.density);
}

/** The weight of a stage, given those of others; null where it rests on one that is not known yet. */
function stageWeight({ at, primes, partial }: FormStage, weights: readonly (number | null)[]): number | null {
  const own = 'y' in at ? 1 : 2;
  if (partial === null) return own + primes;
  let weight: number | null = own + partial.times;
  for (const form of partial.along) {
    let deficit: number | null = form.size === 0 ? 0 : null;
    for (const { basis, factor } of form.values()) {
      const [power] = factor.keys();
      const of = basisWeight(basis, weights);
      if (of === null || power === undefined) continue;
      deficit = of - power;
      break;
    }
    weight = weight === null || deficit === null ? null : weight + deficit;
  }
  return weight;
}

function basisWeight(basis: Basis, weights: readonly (number | null)[]): number | null {
  if (basis.kind === 'kept') return basis.variable === 'v' ? 1 : 0;
  return basis.kind === 'unknown' ? 0 : (weights[basis.stage] ?? null);
}

const known = new WeakMap<LinearMethod, readonly (number | null)[]>();

/**
 * The weights of all stages. A linearly implicit stage applies its Jacobian to a sum that holds the stage itself, so
 * that weights are found one after another, each from the first term of such a sum whose weight is known; whether the
 * other terms agree with it is another question. One that rests on nothing but itself has none.
 */
function stageWeights(method: LinearMethod): readonly (number | null)[] {
  const ready = known.get(method);
  if (ready !== undefined) return ready;
  const weights: (number | null)[] = method.stages.map(() => null);
  for (let changed = true; changed;) {
    changed = false;
    method.stages.forEach((stage, i) => {
      if (weights[i] !== null) return;
      const weight = stageWeight(stage, weights);
      if (weight === null) return;
      weights[i] = weight;
      changed = true;
    });
  }
  known.set(method, weights);
  return weights;
}

/** The weight of what a form is made of: 0 for a value, 1 for a slope, 2 for a derivative of it or for a. */
export function weightOf(basis: Basis, method: LinearMethod): number {
  return basisWeight(basis, stageWeights(method)) ?? 0;
}

/** How many powers of h a term falls short of being measured as y is, for each power that it has. */
export interface Deficit {
  readonly basis: Basis;
  readonly deficit: number;
}

/**
 * For each term of a form how many powers of h it lacks; 0 for all of them in a value, 1 in a slope. The weight of a
 * slope is 1, that of a derivative of it 2, that of a 2.
 */
export function deficitsOf(form: LinearForm, method: LinearMethod): readonly Deficit[] {
  const weights = stageWeights(method);
  return [...form.values()].flatMap(({ basis, factor }) =>
    [...factor.keys()].map((power) => ({ basis, deficit: (basisWeight(basis, weights) ?? 0) - power })),
  );
}

/** The whole factor of a term whose power of h is the one it needs. */
function amountOfTerm({ factor }: { readonly factor: ReadonlyMap<number, Amount> }): Amount {
  return soleTerm(factor)?.amount ?? NOTHING;
}

/** Follows one step of a method over trees; every form must lack the same powers of h in all of its terms. */
class Series implements StepSeries {
  readonly #method: LinearMethod;
  readonly #stages = new Map<string, Amount>();
  readonly #flows = new Map<string, InTime>();

  readonly #anyJacobian: boolean;

  constructor(method: LinearMethod, anyJacobian: boolean) {
    this.#method = method;
    this.#anyJacobian = anyJacobian;
  }

  unit(next: 'y' | 'x' | 'v'): Amount {
    return this.#unitOf(this.#next(next));
  }

  of(tree: RootedTree): Amount {
    return tree.root === 't' ? NOTHING : this.#inForm(this.#next(tree.root), tree);
  }

  #next(root: 'y' | 'x' | 'v' | 'j'): LinearForm {
    const { next } = this.#method;
    if ('y' in next) return next.y;
    return root === 'x' ? next.x : next.v;
  }

  /** The factor of what is there before anything is evaluated. */
  #unitOf(form: LinearForm): Amount {
    let sum = NOTHING;
    for (const term of form.values())
      if (term.basis.kind === 'kept' && (term.basis.variable !== 'v' || soleTerm(term.factor)?.power === 0))
        sum = plus(sum, amountOfTerm(term));
    return sum;
  }

  #inForm(form: LinearForm, tree: RootedTree): Amount {
    // a value has no part that moves with the time alone
    if (tree.root === 't') return NOTHING;
    let sum = NOTHING;
    for (const term of form.values())
      sum = plus(sum, times(amountOfTerm(term), this.#inBasis(term.basis, tree)));
    return sum;
  }

  #inBasis(basis: Basis, tree: RootedTree): Amount {
    if (basis.kind === 'unknown') return NOTHING;
    if (basis.kind === 'kept') {
      const { back, variable } = basis;
      // h v, in a position: the vertex of a position takes the velocity below it
      if (variable === 'v' && tree.root === 'x') {
        const [child] = tree.children;
        return child === undefined ? UNIT : this.#inBasis(basis, child);
      }
      if (back === 0) return NOTHING;
      // x[n-j]/h, in a velocity: one power of h below that of the position whose vertex stands on it
      if (variable === 'x' && tree.root === 'v')
        return times(
          powerOf(amountOf(-back), tree.order + 1),
          fraction(1n, BigInt(tree.order + 1) * tree.density),
        );
      return times(powerOf(amountOf(-back), tree.order), exactCoefficient(tree));
    }
    // h^2 a, in a position
    if (tree.root === 'x') {
      const [child] = tree.children;
      return child === undefined ? NOTHING : this.#inStage(basis.stage, child);
    }
    return this.#inStage(basis.stage, tree);
  }

  /** What h f, evaluated at a stage, has for a tree: the product over what is above its root. */
  #inStage(place: number, tree: RootedTree): Amount {
    const key = `${place}/${tree.id}`;
    const known = this.#stages.get(key);
    if (known !== undefined) return known;
    const stage = this.#method.stages[place];
    const made = stage === undefined ? NOTHING : this.#madeInStage(stage, place, tree);
    this.#stages.set(key, made);
    return made;
  }

  #madeInStage(stage: FormStage, place: number, tree: RootedTree): Amount {
    const matrix = this.#anyJacobian ? matrixOf(stage) : null;
    if (tree.root === 'j' || matrix !== null) {
      const [child] = tree.children;
      return tree.root === 'j' && matrix !== null && child !== undefined
        ? this.#inForm(matrix, child)
        : NOTHING;
    }
    if (stage.partial !== null) return this.#partial(stage, tree);
    if (stage.primes === 0)
      return tree.children.reduce((product, child) => times(product, this.#above(stage, child)), UNIT);
    // the derivative along the solution through the stage: of the product in the time s, at s = 0
    const product = tree.children.reduce<InTime>(
      (made, child) => multiplied(made, this.#flow(stage, place, child)),
      [UNIT],
    );
    return times(product[stage.primes] ?? NOTHING, factorial(stage.primes));
  }

  /** What the place at which a stage is evaluated has for a tree. */
  #above({ at, shift }: FormStage, tree: RootedTree): Amount {
    if (tree.root === 't') return shift;
    if ('y' in at) return this.#inForm(at.y, tree);
    return this.#inForm(tree.root === 'x' ? at.x : at.v, tree);
  }

  /** The same for the exact solution that starts from there, a time s later. */
  #flow(stage: FormStage, place: number, tree: RootedTree): InTime {
    const key = `${place}/${tree.id}`;
    const known = this.#flows.get(key);
    if (known !== undefined) return known;
    const rhs =
      tree.root === 't'
        ? [UNIT]
        : tree.children.reduce<InTime>(
            (made, child) => multiplied(made, this.#flow(stage, place, child)),
            [UNIT],
          );
    const made = [this.#above(stage, tree), ...rhs.map((amount, k) => over(amount, amountOf(k + 1)))];
    this.#flows.set(key, made);
    return made;
  }

  /** Partial derivatives: each is applied to one of the children, in every way. */
  #partial(stage: FormStage, tree: RootedTree): Amount {
    const { times: byTime = 0, along = [] } = stage.partial ?? {};
    const directions: ((child: RootedTree) => Amount)[] = [
      ...Array.from({ length: byTime }, () => (child: RootedTree) => (child.root === 't' ? UNIT : NOTHING)),
      ...along.map((form) => (child: RootedTree) => this.#inForm(form, child)),
    ];
    const chosen = (left: number, rest: readonly RootedTree[]): Amount => {
      const direction = directions[left];
      if (direction === undefined)
        return rest.reduce((product, child) => times(product, this.#above(stage, child)), UNIT);
      let sum = NOTHING;
      rest.forEach((child, i) => {
        const others = rest.filter((_, j) => j !== i);
        sum = plus(sum, times(direction(child), chosen(left + 1, others)));
      });
      return sum;
    };
    return chosen(0, tree.children);
  }
}

function multiplied(a: InTime, b: InTime): InTime {
  const product: Amount[] = Array.from({ length: a.length + b.length - 1 }, () => NOTHING);
  a.forEach((x, i) => {
    b.forEach((y, j) => {
      product[i + j] = plus(product[i + j] ?? NOTHING, times(x, y));
    });
  });
  return product;
}

/** What a Jacobian alone is applied to; null for any other stage. */
function matrixOf({ partial }: FormStage): LinearForm | null {
  const [along, ...more] = partial?.along ?? [];
  return along !== undefined && more.length === 0 && partial?.times === 0 ? along : null;
}

/** Whether some Jacobian of the text could be replaced by a matrix. */
export function holdsJacobian({ stages }: LinearMethod): boolean {
  return stages.some((stage) => matrixOf(stage) !== null);
}

/**
 * The series of one step of a method over trees.
 *
 * @param anyJacobian whether every Jacobian is a matrix of its own, as in W-methods
 */
export function stepSeries(method: LinearMethod, anyJacobian = false): StepSeries {
  return new Series(method, anyJacobian);
}

/** For every stage how far it is shifted in time, and how far a value that moves at rate 1 comes there, as multiples of h. */
export function shiftsOf(
  method: LinearMethod,
): readonly { readonly stage: FormStage; readonly shift: Amount; readonly moved: Amount }[] {
  return method.stages.map((stage) => {
    const form = 'y' in stage.at ? stage.at.y : stage.at.x;
    return { stage, shift: stage.shift, moved: movedBy(form, method) };
  });
}

/** Whether time is shifted elsewhere than a value that moves at rate 1, so that derivatives by t must be told apart. */
export function shiftsDiffer(method: LinearMethod): boolean {
  return shiftsOf(method).some(
    ({ stage, shift, moved }) =>
      stage.partial !== null ||
      Math.abs(moved.value - shift.value) > 1e-12 * Math.max(1, Math.abs(moved.value)),
  );
}

/** How far a value that moves at rate 1 comes in a form: the multiple of h. */
export function movedBy(form: LinearForm, method: LinearMethod): Amount {
  let sum = NOTHING;
  for (const term of form.values()) {
    const { basis } = term;
    const amount = amountOfTerm(term);
    if (basis.kind === 'kept')
      sum = plus(sum, basis.variable === 'v' ? amount : times(amount, amountOf(-basis.back)));
    else if (basis.kind === 'stage') {
      const stage = method.stages[basis.stage];
      if (stage !== undefined && stage.primes === 0 && stage.partial === null && 'y' in stage.at)
        sum = plus(sum, amount);
    }
  }
  return sum;
}
