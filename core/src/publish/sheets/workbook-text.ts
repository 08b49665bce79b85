import { columnLetters, type Sheet, type SheetCell, type Workbook } from './workbook.ts';

/** Longest text of a cell in a preview. */
const LONGEST = 60;

function textOf({ content }: SheetCell): string {
  if (content === null) return '';
  const text = typeof content === 'object' ? `=${content.formula}` : String(content);
  return text.length > LONGEST ? `${text.slice(0, LONGEST - 3)}...` : text;
}

/** Lines of cells, each as wide as its column: as a spreadsheet shows them, with formulas for values. */
function sheetText({ name, rows }: Sheet, most: number): string {
  const shown = rows.slice(0, most).map((row) => row.map(textOf));
  const count = Math.max(1, ...shown.map((row) => row.length));
  const heads = Array.from({ length: count }, (_, i) => columnLetters(i));
  // a title runs over the cells at its right, which are empty
  const widths = heads.map((head, i) =>
    Math.max(head.length, ...shown.map((row) => (row.length === 1 ? 0 : (row[i] ?? '').length))),
  );
  const line = (label: string, cells: readonly string[]): string =>
    `${label.padStart(3)}  ${cells.map((cell, i) => cell.padEnd(widths[i] ?? 0)).join('  ')}`.trimEnd();
  return [
    name,
    line('', heads),
    ...shown.map((row, i) => line(String(i + 1), row)),
    ...(rows.length > most ? [`     and ${rows.length - most} more rows`] : []),
    '',
  ].join('\n');
}

/**
 * What a file holds, as plain text: the first rows of each sheet with their formulas.
 *
 * @example workbookText(workbook).length > 0 // true
 */
export function workbookText({ sheets }: Workbook, most = 14): string {
  return sheets.map((sheet) => sheetText(sheet, most)).join('\n');
}
