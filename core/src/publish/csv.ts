/** A cell of a table of numbers. */
export type CsvCell = string | number | boolean | null;

/**
 * A cell by RFC 4180. A text that a spreadsheet would take for a formula gets a leading apostrophe, so that
 * a title typed by a user is never computed.
 */
function csvCell(cell: CsvCell, comma: boolean): string {
  if (cell === null) return '';
  if (typeof cell === 'number') return comma ? String(cell).replace('.', ',') : String(cell);
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
