import type { Decimal } from 'decimal.js';
import { decimalNumbers } from '../compile/decimal/decimal-numbers.ts';
import { wider } from '../decimal/decimal-precision.ts';
import { type Decimals, decimalsOf } from '../decimal/decimals.ts';
import type { Problem } from '../problem/problem.ts';
import { RhsTrees } from '../program/rhs-tree.ts';
import { formulaValue } from './decimal-formula.ts';

/** Digits with which a conserved quantity is computed beyond those of the run. */
const MORE_DIGITS = 20;

/** The conserved quantities of a problem at a time and state of a run in decimals, in the order of the problem. */
export type DecimalConserved = (t: Decimal, state: readonly Decimal[]) => readonly Decimal[];

/**
 * The conserved quantities of a problem with more digits than a run has, so that what moves is the run and not the
 * rounding of the quantity.
 *
 * @param run the arithmetic of the run
 */
export function conservedInDecimals(problem: Problem, run: Decimals): DecimalConserved {
  const decimals = decimalsOf(wider(run.workingDigits + MORE_DIGITS));
  const own = { decimals, numbers: decimalNumbers(problem, decimals) };
  const trees = new RhsTrees(problem);
  const formulas = problem.conserved.map(({ value }) => trees.at(value, null, 0));
  return (t, state) => formulas.map((formula) => formulaValue(own, formula, t, state));
}
