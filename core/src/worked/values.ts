import { applyFunction, compare, operate } from '../formula/arithmetic.ts';
import { isSpelledPower } from '../formula/evaluate.ts';
import type { Call, Expression, IndexedLeaf, NameLeaf } from '../formula/expression.ts';
import { CONSTANTS } from '../formula/functions.ts';

/** A number, or one for each component of a vector. */
export type Value = number | readonly number[];

/** What names and calls of a method's formula stand for in one step; null for what cannot be said. */
export interface StepNames {
  /** Values of calls that were found before: a nested call would be worked out once for each call around it. */
  readonly known: WeakMap<Expression, Value | null>;
  readonly leaf: (leaf: NameLeaf | IndexedLeaf) => Value | null;
  /** A call of f, a, or a derivative; `inputs` are its values. */
  readonly called: (call: Call<NameLeaf | IndexedLeaf>, inputs: readonly Value[]) => Value | null;
}

/** A component of a value; a plain number is the same for all. */
export function componentOf(value: Value, component: number): number {
  return typeof value === 'number' ? value : (value[component] ?? NaN);
}

/** An operation on values, component by component. */
function combined(inputs: readonly Value[], make: (...numbers: number[]) => number): Value {
  const width = Math.max(...inputs.map((input) => (typeof input === 'number' ? 0 : input.length)));
  if (width <= 0) return make(...inputs.map((input) => componentOf(input, 0)));
  return Array.from({ length: width }, (_, j) => make(...inputs.map((input) => componentOf(input, j))));
}

/**
 * The value of a method's formula, in the order of its text.
 *
 * @returns null where a part of it has no value here
 */
export function valueOf(expression: Expression, names: StepNames): Value | null {
  const all = (parts: readonly Expression[]): readonly Value[] | null => {
    const values = parts.map((part) => valueOf(part, names));
    return values.every((value) => value !== null) ? values : null;
  };
  switch (expression.kind) {
    case 'number':
      return expression.value;
    case 'name':
      return names.leaf(expression) ?? CONSTANTS.get(expression.name) ?? null;
    case 'indexed':
      return names.leaf(expression);
    case 'negate': {
      const inputs = all([expression.of]);
      return inputs && combined(inputs, (x) => -x);
    }
    case 'binary': {
      const { operator, left, right } = expression;
      const inputs = all([left, right]);
      return inputs && combined(inputs, (x, y) => operate(operator, x, y, isSpelledPower(right)));
    }
    case 'if': {
      const sides = all([expression.test.left, expression.test.right]);
      const [left, right] = sides ?? [];
      if (typeof left !== 'number' || typeof right !== 'number') return null;
      return valueOf(compare(expression.test.relation, left, right) ? expression.yes : expression.no, names);
    }
    case 'call': {
      const known = names.known.get(expression);
      if (known !== undefined) return known;
      const inputs = all(expression.inputs);
      const value = inputs && callValue(expression, inputs, names);
      names.known.set(expression, value);
      return value;
    }
  }
}

function callValue(
  expression: Call<NameLeaf | IndexedLeaf>,
  inputs: readonly Value[],
  names: StepNames,
): Value | null {
  const called = names.called(expression, inputs);
  if (called !== null || expression.primes > 0) return called;
  return combined(inputs, (...numbers) => applyFunction(expression.name, numbers));
}
