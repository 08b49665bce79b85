import { columnLetters } from './workbook.ts';

/**
 * A formula whose cells are given by their column and how many rows they are from its own. It is a text in which such a
 * cell is a mark, so that formulas are put together as texts and written out row by row.
 */
export type CellFormula = string;

const MARK = /⟦(\d+):(-?\d+)⟧/g;

/** The cell of a column, `ahead` rows below that of the formula. */
export function cellAt(column: number, ahead = 0): CellFormula {
  return `⟦${column}:${ahead}⟧`;
}

/** The same formula for a row that is `by` rows further down than the cells it was made for. */
export function fromBelow(formula: CellFormula, by: number): CellFormula {
  return formula.replace(MARK, (_, column: string, ahead: string) =>
    cellAt(Number(column), Number(ahead) - by),
  );
}

/** Writes a formula out for rows, counted from 0. */
export function writerOf(formula: CellFormula): (row: number) => string {
  const parts: (string | { readonly letters: string; readonly ahead: number })[] = [];
  let from = 0;
  for (const found of formula.matchAll(MARK)) {
    const [whole, column = '0', ahead = '0'] = found;
    parts.push(formula.slice(from, found.index));
    parts.push({ letters: columnLetters(Number(column)), ahead: Number(ahead) });
    from = found.index + whole.length;
  }
  parts.push(formula.slice(from));
  return (row) =>
    parts
      .map((part) => (typeof part === 'string' ? part : `${part.letters}${row + part.ahead + 1}`))
      .join('');
}
