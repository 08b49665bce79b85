import type { DecimalSolution } from '../compile/compile.ts';
import { decimalNumbers } from '../compile/decimal/decimal-numbers.ts';
import type { Decimals } from '../decimal/decimals.ts';
import type { Problem } from '../problem/problem.ts';
import { RhsTrees } from '../program/rhs-tree.ts';
import { formulaValue } from './decimal-formula.ts';

/** The exact solution of a problem in an arithmetic of decimals, operation by operation; no number where none is known. */
export function exactInDecimals(problem: Problem, decimals: Decimals): DecimalSolution {
  const trees = new RhsTrees(problem);
  const own = { decimals, numbers: decimalNumbers(problem, decimals) };
  const formulas = problem.blocks.flatMap((block) =>
    Array.from({ length: block.size }, (_, element) =>
      block.exact === null ? null : trees.at(block.exact, block, element),
    ),
  );
  return (place, t) => {
    const formula = formulas[place] ?? null;
    return formula === null ? decimals.notANumber : formulaValue(own, formula, t, []);
  };
}
