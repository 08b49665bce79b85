import type { RowsWindow, SideRow, SideRows } from '../worker/messages.ts';
import type { RowErrors } from './row-error.ts';
import { formatted, type NumberFormat } from './number-format.tsx';
import { sideGroups } from './side-columns.ts';
import { type StepCell } from './steps-table.tsx';

/** A heading as a cell: no title becomes a formula of a spreadsheet, and none breaks the line. */
function heading(text: string): string {
  return (/^[=+\-@]/.test(text) ? `'${text}` : text).replaceAll(/[\t\n\r]/g, ' ');
}

function table(
  headings: readonly string[],
  rows: readonly (readonly (number | string | null | undefined)[])[],
  format: NumberFormat,
): readonly (readonly string[])[] {
  const cell = (value: number | string | null | undefined, i: number): string => {
    if (value == null) return '';
    return i === 0 || typeof value === 'string' ? String(value) : formatted(value, format);
  };
  return [headings.map(heading), ...rows.map((row) => row.map(cell))];
}

/** Rows of all methods as plain cells that a spreadsheet takes, under their headings. */
export function sideCells(
  side: SideRows,
  independent: string,
  { titles, errors }: { readonly titles: readonly string[]; readonly errors: RowErrors },
  format: NumberFormat,
): readonly (readonly string[])[] {
  const columns = sideGroups(side, errors).flatMap(({ method, columns: own }) =>
    own.map((column) => ({
      ...column,
      heading: method === null ? column.heading : `${titles[method] ?? ''}: ${column.heading}`,
    })),
  );
  const headings = ['n', independent, ...columns.map((column) => column.heading)];
  const row = (of: SideRow): readonly (number | string | null)[] => [
    of.n,
    of.t,
    ...columns.map(({ value, digits }) => (format.kind === 'full' ? digits?.(of) : null) ?? value(of)),
  ];
  return table(headings, side.rows.map(row), format);
}

/** Rows of one method with the columns that are shown, likewise. */
export function stepsCells(
  { rows }: Pick<RowsWindow, 'rows'>,
  cells: readonly StepCell[],
  independent: string,
  format: NumberFormat,
): readonly (readonly string[])[] {
  return table(
    ['n', independent, ...cells.map((cell) => cell.heading)],
    rows.map((row, place) => [
      row.n,
      row.t,
      ...cells.map(({ value, digits }) => {
        // all digits of a run in decimals, where all are wanted
        const all = format.kind === 'full' && row.digits !== null ? digits?.(row.digits) : null;
        return all ?? value(row, place);
      }),
    ]),
    format,
  );
}
