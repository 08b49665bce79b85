import { type RhsLeaf, RhsTrees } from '../../program/rhs-tree.ts';
import type { Bound, Expression } from '../../formula/expression.ts';
import { atom, printer, type TextPart } from '../../formula/printer.ts';
import type { Block, Problem } from '../../problem/problem.ts';
import type { FormulaWriting } from '../programs/language.ts';
import { numberPart, programLanguage } from '../programs/program-language.ts';

/** What represents the time and the components in a formula. */
export interface Standing {
  readonly time: TextPart;
  readonly component: (place: number) => TextPart;
}

/** Formulas of a problem for one element of a block; null for a formula that belongs to none. */
export type ProblemFormula = (
  expression: Expression,
  block: Block | null,
  element: number,
  standing: Standing,
) => TextPart;

/** Stands where there is no value. */
export const MISSING: TextPart = atom('NA()');

const NAMED: Readonly<Record<string, string>> = { pi: 'PI()', π: 'PI()', e: 'EXP(1)' };

/**
 * Writes formulas of a problem as a spreadsheet reads them: parameters by the names of their cells.
 *
 * @param used is called with every function whose last digit may be another in a spreadsheet
 */
export function problemFormulas(
  problem: Problem,
  writing: FormulaWriting,
  parameters: ReadonlyMap<string, string>,
  used: (name: string) => void,
): ProblemFormula {
  const trees = new RhsTrees(problem);
  const leaf = (to: RhsLeaf, standing: Standing): TextPart => {
    switch (to.kind) {
      case 'time':
        return standing.time;
      case 'constant': {
        const own = to.name === null ? undefined : (parameters.get(to.name) ?? NAMED[to.name]);
        return own === undefined ? numberPart(to.value, writing) : atom(own);
      }
      case 'component':
        return standing.component(to.place);
      default:
        return MISSING;
    }
  };
  return (expression, block, element, standing) => {
    const language = programLanguage(writing, ({ to }: Bound<RhsLeaf>) => leaf(to, standing), used);
    return printer<TextPart, Bound<RhsLeaf>>(language)(trees.at(expression, block, element));
  };
}
