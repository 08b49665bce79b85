import { type Expression, partsOf } from '../formula/expression.ts';
import { MAX_TERMS } from '../formula/measure.ts';
import { count } from '../text/number-text.ts';
import { PlaceError } from '../text/place.ts';
import { givenText, type MethodStatement, valuesOf } from './method.ts';

/** Most operations of all lines of a method together, once what they call is written out. */
export const MAX_METHOD_TERMS = 20_000;

/**
 * Refuses a method that grows when it is written out: a line holds each typed function that it calls, and each Jacobian
 * that an earlier line names, as a whole, so that thirty short lines can mean 2^30 operations.
 *
 * @throws PlaceError at the first line that is too large
 */
export function refuseLargeMethod(statements: readonly MethodStatement[]): void {
  /** Operations that a name represents. */
  const sizes = new Map<string, number>();
  const none: ReadonlyMap<string, number> = new Map();
  const sizeOf = (node: Expression, of: ReadonlyMap<string, number>): number => {
    let size = 1 + (node.kind === 'call' || node.kind === 'name' ? (of.get(node.name) ?? 0) : 0);
    for (const part of partsOf(node)) size += sizeOf(part, of);
    return size;
  };
  let total = 0;
  for (const statement of statements) {
    let [size, typed] = [0, 0];
    for (const value of valuesOf(statement)) {
      size += sizeOf(value, sizes);
      typed += sizeOf(value, none);
    }
    total += size;
    // what is typed out is bounded by the length of a text
    if (size > MAX_TERMS && size > typed)
      throw new PlaceError(
        statement.at,
        `this line has more than ${count(MAX_TERMS)} operations once the functions and Jacobians it uses are written out; use fewer of them`,
      );
    if (total > MAX_METHOD_TERMS)
      throw new PlaceError(
        statement.at,
        `up to this line the method has more than ${count(MAX_METHOD_TERMS)} operations once functions and Jacobians are written out; use fewer of them`,
      );
    if (statement.kind === 'function') sizes.set(statement.name, size);
    if (statement.kind === 'let' && statement.shape === 'operator')
      sizes.set(givenText(statement.given), size);
  }
}
