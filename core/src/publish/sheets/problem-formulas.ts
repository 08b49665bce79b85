import type { Expression, IndexedLeaf, NameLeaf } from '../../formula/expression.ts';
import { Meanings } from '../../problem/meaning.ts';
import type { Block, Problem } from '../../problem/problem.ts';
import type { Writing } from '../programs/language.ts';
import { writeFormula } from '../programs/write-formula.ts';
import { bracketed, type CellFormula } from './cell-formula.ts';

/** What stands for the time and the components in a formula. */
export interface Standing {
  readonly time: CellFormula;
  readonly component: (place: number) => CellFormula;
}

/** Formulas of a problem for one element of a block; null for a formula that belongs to none. */
export type ProblemFormula = (
  expression: Expression,
  block: Block | null,
  element: number,
  standing: Standing,
) => CellFormula;

const NAMED: Readonly<Record<string, string>> = { pi: 'PI()', π: 'PI()', e: 'EXP(1)' };

/**
 * Writes formulas of a problem as a spreadsheet reads them: parameters by the names of their cells.
 *
 * @param used is told every function whose last digit may be another in a spreadsheet
 */
export function problemFormulas(
  problem: Problem,
  writing: Pick<Writing, 'number' | 'power' | 'call' | 'choice'>,
  parameters: ReadonlyMap<string, string>,
  used: (name: string) => void,
): ProblemFormula {
  const meanings = new Meanings(problem);
  const signed = (value: number): string =>
    value < 0 ? `(-${writing.number(-value)})` : writing.number(value);
  const write: ProblemFormula = (expression, block, element, standing) => {
    const range = block?.unknown.range ?? null;
    const first = range?.from ?? 0;
    const leaf = (node: NameLeaf | IndexedLeaf): string => {
      if (node.kind === 'name' && node.primes === 0 && node.name !== range?.variable) {
        const own = parameters.get(node.name);
        if (own !== undefined) return own;
      }
      const meaning = meanings.of(node, range?.variable ?? null);
      switch (meaning.kind) {
        case 'time':
          return bracketed(standing.time);
        case 'constant':
          return (node.kind === 'name' ? NAMED[node.name] : undefined) ?? signed(meaning.value);
        case 'position':
          return signed(first + element);
        case 'component':
          return bracketed(standing.component(meaning.place));
        case 'given':
          return bracketed(write(meaning.value, null, 0, standing));
        case 'neighbour': {
          const at = first + element + meaning.shift;
          const { unknown, offset, size } = meaning.block;
          const index = at - (unknown.range?.from ?? 0);
          if (index >= 0 && index < size) return bracketed(standing.component(offset + index));
          const given = unknown.given.get(at);
          return given === undefined ? 'NA()' : bracketed(write(given, null, 0, standing));
        }
      }
    };
    return writeFormula(expression, writing, leaf, used);
  };
  return write;
}
