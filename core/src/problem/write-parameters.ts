import type { ParameterValues } from './parse-problem.ts';
import type { Problem } from './problem.ts';

/**
 * The text of a problem with other values of parameters written into it; all else stays as it was typed.
 *
 * @example writeParameters(problem, { k: 0.5 }).split('\n')[1] // 'k = 0.5'
 */
export function writeParameters(problem: Problem, values: ParameterValues): string {
  const changed = problem.parameters
    .filter(({ name }) => Object.hasOwn(values, name))
    .sort((a, b) => b.written.at.from - a.written.at.from);
  return changed.reduce(
    (text, { name, written }) =>
      `${text.slice(0, written.at.from)}${values[name] ?? ''}${text.slice(written.at.to)}`,
    problem.text,
  );
}
