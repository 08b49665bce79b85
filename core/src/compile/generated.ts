import { COEFFICIENTS } from './nodes/inlined.ts';
import { GENERATED_CALLS } from '../formula/functions.ts';
import { largest, solveBanded, solveDense } from './newton/linear-system.ts';

/** What generated code may call, besides Math: all of it made here. */
export interface Helpers {
  /** Taylor coefficients of the system at hand up to an order. */
  readonly jet?: (order: number) => unknown;
  /** The memory of the inner loops, and the loops themselves. */
  readonly BUFFER?: ArrayBuffer;
  readonly K?: readonly unknown[];
}

/**
 * Builds a function from generated source. The only place where text becomes code: the source is made of
 * names of the generators, printed numbers and functions of the fixed table, never of a user's characters.
 *
 * @param source the text of one function expression
 */
export function generatedFunction<T extends (...inputs: never[]) => unknown>(
  source: string,
  helpers: Helpers = {},
): T {
  const known = {
    ...GENERATED_CALLS,
    COEFFICIENTS,
    F: Math.fround,
    solveDense,
    solveBanded,
    largest,
    ...helpers,
  };
  const make = new Function(...Object.keys(known), `"use strict"; return ${source};`);
  const made: unknown = Reflect.apply(make, null, Object.values(known));
  if (!isFunction<T>(made)) throw new Error('the generated source is not a function');
  return made;
}

/** The generator vouches for the parameters; that it is a function at all is looked at. */
function isFunction<T>(value: unknown): value is T {
  return typeof value === 'function';
}
