/** A cell of a table of numbers. */
export type CsvCell = string | number | boolean | null;

/**
 * A cell by RFC 4180. A text that a spreadsheet would take for a formula gets a leading apostrophe, so that
 * a title typed by a user is never computed.
 */
function csvCell(cell: CsvCell): string {
  if (cell === null) return '';
  if (typeof cell !== 'string') return String(cell);
  const text = /^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell;
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/**
 * Rows of cells as CSV by RFC 4180, numbers as full doubles.
 *
 * @example csv([['a', 1], ['b', 2]]) // 'a,1\r\nb,2\r\n'
 */
export function csv(rows: readonly (readonly CsvCell[])[]): string {
  return rows.map((row) => `${row.map(csvCell).join(',')}\r\n`).join('');
}
