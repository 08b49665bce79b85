import { writeOds } from 'hucre/ods';
import { cellAddress, type NamedCell, type Sheet, type Workbook } from './workbook.ts';
import { sheetOf } from './xlsx.ts';

/** Texts, sheets, functions, names and commas of a formula: what looks like a name of a cell but is none comes first. */
const PARTS = /"[^"]*"|'[^']*'!\$?[A-Z]+\$?\d+|[A-Za-z_][\w.]*\(|[A-Za-z_][\w.]*|,/g;

/**
 * A formula of OpenFormula: arguments are parted by semicolons, and named cells are called by their addresses, because
 * the writer of OpenDocument knows no names.
 */
function openFormula(formula: string, places: ReadonlyMap<string, string>): string {
  return formula.replace(PARTS, (part) => (part === ',' ? ';' : (places.get(part) ?? part)));
}

function absolute({ sheet, row, column }: NamedCell): string {
  return `'${sheet}'!${cellAddress(row, column).replace(/^([A-Z]+)/, '$$$1$$')}`;
}

function withoutNames(sheet: Sheet, places: ReadonlyMap<string, string>): Sheet {
  return {
    ...sheet,
    rows: sheet.rows.map((row) =>
      row.map((cell) => {
        const { content } = cell;
        return content === null || typeof content !== 'object'
          ? cell
          : { ...cell, content: { ...content, formula: openFormula(content.formula, places) } };
      }),
    ),
  };
}

/**
 * Writes sheets as an OpenDocument spreadsheet (ISO/IEC 26300); named cells are written by their addresses.
 *
 * @example ods(workbook)
 */
export async function ods({ title, sheets, names }: Workbook): Promise<Uint8Array> {
  const places = new Map(names.map((named) => [named.name, absolute(named)]));
  return writeOds({
    sheets: sheets.map((sheet) => sheetOf(withoutNames(sheet, places))),
    properties: { title, creator: 'Schritt' },
  });
}
