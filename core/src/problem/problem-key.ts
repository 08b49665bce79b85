import type { Problem } from './problem.ts';

/**
 * A text that is the same for the same problem with the same values of its parameters, for caches of what was worked
 * out for it.
 *
 * @param more what it was computed with besides
 * @example
 * problemKey(parseProblem("y' = -k*y\nk = 2\n…"), 'h', 0.5) // '["y\' = …",[2],"h",0.5]'
 */
export function problemKey(problem: Problem, ...more: readonly unknown[]): string {
  return JSON.stringify([problem.text, problem.parameters.map(({ value }) => value), ...more]);
}
