import { parseMethod } from './method/parse-method.ts';
import type { Method } from './method/method.ts';
import { parseProblem } from './problem/parse-problem.ts';
import type { Problem } from './problem/problem.ts';
import type { Reading } from './text/place.ts';

function right<T>(reading: Reading<T>): T {
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return reading.value;
}

/**
 * The problem of a text that is right.
 *
 * @throws Error with the errors of another text
 */
export function problem(text: string): Problem {
  return right(parseProblem(text));
}

/**
 * The method of a text that is right.
 *
 * @throws Error with the errors of another text
 */
export function method(text: string): Method {
  return right(parseMethod(text));
}
