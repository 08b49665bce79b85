/** A formula without its sign of equality, and its value, for readers that do not calculate. */
export interface Formula {
  readonly formula: string;
  readonly result?: number | string;
}

/** What a cell holds: a text, a number, a formula, or nothing. */
export type CellContent = string | number | Formula | null;

/** How a cell looks. */
export type CellKind =
  'answer' | 'plain' | 'title' | 'note' | 'head' | 'count' | 'input' | 'value' | 'error' | 'order';

export interface SheetCell {
  readonly content: CellContent;
  readonly kind: CellKind;
}

/** A chart of columns of its sheet. */
export interface SheetChart {
  readonly title: string;
  /** The column of the horizontal axis, and those that are drawn over it. */
  readonly x: { readonly title: string; readonly column: number };
  readonly series: readonly { readonly title: string; readonly column: number }[];
  /** The first and the last row, from 0. */
  readonly rows: readonly [number, number];
  readonly logarithmic: boolean;
  /** The upper left cell. */
  readonly at: { readonly row: number; readonly column: number };
}

/** One sheet: rows of cells from the first row and column on. */
export interface Sheet {
  readonly name: string;
  /** Width of each column in characters. */
  readonly widths: readonly number[];
  readonly rows: readonly (readonly SheetCell[])[];
  /** Rows and columns that stay where they are as one moves on. */
  readonly frozen: { readonly rows: number; readonly columns: number };
  readonly rules?: readonly SheetRule[];
  readonly charts?: readonly SheetChart[];
  /** Not to be seen unless one knows of it. */
  readonly hidden?: boolean;
}

/** How cells look while a formula holds. */
export interface SheetRule {
  readonly cells: string;
  readonly formula: string;
  readonly kind: 'right' | 'wrong';
}

/** A cell with a name of its own, by which formulas call it. */
export interface NamedCell {
  readonly name: string;
  readonly sheet: string;
  /** From 0. */
  readonly row: number;
  readonly column: number;
}

/** A whole file, before it is written. */
export interface Workbook {
  readonly title: string;
  readonly sheets: readonly Sheet[];
  readonly names: readonly NamedCell[];
}

export function cell(content: CellContent, kind: CellKind = 'plain'): SheetCell {
  return { content, kind };
}

export const EMPTY = cell(null);

/** A cell with a formula; `result` is null where it is not known. */
export function formulaCell(formula: string, result: number | string | null, kind: CellKind): SheetCell {
  const isKnown = result !== null && (typeof result === 'string' || Number.isFinite(result));
  return cell(isKnown ? { formula, result } : { formula }, kind);
}

/** The letters of a column, from 0: A, B, ..., Z, AA. */
export function columnLetters(column: number): string {
  const rest = column % 26;
  const own = String.fromCharCode(65 + rest);
  return column < 26 ? own : `${columnLetters((column - rest) / 26 - 1)}${own}`;
}

/** A cell as formulas write it, both counted from 0. */
export function cellAddress(row: number, column: number): string {
  return `${columnLetters(column)}${row + 1}`;
}
