import { type Expression, some } from '../formula/expression.ts';
import { plainText } from '../formula/plain-text.ts';
import type { Problem } from './problem.ts';

/** A step size as a part of the interval, as one writes it: `2 pi/64`. */
export interface StepExpression {
  readonly text: string;
  /** Whether the interval was written with pi, e or a function, so that the number alone says less. */
  readonly isSymbolic: boolean;
}

function isZero(of: Expression): boolean {
  return of.kind === 'number' && of.value === 0;
}

function writtenLength(low: Expression, high: Expression): Expression {
  return isZero(low) ? high : { kind: 'binary', operator: '-', left: high, right: low, at: high.at };
}

/**
 * The step size that divides the interval of a problem into equal parts, as the part that it is.
 *
 * @param steps how many parts
 * @returns null where the problem has no interval
 * @example stepExpression(problem, 16) // { text: '8/16', isSymbolic: false }
 */
export function stepExpression(problem: Problem, steps: number): StepExpression | null {
  const interval = problem.statements.find((statement) => statement.kind === 'interval');
  if (interval === undefined) return null;
  const length = writtenLength(interval.low, interval.high);
  const isSymbolic = some(
    length,
    (node) => node.kind === 'call' || (node.kind === 'name' && (node.name === 'pi' || node.name === 'e')),
  );
  const written = plainText(length).replaceAll('*', ' ');
  const isSum = length.kind === 'binary' && (length.operator === '+' || length.operator === '-');
  return { text: `${isSum ? `(${written})` : written}/${steps}`, isSymbolic };
}
