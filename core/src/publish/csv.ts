/** A number with all its digits, which may be more than a double keeps. */
export interface LongNumber {
  readonly digits: string;
}

/** A number of a table. */
export type NumberCell = number | LongNumber;

/** A cell of a table of numbers. */
export type CsvCell = string | NumberCell | boolean | null;

/**
 * Whether a cell is a number.
 *
 * @example isNumberCell({ digits: '0.1' }) // true
 */
export function isNumberCell(cell: CsvCell): cell is NumberCell {
  return typeof cell === 'number' || (typeof cell === 'object' && cell !== null);
}

/**
 * All digits of a number as text.
 *
 * @example numberText(0.5) // '0.5'
 */
export function numberText(cell: NumberCell): string {
  return typeof cell === 'number' ? String(cell) : cell.digits;
}

/**
 * The double nearest to a number.
 *
 * @example nearestDouble({ digits: '0.1' }) // 0.1
 */
export function nearestDouble(cell: NumberCell): number {
  return typeof cell === 'number' ? cell : Number(cell.digits);
}

/**
 * A cell as a value of JSON: a number with more digits than a double keeps is a text.
 *
 * @example jsonCell({ digits: '0.1' }) // '0.1'
 */
export function jsonCell(cell: CsvCell): string | number | boolean | null {
  return typeof cell === 'object' && cell !== null ? cell.digits : cell;
}

/**
 * A cell by RFC 4180. A text that a spreadsheet would take for a formula gets a leading apostrophe, so that
 * a title typed by a user is never computed.
 */
function csvCell(cell: CsvCell, comma: boolean): string {
  if (cell === null) return '';
  if (isNumberCell(cell)) return comma ? numberText(cell).replace('.', ',') : numberText(cell);
  if (typeof cell === 'boolean') return String(cell);
  const text = /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
  return /[",;\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/**
 * Rows of cells as CSV by RFC 4180, numbers as full doubles.
 *
 * @param comma with semicolons between the cells and decimal commas, for spreadsheets of countries that write them
 * @example csv([['a', 1], ['b', 2]]) // 'a,1\r\nb,2\r\n'
 */
export function csv(rows: readonly (readonly CsvCell[])[], comma = false): string {
  const separator = comma ? ';' : ',';
  return rows.map((row) => `${row.map((cell) => csvCell(cell, comma)).join(separator)}\r\n`).join('');
}
