import type { Decimal } from 'decimal.js';
import type { Decimals } from '../../decimal/decimals.ts';
import { evaluateIn } from '../../formula/evaluate.ts';
import type { Expression } from '../../formula/expression.ts';
import {
  parameterFormula,
  intervalFormulas,
  initialValueFormulas,
} from '../../problem/formulas-of-numbers.ts';
import { componentNames, type Problem } from '../../problem/problem.ts';
import type { NumberNode } from '../nodes/code-node.ts';

/** A number of a formula: a parameter or a constant of the notation by its name; null for one that has none. */
export interface NamedNumber {
  readonly name: string | null;
  readonly value: number;
}

/** The numbers of a problem in an arithmetic of decimals: computed from their formulas, with all digits as typed. */
export interface DecimalNumbers {
  readonly start: Decimal;
  readonly end: Decimal;
  readonly initial: readonly Decimal[];
  /** A parameter or a constant by its name, or else a number that has none. */
  readonly constant: (leaf: NamedNumber) => Decimal;
}

/** The numbers of a problem; what a slider has replaced is the shortest decimal number of its double. */
export function decimalNumbers(problem: Problem, decimals: Decimals): DecimalNumbers {
  const known = new Map<string, Decimal>();
  const named = (name: string): Decimal => known.get(name) ?? decimals.constant(name);
  const valueOf = (
    formula: Expression | null,
    double: number,
    own: ReadonlyMap<string, number> = new Map(),
  ): Decimal => {
    if (formula === null) return decimals.fromDouble(double);
    return evaluateIn(decimals, formula, (leaf) => {
      if (leaf.kind !== 'name' || leaf.primes > 0) return decimals.notANumber;
      const index = own.get(leaf.name);
      return index === undefined ? named(leaf.name) : decimals.fromDouble(index);
    });
  };
  for (const parameter of problem.parameters)
    known.set(
      parameter.name,
      decimals.stored(valueOf(parameterFormula(problem, parameter), parameter.value)),
    );
  const { start, end } = intervalFormulas(problem);
  const initial = initialValueFormulas(problem);
  return {
    start: decimals.stored(valueOf(start, problem.start)),
    end: decimals.stored(valueOf(end, problem.end)),
    initial: componentNames(problem).map((_, place) => {
      const found = initial[place] ?? null;
      return decimals.stored(valueOf(found && found.formula, problem.initial[place] ?? NaN, found?.index));
    }),
    constant: ({ name, value }) => (name === null ? decimals.fromDouble(value) : named(name)),
  };
}

/** The number of a node of code: by its name, by its digits, or by its double. */
export function decimalOfNode(
  { value, spelled }: NumberNode,
  numbers: DecimalNumbers,
  decimals: Decimals,
): Decimal {
  if (spelled !== null && /^[\d.]/.test(spelled)) return decimals.typed(spelled);
  return numbers.constant({ name: spelled, value });
}
