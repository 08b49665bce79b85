import { namesOf } from '../../text/names-of.ts';
import type { CsvCell } from '../csv.ts';

/** A column of a table for people: its title, as text and as mathematics where it is some. */
export interface Column {
  readonly title: string;
  /** TeX of the title without the signs of mathematics; null where the title is plain text. */
  readonly tex: string | null;
  /** Significant digits of its numbers; null for whole doubles. */
  readonly digits: number | null;
}

/** Columns that are under one title, such as those of a method: how many. */
export interface ColumnGroup {
  readonly title: string;
  readonly columns: number;
}

/** A table for export. */
export interface Table {
  readonly caption: string;
  /** Titles over the columns, in order; null where they have none. */
  readonly groups: readonly ColumnGroup[] | null;
  readonly columns: readonly Column[];
  readonly rows: readonly (readonly CsvCell[])[];
}

/** The formats that a table can be exported in. */
export const TABLE_LABELS = {
  csv: 'CSV',
  md: 'Markdown',
  tex: 'LaTeX',
  html: 'HTML',
  txt: 'Text',
} as const;
export type TableFormat = keyof typeof TABLE_LABELS;
export const TABLE_FORMATS = namesOf(TABLE_LABELS);

/**
 * Whether a table can be written in a format.
 *
 * @example isTableFormat('tex') // true
 */
export function isTableFormat(format: string): format is TableFormat {
  return TABLE_FORMATS.some((known) => known === format);
}

export function column(title: string, tex: string | null = null, digits: number | null = null): Column {
  return { title, tex, digits };
}
