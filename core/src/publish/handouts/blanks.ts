import { Refusal } from '../../text/refusal.ts';
import type { Table } from '../tables/table.ts';

/** What students fill in: cells of the table, whole columns, rows behind the first, numbers of the formula. */
export interface Blanks {
  /** Columns by their titles, in every row that `after` leaves. */
  readonly columns: readonly string[];
  /** Rows up to this one stay filled; null where no rows are blank as a whole. Rows count as `rowNumber` says. */
  readonly after: number | null;
  /** Single cells: the row, and the title of the column. */
  readonly cells: readonly { readonly row: number; readonly column: string }[];
  /** Whether the numbers of the method's formula are left out. */
  readonly coefficients: boolean;
}

export const NO_BLANKS: Blanks = { columns: [], after: null, cells: [], coefficients: false };

/** Columns that say where a row is, and that no one has to work out. */
const GIVEN = new Set(['n', 'N', 'h']);

function titlesOf({ columns, groups }: Table): readonly string[] {
  const over =
    groups?.flatMap(({ title, columns: count }) => Array.from({ length: count }, () => title)) ?? [];
  return columns.map(({ title }, i) => (over[i] ? `${over[i]}: ${title}` : title));
}

/** Whether a table has the rows of a run, and not step sizes. */
export function isOfRun({ columns }: Table): boolean {
  return columns[0]?.title === 'n';
}

/** The number by which a row is named: its n in the rows of a run, and its place, from 1, among step sizes. */
export function rowNumber(table: Table, r: number): number {
  const n = isOfRun(table) ? table.rows[r]?.[0] : null;
  return typeof n === 'number' ? n : r + 1;
}

/**
 * Which cells of a table are left blank, row by row.
 *
 * @throws Refusal where a column or a row is named that the table does not have
 */
export function blankCells(table: Table, blanks: Blanks): readonly (readonly boolean[])[] {
  const titles = titlesOf(table);
  const plain = table.columns.map(({ title }) => title);
  const is = (i: number, name: string): boolean => titles[i] === name || plain[i] === name;
  for (const name of [...blanks.columns, ...blanks.cells.map(({ column }) => column)])
    if (!plain.some((_, i) => is(i, name)))
      throw new Refusal(
        'missing',
        `there is no column ${name}; there are ${[...new Set(titles)].slice(0, 12).join(', ')}`,
      );
  const numbers = table.rows.map((_, r) => rowNumber(table, r));
  for (const { row } of blanks.cells)
    if (!numbers.includes(row))
      throw new Refusal(
        'missing',
        `there is no row ${row}; the rows are ${numbers[0] ?? 0} to ${numbers.at(-1) ?? 0}`,
      );
  const isGiven = (i: number): boolean => GIVEN.has(plain[i] ?? '') || (i === 1 && isOfRun(table));
  return table.rows.map((row, r) =>
    row.map((cell, i) => {
      if (cell === null) return false;
      if (blanks.cells.some(({ row: at, column }) => at === numbers[r] && is(i, column))) return true;
      const named = blanks.columns.some((name) => is(i, name));
      if (blanks.after === null) return named;
      if ((numbers[r] ?? 0) <= blanks.after) return false;
      return blanks.columns.length === 0 ? !isGiven(i) : named;
    }),
  );
}

const WORD =
  /^(?:columns\s+(?<columns>.+)|rows\s+after\s+(?<after>\d+)|cells\s+(?<cells>.+)|(?<coefficients>coefficients))$/;

/**
 * Reads blanks as one types them: `columns k1, k2; rows after 2; cells 3 k1, 4 y; coefficients`.
 *
 * @throws Refusal for what is none of these
 */
export function parseBlanks(text: string): Blanks {
  let blanks = NO_BLANKS;
  for (const part of text.split(';').map((piece) => piece.trim())) {
    if (part === '') continue;
    const found = WORD.exec(part)?.groups;
    if (found === undefined)
      throw new Refusal(
        'form',
        `"${part}" is not a blank; write columns k1, k2 or rows after 2 or cells 3 k1, 4 k1 or coefficients`,
      );
    const { columns, after, cells } = found;
    const list = (written: string): readonly string[] =>
      written
        .split(',')
        .map((name) => name.trim())
        .filter((name) => name !== '');
    if (columns !== undefined) blanks = { ...blanks, columns: list(columns) };
    else if (after !== undefined) blanks = { ...blanks, after: Number(after) };
    else if (cells !== undefined)
      blanks = {
        ...blanks,
        cells: list(cells).map((cell) => {
          const [, row, column] = /^(\d+)\s+(.+)$/.exec(cell) ?? [];
          if (row === undefined || column === undefined)
            throw new Refusal('form', `"${cell}" is not a cell; write its row and its column, as in 3 k1`);
          return { row: Number(row), column };
        }),
      };
    else blanks = { ...blanks, coefficients: true };
  }
  return blanks;
}
