import { evaluate } from '../formula/evaluate.ts';
import type { Expression } from '../formula/expression.ts';
import { CONSTANTS } from '../formula/functions.ts';
import { attempt } from '../text/refusal.ts';
import type { Block, Parameter, Problem } from './problem.ts';
import { isExactSolution } from './statement.ts';

/**
 * A formula from which a number of a problem comes, where it does: not where it was replaced by another one, as a slider
 * does.
 */
function ifStillSo(
  formula: Expression,
  value: number,
  known: ReadonlyMap<string, number>,
): Expression | null {
  const found = attempt(() =>
    evaluate(formula, (leaf) =>
      leaf.kind === 'name' && leaf.primes === 0
        ? (known.get(leaf.name) ?? CONSTANTS.get(leaf.name) ?? NaN)
        : NaN,
    ),
  );
  return found.ok && Object.is(found.value, value) ? formula : null;
}

function valuesOf({ parameters }: Pick<Problem, 'parameters'>): ReadonlyMap<string, number> {
  return new Map(parameters.map(({ name, value }) => [name, value]));
}

/** The formula of a parameter; null where its value was replaced. */
export function parameterFormula(problem: Problem, { written, value }: Parameter): Expression | null {
  return ifStillSo(written, value, valuesOf(problem));
}

/** The formulas of both ends of the interval, as they are typed. */
export function intervalFormulas(problem: Problem): {
  readonly start: Expression | null;
  readonly end: Expression | null;
} {
  const interval = problem.statements.find((statement) => statement.kind === 'interval');
  if (interval === undefined) return { start: null, end: null };
  const known = valuesOf(problem);
  return {
    start: ifStillSo(interval.low, problem.start, known),
    end: ifStillSo(interval.high, problem.end, known),
  };
}

/**
 * The formula of the initial values of a block; for a family in its index. Null where several lines give them, or where
 * they were replaced.
 */
export function initialFormula(problem: Problem, block: Block): Expression | null {
  const { name, range } = block.unknown;
  const own = problem.statements.filter(
    (statement) =>
      statement.kind === 'value' &&
      !isExactSolution(statement, problem.independent) &&
      statement.target.name === name &&
      statement.target.primes === block.derivative,
  );
  const [only] = own;
  if (own.length !== 1 || only?.kind !== 'value') return null;
  const known = valuesOf(problem);
  if (range === null) return ifStillSo(only.value, problem.initial[block.offset] ?? NaN, known);
  if (only.range?.variable !== range.variable) return null;
  const isSo = Array.from({ length: block.size }, (_, k) => {
    const here = new Map([...known, [range.variable, range.from + k]]);
    return ifStillSo(only.value, problem.initial[block.offset + k] ?? NaN, here) !== null;
  });
  return isSo.every(Boolean) ? only.value : null;
}

/** The formula of one initial value, and the value of the index of its family there. */
export interface PlacedFormula {
  readonly formula: Expression;
  readonly index: ReadonlyMap<string, number>;
}

/** The formulas of the initial values, by place of the state vector; null where a value was replaced by another one. */
export function initialValueFormulas(problem: Problem): readonly (PlacedFormula | null)[] {
  const known = valuesOf(problem);
  const found = new Array<PlacedFormula | null>(problem.size).fill(null);
  const numberOf = (formula: Expression): number =>
    evaluate(formula, (leaf) =>
      leaf.kind === 'name' ? (known.get(leaf.name) ?? CONSTANTS.get(leaf.name) ?? NaN) : NaN,
    );
  for (const statement of problem.statements) {
    if (statement.kind !== 'value' || isExactSolution(statement, problem.independent)) continue;
    const { target, range, value } = statement;
    const block = problem.blocks.find(
      ({ unknown, derivative }) => unknown.name === target.name && derivative === target.primes,
    );
    if (block === undefined) continue;
    const place = (at: number, index: ReadonlyMap<string, number>): void => {
      const double = problem.initial[at] ?? NaN;
      if (ifStillSo(value, double, new Map([...known, ...index])) !== null)
        found[at] = { formula: value, index };
    };
    const first = block.unknown.range?.from ?? 0;
    if (block.unknown.range === null || target.index === null) place(block.offset, new Map());
    else if (range === null) place(block.offset + numberOf(target.index) - first, new Map());
    else
      for (let i = numberOf(range.from); i <= numberOf(range.to); i += 1)
        place(block.offset + i - first, new Map([[range.variable, i]]));
  }
  return found;
}
