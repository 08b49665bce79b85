import { plainTable } from '../plain-table.ts';
import { columnLetters, type Sheet, type SheetCell, type Workbook } from './workbook.ts';

/** Longest text of a cell in a preview. */
const LONGEST = 60;

function textOf({ content }: SheetCell): string {
  if (content === null) return '';
  const text = typeof content === 'object' ? `=${content.formula}` : String(content);
  return text.length > LONGEST ? `${text.slice(0, LONGEST - 3)}...` : text;
}

function sheetText({ name, rows }: Sheet, most: number): string {
  const shown = rows.slice(0, most);
  const width = Math.max(1, ...shown.map((row) => row.length));
  const heads = ['', ...Array.from({ length: width }, (_, i) => columnLetters(i))];
  const table = plainTable(
    heads,
    shown.map((row, i) => [
      String(i + 1),
      ...Array.from({ length: width }, (_, j) => textOf(row[j] ?? { content: null, look: 'plain' })),
    ]),
  );
  const more = rows.length > most ? `\nand ${rows.length - most} more rows` : '';
  return `${name}\n${table}${more}\n`;
}

/** What a file holds, as plain text: the first rows of each sheet with their formulas. */
export function workbookText({ sheets }: Workbook, most = 14): string {
  return sheets.map((sheet) => sheetText(sheet, most)).join('\n');
}
