import { readOds } from 'hucre/ods';
import { readXlsx } from 'hucre/xlsx';
import { Refusal } from '../../text/refusal.ts';

/** Most rows and columns of a sheet that are read, and largest file. */
const MAX_ROWS = 5_100;
const MAX_COLUMNS = 1_000;
const MAX_BYTES = 10_000_000;

function cellText(value: unknown): string {
  if (typeof value === 'number') return String(value);
  return typeof value === 'string' ? value.replaceAll(/[\t\r\n]+/g, ' ').trim() : '';
}

/**
 * The first sheet of a spreadsheet that holds numbers, as text with tabs between the columns; formulas count by their
 * stored values.
 *
 * @param bytes a file of Office Open XML or OpenDocument
 * @throws Refusal for what is no such file, or has no numbers
 * @example sheetText(new Uint8Array(), 'ods')
 */
export async function sheetText(bytes: Uint8Array, format: 'xlsx' | 'ods'): Promise<string> {
  if (bytes.length > MAX_BYTES) throw new Refusal('size', 'this file is larger than 10 MB');
  const read = format === 'ods' ? readOds : readXlsx;
  const book = await read(bytes).catch(() => null);
  if (book === null)
    throw new Refusal(
      'form',
      `this is not a file of ${format === 'ods' ? 'OpenDocument' : 'Excel'} that can be read`,
    );
  const sheet = book.sheets.find(({ rows }) =>
    rows.some((row) => row.some((value) => typeof value === 'number')),
  );
  if (sheet === undefined) throw new Refusal('form', 'no sheet of this file holds numbers');
  const lines = sheet.rows.slice(0, MAX_ROWS).map((row) => row.slice(0, MAX_COLUMNS).map(cellText));
  const width = Math.max(...lines.map((line) => line.findLastIndex((text) => text !== '') + 1));
  return lines
    .filter((line) => line.some((text) => text !== ''))
    .map((line) => Array.from({ length: width }, (_, i) => line[i] ?? '').join('\t'))
    .join('\n');
}
