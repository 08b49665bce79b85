import { pow } from '../../elementary/power.ts';
import { walk } from '../../formula/expression.ts';
import { type Method, valuesOf } from '../../method/method.ts';
import type { Span } from '../../text/place.ts';
import { areEqual, inexactly, less } from '../form/amount.ts';
import { kindOf } from '../form/kind.ts';
import type { LinearMethod } from '../form/linear-method.ts';
import { readLinear } from '../form/read-linear.ts';
import { zeroStability } from '../stability/zero-stability.ts';
import { highestOrder } from './highest-order.ts';
import {
  type Condition,
  conditionsFor,
  orderOf,
  type ProblemKind,
  provedBy,
  type ProvedOrder,
} from './prove-order.ts';
import { shiftsOf } from './step-series.ts';

/** A decimal of a text that may be the rounding of another number. */
export interface RoundedDecimal {
  readonly value: number;
  readonly at: Span;
  /** Half a unit of its last digit. */
  readonly halfUnit: number;
  /** Significant digits as typed. */
  readonly digits: number;
}

/** The order of a method whose decimals are taken as roundings of the coefficients that are meant. */
export interface WithinDigits {
  readonly proof: ProvedOrder;
  /** The order of the text taken exactly. */
  readonly exact: ProvedOrder;
  /** How far the conditions of the first order that the text taken exactly fails are off, at most. */
  readonly defect: number;
  /** Fewest significant digits of a decimal. */
  readonly digits: number;
  /** Whether times and values are shifted alike but for the digits. */
  readonly shiftsAgree: boolean;
  /** How far sums of coefficients may be off by rounding, about. */
  readonly slack: number;
}

/** Fewest significant digits of a decimal that is taken for a rounded one: 0.5 and 0.25 are meant as they are. */
const FEWEST = 3;
/** A decimal that is a multiple of this is meant as it is: 0.125, 0.0625. */
const DYADIC = 1 / 1024;
const DECIMAL = /^0*(\d*)(?:\.(\d*))?(?:[eE]([+-]?\d+))?$/;

/** The decimals of a text that may be rounded, in the order of the text. */
export function roundedDecimals(method: Method): readonly RoundedDecimal[] {
  const found: RoundedDecimal[] = [];
  for (const statement of method.statements)
    for (const formula of valuesOf(statement))
      walk(formula, (node) => {
        if (node.kind !== 'number' || Number.isInteger(node.value / DYADIC)) return;
        const written = method.text.slice(node.at.from, node.at.to);
        const [, whole = '', decimals = '', exponent = '0'] = DECIMAL.exec(written) ?? [];
        const digits = `${whole}${decimals}`.replace(/^0+/, '').length;
        if (digits < FEWEST) return;
        const typed = 0.5 * pow(10, Number(exponent) - decimals.length);
        // a double has no more digits than it has
        const halfUnit = Math.max(typed, (Number.EPSILON / 2) * Math.abs(node.value));
        found.push({ value: node.value, at: node.at, halfUnit, digits });
      });
  return found.sort((a, b) => a.at.from - b.at.from);
}

/** One of each value: equal decimals are roundings of one number. */
function distinct(decimals: readonly RoundedDecimal[]): readonly RoundedDecimal[] {
  return [...new Map(decimals.map((one) => [one.value, one])).values()];
}

/**
 * How many standard deviations of rounding a condition may be off: each decimal is off by up to half a unit, evenly spread,
 * with the standard deviation 1/sqrt(3) of that.
 */
const DEVIATIONS = 4 / Math.sqrt(3);
/** Digits that are cut off and not rounded are off by less than two half units. */
const CUT_OFF = 1.99;
/** Distance at which derivatives by a decimal are taken, where its half unit is less. */
const LEAST_CHANGE = 1e-6;

/** The same method with one decimal changed, and by how many half units. */
interface Changed {
  readonly linear: LinearMethod;
  readonly halfUnits: number;
}

function changedMethods(
  method: Method,
  decimals: readonly RoundedDecimal[],
  stages: number,
): readonly Changed[] {
  return decimals.flatMap(({ value, halfUnit }) => {
    const by = Math.max(halfUnit, LEAST_CHANGE * Math.max(1, Math.abs(value)));
    const linear = readLinear(method, (number) => inexactly(number === value ? value + by : number));
    return 'why' in linear || linear.stages.length !== stages ? [] : [{ linear, halfUnits: by / halfUnit }];
  });
}

/** Whether a number is what it should be, but for the rounding of decimals that change it by so much each. */
function isWithin(off: number, effects: readonly number[]): boolean {
  const most = effects.reduce((sum, effect) => sum + Math.abs(effect), 0);
  return Math.abs(off) <= Math.min(DEVIATIONS * Math.hypot(...effects), CUT_OFF * most);
}

/**
 * The order of a method within the digits of its decimals: every condition holds exactly, or is off by no more than their
 * rounding can be. To first order in the rounding, with equal decimals rounded alike.
 *
 * @param exact the order of the text taken exactly
 * @returns null where no decimal is rounded, or the order within the digits is not above that of the text taken exactly
 */
export function withinDigits(
  method: Method,
  linear: LinearMethod,
  exact: ProvedOrder,
  problems: ProblemKind = 'any',
): WithinDigits | null {
  const decimals = distinct(roundedDecimals(method));
  const doubles = readLinear(method, inexactly);
  if (decimals.length === 0 || 'why' in doubles) return null;
  const changed = changedMethods(method, decimals, linear.stages.length);
  const effectsOn = (base: number, of: (other: LinearMethod) => number): readonly number[] =>
    changed.map((other) => (of(other.linear) - base) / other.halfUnits);
  const shiftsAgree = shiftsOf(linear).every(({ moved, shift }, i) => {
    if (areEqual(moved, shift)) return true;
    const offOf = (other: LinearMethod): number => {
      const one = shiftsOf(other)[i];
      return one === undefined ? NaN : one.moved.value - one.shift.value;
    };
    return isWithin(less(moved, shift).value, effectsOn(offOf(doubles), offOf));
  });
  const isShifted = !shiftsAgree || linear.stages.some(({ partial }) => partial !== null);
  const conditionsOf = conditionsFor(linear, problems, isShifted);
  if (conditionsOf === null) return null;
  const highest = highestOrder(kindOf(linear), linear.stages.length, linear.depth);
  const [base, ...others] = [doubles, ...changed.map((other) => other.linear)].map(conditionsOf);
  const holds = (condition: Condition, i: number): boolean => {
    const { value, should, order } = condition;
    if (areEqual(value, should, condition.scale)) return true;
    if (order > highest) return false;
    const plain = base?.of(order)[i]?.value.value ?? NaN;
    const effects = others.map(
      (other, k) => ((other.of(order)[i]?.value.value ?? NaN) - plain) / changed[k]!.halfUnits,
    );
    return isWithin(less(value, should).value, effects);
  };
  const found = orderOf(conditionsOf(linear), holds);
  if (found.order <= exact.order) return null;
  const near = 40 * Math.max(...decimals.map(({ halfUnit }) => halfUnit));
  return {
    proof: provedBy(linear, found, zeroStability(linear, near)),
    exact,
    defect: Math.max(...exact.failing.map(({ value, should }) => Math.abs(less(value, should).value))),
    digits: Math.min(...decimals.map(({ digits }) => digits)),
    shiftsAgree,
    slack: near,
  };
}
