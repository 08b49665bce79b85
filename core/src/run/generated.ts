import { mod } from '../formula/functions.ts';

/**
 * Builds a function from generated source. The only place where text becomes code: the source is made of
 * names of the generators, printed numbers and functions of the fixed table, never of a user's characters.
 *
 * @param source the text of one function expression
 */
export function generatedFunction<T extends (...inputs: never[]) => unknown>(source: string): T {
  const make = new Function('mod', 'F', `"use strict"; return ${source};`);
  const made: unknown = Reflect.apply(make, null, [mod, Math.fround]);
  if (!isFunction<T>(made)) throw new Error('the generated source is no function');
  return made;
}

/** The generator vouches for the parameters; that it is a function at all is looked at. */
function isFunction<T>(value: unknown): value is T {
  return typeof value === 'function';
}
