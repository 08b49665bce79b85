import type { NumberLeaf, Operator, Relation } from './expression.ts';
import { pow } from '../elementary/power.ts';
import { FUNCTIONS } from './functions.ts';

/** How often `x^n` is spelled out as a product; other powers go to the power function. */
export const SPELLED_POWERS: ReadonlySet<number> = new Set([2, 3]);

/**
 * The power of the notation: `x^2` is x*x, `x^3` is (x*x)*x, any other goes to the power function.
 * `spelled` says whether the exponent is in the text as the literal 2 or 3.
 */
export function power(base: number, exponent: number, spelled: boolean): number {
  if (!spelled) return pow(base, exponent);
  return exponent === 2 ? base * base : base * base * base;
}

/** One operation in double precision; `spelled` concerns powers alone. */
export function operate(operator: Operator, left: number, right: number, spelled: boolean): number {
  switch (operator) {
    case '+':
      return left + right;
    case '-':
      return left - right;
    case '*':
      return left * right;
    case '/':
      return left / right;
    case '^':
      return power(left, right, spelled);
  }
}

/** What formulas are evaluated with: doubles, numbers of 32 bits, or decimals. */
export interface Arithmetic<V> {
  /** A number of the text. */
  readonly number: (leaf: NumberLeaf) => V;
  /** The value of a leaf, as the arithmetic keeps it. */
  readonly kept: (value: V) => V;
  readonly negate: (value: V) => V;
  /** One operation, rounded. */
  readonly operate: (operator: Operator, left: V, right: V) => V;
  /** A function of the notation, rounded. */
  readonly call: (name: string, inputs: readonly V[]) => V;
  readonly compare: (relation: Relation, left: V, right: V) => boolean;
}

/**
 * Doubles, each result of which is rounded.
 *
 * @param round the identity for double, Math.fround for single precision
 */
export function roundedDoubles(round: (x: number) => number): Arithmetic<number> {
  return {
    number: ({ value }) => round(value),
    kept: round,
    negate: (value) => -value,
    operate: (operator, left, right) => round(operate(operator, left, right, false)),
    call: (name, inputs) => round(applyFunction(name, inputs)),
    compare,
  };
}

/** Whether a comparison holds; with a NaN none does but `!=`. */
export function compare(relation: Relation, left: number, right: number): boolean {
  switch (relation) {
    case '<':
      return left < right;
    case '<=':
      return left <= right;
    case '>':
      return left > right;
    case '>=':
      return left >= right;
    case '==':
      return left === right;
    case '!=':
      return left !== right;
  }
}

/** The value of a function of the notation; NaN for a name that is none, which no parsed text can hold. */
export function applyFunction(name: string, inputs: readonly number[]): number {
  return FUNCTIONS.get(name)?.evaluate(...inputs) ?? NaN;
}
