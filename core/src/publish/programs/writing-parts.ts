import type { DecimalPrecision } from '../../decimal/decimal-precision.ts';
import { decimalText } from '../../decimal/decimal-text.ts';
import { decimalsOf } from '../../decimal/decimals.ts';
import type { Writing } from './language.ts';

/** A counter and an integer: `j`, `j + 1`, `j - 2`. */
export function shifted(counter: string, ahead: number): string {
  return ahead === 0 ? counter : ahead > 0 ? `${counter} + ${ahead}` : `${counter} - ${-ahead}`;
}

/** The shortest decimals that are read back as the same double, with a point or an exponent. */
export function decimal(value: number): string {
  const text = String(value);
  return /[.e]/.test(text) ? text : `${text}.0`;
}

/** All digits that a constant of the notation has in an arithmetic; null for a name that is none. */
export function constantDigits(name: string, precision: DecimalPrecision): string | null {
  const value = decimalsOf(precision).constant(name);
  return value.isNaN() ? null : decimalText(value);
}

/** Elements of vectors as C and the languages like it write them. */
export const LIKE_C = {
  at: (vector: string, index: string): string => `${vector}[${index}]`,
  element: (vector: string, i: number): string => `${vector}[${i}]`,
  running: (vector: string, counter: string, ahead: number): string =>
    `${vector}[${shifted(counter, ahead)}]`,
};

/** Elements of vectors as languages write them that count from 1. */
export function countedFromOne(
  element: (vector: string, index: string) => string,
): Pick<Writing, 'at' | 'element' | 'running'> {
  return {
    at: (vector, index) => element(vector, `${index} + 1`),
    element: (vector, i) => element(vector, String(i + 1)),
    running: (vector, counter, ahead) => element(vector, shifted(counter, ahead + 1)),
  };
}

/** Constants and routines by their own names. */
export const BY_NAME: Pick<Writing, 'constant' | 'invoke'> = {
  constant: (name) => name,
  invoke: (name, inputs) => `${name}(${inputs.join(', ')})`,
};

/** Min and max of many as calls of two. */
export function nested(name: string, inputs: readonly string[]): string {
  return inputs.slice(1).reduce((left, right) => `${name}(${left}, ${right})`, inputs[0] ?? '');
}
