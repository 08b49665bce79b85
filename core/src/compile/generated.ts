import { LRUCache } from 'lru-cache';
import { COEFFICIENTS } from './nodes/inlined.ts';
import { GENERATED_CALLS } from '../formula/functions.ts';
import { largest, solveBanded, solveDense } from './newton/linear-system.ts';

/** What generated code may call, besides Math: all of it made here. */
export interface Helpers {
  /** Taylor coefficients of the system at hand up to an order. */
  readonly jet?: (order: number) => unknown;
  /** Values of parameters. */
  readonly P?: Float64Array;
  /** The memory of the inner loops, and the loops themselves. */
  readonly BUFFER?: ArrayBuffer;
  readonly K?: readonly unknown[];
  /** The arithmetic of a loop in decimals, its numbers, and Newton's method in it. */
  readonly A?: object;
  readonly C?: readonly unknown[];
  readonly SOLVE?: unknown;
}

/** Takes what the source may call, and answers the function. */
type Factory = (...known: readonly unknown[]) => unknown;

/** Characters of source that are kept. */
const MAX_CHARACTERS = 2e6;

/**
 * Source that was made into code, with the names of its helpers. Functions of one factory share what an engine has
 * learnt and compiled of them, so that a problem whose parameters are moved does not begin anew.
 */
const factories = new LRUCache<string, Factory>({
  maxSize: MAX_CHARACTERS,
  sizeCalculation: (_, source) => source.length,
});

function factoryOf(names: readonly string[], source: string): Factory {
  const body = `"use strict"; return ${source};`;
  const key = `${names.join()} ${body}`;
  const known = factories.get(key);
  if (known !== undefined) return known;
  const make = new Function(...names, body);
  const factory: Factory = (...values) => Reflect.apply(make, null, values);
  factories.set(key, factory);
  return factory;
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
  const made = factoryOf(Object.keys(known), source)(...Object.values(known));
  if (!isFunction<T>(made)) throw new Error('the generated source is not a function');
  return made;
}

/** The generator vouches for the parameters; that it is a function at all is looked at. */
function isFunction<T>(value: unknown): value is T {
  return typeof value === 'function';
}
