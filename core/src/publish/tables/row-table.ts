import type { CompiledRun } from '../../compile/compile.ts';
import type { Row } from '../../run/rows.ts';
import { Refusal } from '../../text/refusal.ts';
import { rowsTable } from '../rows-table.ts';
import { column, type Table } from './table.ts';

/** What a table of rows shows. */
export interface RowTableOptions {
  /** Names of columns besides n and t; null for all. */
  readonly columns: readonly string[] | null;
  /** Significant digits of the numbers; null for whole doubles. */
  readonly digits: number | null;
}

/**
 * Rows of a run: n, t, and of the rest what is chosen by its name, as `rowsTable` has it.
 *
 * @throws Refusal for a name that no column has
 * @example rowTable('Rows', run, rows, { columns: ['k1'], digits: 6 }).columns.length // 3
 */
export function rowTable(
  caption: string,
  run: CompiledRun,
  rows: readonly Row[],
  { columns: chosen, digits }: RowTableOptions,
): Table {
  const { header, rows: cells } = rowsTable(run, rows);
  const strange = chosen?.find((name) => !header.includes(name));
  if (strange !== undefined)
    throw new Refusal(
      'missing',
      `there is no column ${strange}; there are ${header.slice(2, 14).join(', ')}`,
    );
  const places = header.flatMap((name, i) => (i < 2 || chosen === null || chosen.includes(name) ? [i] : []));
  return {
    caption,
    groups: null,
    columns: places.map((i) =>
      column(header[i] ?? '', i === 0 ? 'n' : i === 1 ? (header[1] ?? 't') : null, i === 0 ? null : digits),
    ),
    rows: cells.map((row) => places.map((i) => row[i] ?? null)),
  };
}
