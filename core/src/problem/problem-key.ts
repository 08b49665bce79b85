import { memoizeFor } from '../text/memoize.ts';
import type { Problem } from './problem.ts';

/** The part of all keys of a problem: it is asked for many times in a study. */
const known = memoizeFor<Problem, string>();

/**
 * A text that is the same for the same problem with the same values of its parameters, for caches of what was worked
 * out for it.
 *
 * @param more what it was computed with besides
 * @example
 * problemKey(parseProblem("y' = -k*y\nk = 2\n…"), 'h', 0.5) // '["y\' = …",[2],"h",0.5]'
 */
export function problemKey(problem: Problem, ...more: readonly unknown[]): string {
  const own = known(problem, '', () =>
    JSON.stringify([problem.text, problem.parameters.map(({ value }) => value)]),
  );
  return more.length === 0 ? own : `${own.slice(0, -1)},${JSON.stringify(more).slice(1)}`;
}
