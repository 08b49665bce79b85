import { type Amount, amountOf, areEqual, less, NOTHING, over, plus, times, UNIT } from '../form/amount.ts';
import type { LinearForm } from '../form/form.ts';
import { isOnSolution } from '../form/kind.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { soleTerm } from '../form/powers.ts';
import { type ZeroStability, zeroStability } from '../stability/zero-stability.ts';
import { deficitsOf, exactCoefficient, shiftsDiffer, stepSeries } from './step-series.ts';
import { Forest, type RootedTree, type TreeKind } from './trees.ts';

/** A condition that an order asks for: of a tree, or of a power of h where every evaluation lies on the solution. */
export interface Condition {
  /** Null for a formula whose every evaluation lies on the solution: then it is one of a power of h alone. */
  readonly tree: RootedTree | null;
  readonly order: number;
  /** What the formula has. */
  readonly value: Amount;
  /** What the exact solution has. */
  readonly should: Amount;
  /** Whether a stage has other shifts in time than in value, so that c is not the sum of a row of a. */
  readonly withTime: boolean;
}

/** The order of a method, proved from its text. */
export interface ProvedOrder {
  readonly order: number;
  /** Whether all conditions that were looked at hold, so that the order may be higher. */
  readonly atLeast: boolean;
  /** The conditions of the next order that fail: the principal error. The first is the one to show. */
  readonly failing: readonly Condition[];
  /** Conditions that were looked at. */
  readonly looked: number;
  /**
   * C with local error C h^(p+1) y^(p+1) + ..., over the sum of the weights of slopes for multistep methods; null
   * where the principal error is no multiple of one derivative.
   */
  readonly errorConstant: Amount | null;
  /** Null for a one-step method. */
  readonly zero: ZeroStability | null;
}

/** Highest order whose conditions are made: 200 trees of a first-order system up to order 8. */
const HIGHEST = { first: 8, second: 6, withTime: 5 } as const;
/** Highest order that is looked for where powers of h alone are compared. */
const HIGHEST_POWER = 40;

/** Whether every value is measured as y (or x, v) is: each slope with its h, as a dimension check. */
export function hasConsistentPowers(method: LinearMethod): boolean {
  const are = (form: LinearForm, deficit: number): boolean =>
    deficitsOf(form, method).every((one) => one.deficit === deficit);
  const alike = (form: LinearForm): boolean => {
    const [first, ...others] = deficitsOf(form, method);
    return others.every(({ deficit }) => deficit === first?.deficit);
  };
  const { next } = method;
  const places = method.stages.every(({ at, partial }) =>
    'y' in at ? are(at.y, 0) && (partial?.along.every(alike) ?? true) : are(at.x, 0) && are(at.v, 1),
  );
  return places && ('y' in next ? are(next.y, 0) : are(next.x, 0) && are(next.v, 1));
}

function factorial(n: number): Amount {
  let made = UNIT;
  for (let i = 2; i <= n; i += 1) made = times(made, amountOf(i));
  return made;
}

function powerOf(base: Amount, exponent: number): Amount {
  let made = UNIT;
  for (let i = 0; i < exponent; i += 1) made = times(made, base);
  return made;
}

/** The factor of h^q y^(q) in a formula whose evaluations all lie on the solution, and the size of its terms. */
export function factorOfPower(
  method: LinearMethod,
  q: number,
): { readonly value: Amount; readonly scale: number } {
  const { next, stages } = method;
  let [value, scale] = [NOTHING, 0];
  for (const { basis, factor } of 'y' in next ? next.y.values() : []) {
    const amount = soleTerm(factor)?.amount ?? NOTHING;
    const stage = basis.kind === 'stage' ? stages[basis.stage] : undefined;
    const [derivative, place] =
      basis.kind === 'kept'
        ? [0, amountOf(-basis.back)]
        : [1 + (stage?.primes ?? 0), stage?.shift ?? NOTHING];
    if (q < derivative) continue;
    const part = times(amount, over(powerOf(place, q - derivative), factorial(q - derivative)));
    value = plus(value, part);
    scale += Math.abs(part.value);
  }
  return { value, scale };
}

function byPowers(method: LinearMethod): Omit<ProvedOrder, 'zero' | 'errorConstant'> {
  for (let q = 0; q <= HIGHEST_POWER; q += 1) {
    const { value, scale } = factorOfPower(method, q);
    const should = over(UNIT, factorial(q));
    if (!areEqual(value, should, scale))
      return {
        order: q - 1,
        atLeast: false,
        looked: q + 1,
        failing: [{ tree: null, order: q, value, should, withTime: false }],
      };
  }
  return { order: HIGHEST_POWER, atLeast: true, failing: [], looked: HIGHEST_POWER + 1 };
}

/** What a tree asks of a method that is no linear multistep formula. */
function byTrees(method: LinearMethod, kind: TreeKind): Omit<ProvedOrder, 'zero' | 'errorConstant'> {
  const forest = new Forest(kind);
  const { withTime } = kind;
  const series = stepSeries(method);
  const nexts = 'y' in method.next ? (['y'] as const) : (['x', 'v'] as const);
  let looked = nexts.length;
  for (const next of nexts) {
    const value = series.unit(next);
    if (!areEqual(value, UNIT))
      return {
        order: -1,
        atLeast: false,
        looked,
        failing: [{ tree: null, order: 0, value, should: UNIT, withTime }],
      };
  }
  const highest = kind.form === 'second' ? HIGHEST.second : kind.withTime ? HIGHEST.withTime : HIGHEST.first;
  for (let order = 1; order <= highest + 1; order += 1) {
    const trees = forest.ofOrder(order).filter(({ root }) => root !== 't');
    const failing = trees.flatMap((tree): readonly Condition[] => {
      const [value, should] = [series.of(tree), exactCoefficient(tree)];
      return areEqual(value, should) ? [] : [{ tree, order, value, should, withTime }];
    });
    looked += trees.length;
    if (failing.length > 0) return { order: order - 1, atLeast: false, failing, looked };
  }
  return { order: highest, atLeast: true, failing: [], looked };
}

/** The sum of the weights of slopes, by which the error of a multistep method is measured. */
export function weightOfSlopes(method: LinearMethod): Amount {
  const { next } = method;
  let sum = UNIT;
  if ('y' in next)
    for (const { basis, factor } of next.y.values())
      if (basis.kind === 'kept')
        sum = plus(sum, times(soleTerm(factor)?.amount ?? NOTHING, amountOf(basis.back)));
  return sum;
}

/** C, where the principal error is C times one derivative of the solution. */
function constantOf(method: LinearMethod, failing: readonly Condition[], trees: number): Amount | null {
  const [first] = failing;
  if (first === undefined || first.order === 0) return null;
  const parts = failing.map(({ tree, order, value, should }) => {
    const rest = less(should, value);
    // on the solution every tree has the weight of the whole derivative
    return tree === null ? rest : times(rest, wholeness(tree, order));
  });
  const [one, ...others] = parts;
  if (one === undefined || !others.every((part) => areEqual(part, one))) return null;
  if (first.tree !== null && failing.length < trees) return null;
  return over(one, weightOfSlopes(method));
}

/** The density of a tree over the factorial of its order: what makes its part one of the whole derivative. */
function wholeness(tree: RootedTree, order: number): Amount {
  return over(over(UNIT, exactCoefficient(tree)), factorial(order));
}

/**
 * The order of a method, proved from its text: by comparing powers of h where every evaluation lies on the solution
 * (linear multistep and Taylor formulas, C_q of Hairer, Norsett & Wanner III.2), else by the conditions of rooted trees
 * (Butcher; Hairer, Norsett & Wanner II.2 and II.14), which are generated, also for multistep methods, with exact
 * earlier values.
 *
 * @param withVelocity for x'' = a: whether a depends on the velocity
 * @returns null where no order can be proved: some slope lacks its h, or the form is none that is known
 */
export function proveOrder(method: LinearMethod, withVelocity = true): ProvedOrder | null {
  const isFirst = 'y' in method.next;
  if (!hasConsistentPowers(method) || (!isFirst && method.depth > 0)) return null;
  const zero = zeroStability(method);
  if (isFirst && isOnSolution(method)) {
    const proof = byPowers(method);
    return { ...proof, zero, errorConstant: constantOf(method, proof.failing, 1) };
  }
  const kind: TreeKind = isFirst
    ? { form: 'first', withTime: shiftsDiffer(method), withVelocity: true }
    : { form: 'second', withTime: shiftsDiffer(method), withVelocity };
  const proof = byTrees(method, kind);
  const order = proof.order + 1;
  const trees = new Forest(kind).ofOrder(order).filter(({ root }) => root !== 't').length;
  return {
    ...proof,
    zero,
    errorConstant: isFirst ? constantOf(method, proof.failing, trees) : null,
  };
}
