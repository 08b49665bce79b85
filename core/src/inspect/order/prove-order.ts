import {
  type Amount,
  amountOf,
  areEqual,
  factorial,
  fraction,
  isZero,
  less,
  NOTHING,
  over,
  plus,
  powerOf,
  times,
  UNIT,
} from '../form/amount.ts';
import type { LinearForm } from '../form/form.ts';
import { isOnSolution } from '../form/kind.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { soleTerm } from '../form/powers.ts';
import { type ZeroStability, zeroStability, zeroStabilityOfPositions } from '../stability/zero-stability.ts';
import { deficitsOf, exactCoefficient, shiftsDiffer, type StepSeries, stepSeries } from './step-series.ts';
import { derivativesIn, Forest, type RootedTree } from './trees.ts';
import { isPositionsOnly, keepsVelocity, unitOfVelocity } from './two-step.ts';

/** A condition that an order asks for: of a tree, or of a power of h where every evaluation lies on the solution. */
export interface Condition {
  /** Null for a formula whose every evaluation lies on the solution: then it is one of a power of h alone. */
  readonly tree: RootedTree | null;
  readonly order: number;
  /** What the formula has. */
  readonly value: Amount;
  /** What the exact solution has. */
  readonly should: Amount;
  /** The sizes of the terms that were summed, for one that holds a number that is no fraction. */
  readonly scale: number;
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
  /** Conditions that were looked at, and among them those of the next order. */
  readonly looked: number;
  readonly asked: number;
  /**
   * C with local error C h^(p+1) y^(p+1) + ..., over the sum of the weights of slopes for multistep methods; null
   * where the principal error is no multiple of one derivative.
   */
  readonly errorConstant: Amount | null;
  /** Null for a one-step method. */
  readonly zero: ZeroStability | null;
}

/** Highest order whose conditions are made: 286 trees of a first-order system of order 9. */
const HIGHEST = { first: 9, second: 7, withTime: 6 } as const;
/** Highest order that is looked for where powers of h alone are compared. */
const HIGHEST_POWER = 41;

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

/** The conditions that a method is asked, by their order; the same list for methods of one form. */
export interface Conditions {
  readonly highest: number;
  readonly of: (order: number) => readonly Condition[];
}

function byPowers(method: LinearMethod): Conditions {
  return {
    highest: HIGHEST_POWER,
    of: (order) => {
      const { value, scale } = factorOfPower(method, order);
      return [{ tree: null, order, value, should: over(UNIT, factorial(order)), scale, withTime: false }];
    },
  };
}

/** That a formula leaves constants as they are, and a constant velocity as well. */
function unitConditions(method: LinearMethod, series: StepSeries, withTime: boolean): readonly Condition[] {
  const condition = (value: Amount, should: Amount): Condition => ({
    tree: null,
    order: 0,
    value,
    should,
    scale: 1,
    withTime,
  });
  if ('y' in method.next) return [condition(series.unit('y'), UNIT)];
  const { rest, value } = unitOfVelocity(method);
  return [condition(series.unit('x'), UNIT), condition(rest, NOTHING), condition(value, UNIT)];
}

/** What the trees of a kind ask of a method. */
function byTrees(method: LinearMethod, forest: Forest): Conditions {
  const { form, withTime, anyJacobian } = forest.kind;
  const series = stepSeries(method, anyJacobian);
  const highest =
    form === 'second' ? HIGHEST.second : withTime || anyJacobian ? HIGHEST.withTime : HIGHEST.first;
  const made = (order: number): readonly Condition[] => {
    if (order === 0) return unitConditions(method, series, withTime);
    const trees = asked(method, forest, order);
    return together(trees, method.oneEquation).map(([tree, ...alike]) => {
      // the coefficients of equal elementary differentials, each by its symmetry, beside that of the first
      const summed = (of: (one: RootedTree) => Amount): Amount =>
        alike
          .map((one) => over(times(of(one), fraction(tree.symmetry)), fraction(one.symmetry)))
          .reduce(plus, of(tree));
      return {
        tree,
        order,
        value: summed((one) => series.of(one)),
        should: summed(exactCoefficient),
        scale: 1,
        withTime,
      };
    });
  };
  // a condition of one method is looked up beside those of many others
  const known = new Map<number, readonly Condition[]>();
  return {
    highest,
    of: (order) => {
      const conditions = known.get(order) ?? made(order);
      known.set(order, conditions);
      return conditions;
    },
  };
}

/**
 * The trees that an order asks for. The errors of a two-step formula for positions add up twice, so that its conditions of
 * one order more are asked; those of a velocity made of positions do not add up at all, and one order less is.
 */
function asked(method: LinearMethod, forest: Forest, order: number): readonly RootedTree[] {
  if (!isPositionsOnly(method)) return forest.ofOrder(order).filter(({ root }) => root !== 't');
  const ahead = forest.ofOrder(order + 1).filter(({ root }) => root === 'x');
  // positions alone: the first conditions of theirs are those of the order before
  const first = order === 1 ? forest.ofOrder(1).filter(({ root }) => root === 'x') : [];
  const velocity = keepsVelocity(method) ? order : order - 1;
  const behind = velocity === 0 ? [] : forest.ofOrder(velocity).filter(({ root }) => root === 'v');
  return [...first, ...ahead, ...behind];
}

/** Trees whose elementary differentials are equal: for a single equation products of the same derivatives. */
function together(
  trees: readonly RootedTree[],
  oneEquation: boolean,
): readonly (readonly [RootedTree, ...RootedTree[]])[] {
  const found = new Map<string, [RootedTree, ...RootedTree[]]>();
  for (const tree of trees) {
    const key = oneEquation ? derivativesIn(tree) : String(tree.id);
    const alike = found.get(key);
    if (alike === undefined) found.set(key, [tree]);
    else alike.push(tree);
  }
  return [...found.values()];
}

/** Whether a condition is satisfied: exactly, or but for rounding where it holds a number that is no fraction. */
function holdsExactly({ value, should, scale }: Condition): boolean {
  return areEqual(value, should, scale);
}

/** The order that conditions give, one after another, and those of the next that fail. */
export function orderOf(
  conditions: Conditions,
  holds: (condition: Condition, index: number) => boolean = holdsExactly,
): Pick<ProvedOrder, 'order' | 'atLeast' | 'failing' | 'looked' | 'asked'> {
  let looked = 0;
  for (let order = 0; order <= conditions.highest; order += 1) {
    const all = conditions.of(order);
    looked += all.length;
    const failing = all.filter((condition, i) => !holds(condition, i));
    if (failing.length > 0) return { order: order - 1, atLeast: false, failing, looked, asked: all.length };
  }
  return { order: conditions.highest, atLeast: true, failing: [], looked, asked: 0 };
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
function constantOf(method: LinearMethod, failing: readonly Condition[], asked: number): Amount | null {
  const [first] = failing;
  if (first === undefined || first.order === 0) return null;
  if (failing.some(({ should }) => isZero(should))) return null;
  const parts = failing.map(({ tree, order, value, should }) => {
    const rest = less(should, value);
    // on the solution every tree has the weight of the whole derivative
    return tree === null ? rest : over(over(rest, should), factorial(order));
  });
  const [one, ...others] = parts;
  if (one === undefined || !others.every((part) => areEqual(part, one))) return null;
  if (first.tree !== null && failing.length < asked) return null;
  return over(one, weightOfSlopes(method));
}

/** For which problems an order is proved. */
export type ProblemKind = 'any' | 'without velocity' | 'autonomous' | 'any Jacobian';

/** The conditions of a method, or of one with other numbers in the same text. */
export type ConditionsOf = (method: LinearMethod) => Conditions;

/**
 * The conditions that a method is asked on a kind of problems.
 *
 * @param isShifted whether times are shifted otherwise than values, so that derivatives by the time count apart
 * @returns null where no order can be proved: some slope lacks its h, or the form is none that is known
 */
export function conditionsFor(
  method: LinearMethod,
  problems: ProblemKind = 'any',
  isShifted = shiftsDiffer(method),
): ConditionsOf | null {
  const isFirst = 'y' in method.next;
  if (!hasConsistentPowers(method) || (!isFirst && method.depth > 0 && !isPositionsOnly(method))) return null;
  if (isFirst && isOnSolution(method)) return byPowers;
  const forest = new Forest({
    form: isFirst ? 'first' : 'second',
    withTime: isShifted && problems !== 'autonomous' && problems !== 'any Jacobian',
    withVelocity: problems !== 'without velocity',
    anyJacobian: problems === 'any Jacobian',
  });
  return (one) => byTrees(one, forest);
}

/**
 * The order of a method, proved from its text: by comparing powers of h where every evaluation lies on the solution
 * (linear multistep and Taylor formulas, C_q of Hairer, Norsett & Wanner III.2), else by the conditions of rooted trees
 * (Butcher; Hairer, Norsett & Wanner II.2 and II.14; for W-methods Hairer & Wanner IV.7), which are generated, also for
 * multistep methods, with exact earlier values.
 *
 * @returns null where no order can be proved: some slope lacks its h, or the form is none that is known
 */
export function proveOrder(method: LinearMethod, problems: ProblemKind = 'any'): ProvedOrder | null {
  const conditions = conditionsFor(method, problems);
  return conditions && provedBy(method, orderOf(conditions(method)));
}

/** What is proved of a method on any problem and, for x'' = a, where a does not depend on the velocity. */
export interface ProvedOrders {
  readonly general: ProvedOrder | null;
  /** Null for a method of first order. */
  readonly withoutVelocity: ProvedOrder | null;
  /** The higher of both, and the problems that it is for. */
  readonly best: ProvedOrder | null;
  readonly problems: ProblemKind;
}

export function provedOrders(method: LinearMethod): ProvedOrders {
  const general = proveOrder(method);
  const withoutVelocity = 'x' in method.next ? proveOrder(method, 'without velocity') : null;
  const isFree = withoutVelocity !== null && general !== null && withoutVelocity.order > general.order;
  return {
    general,
    withoutVelocity,
    best: isFree ? withoutVelocity : general,
    problems: isFree ? 'without velocity' : 'any',
  };
}

/** An order that was found, with what else is proved beside it. */
export function provedBy(
  method: LinearMethod,
  found: ReturnType<typeof orderOf>,
  zero = isPositionsOnly(method) ? zeroStabilityOfPositions(method) : zeroStability(method),
): ProvedOrder {
  const errorConstant = 'y' in method.next ? constantOf(method, found.failing, found.asked) : null;
  return { ...found, zero, errorConstant };
}
