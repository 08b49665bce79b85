import { type Cell, type CellStyle, type WriteSheet, writeXlsx } from 'hucre/xlsx';
import { cellAddress, type CellKind, type Sheet, type SheetCell, type Workbook } from './workbook.ts';

const INPUT = 'FFF1C2';
const HEAD = 'E9EDF0';
const QUIET = '5C6670';

function filled(rgb: string): CellStyle {
  return { fill: { type: 'pattern', pattern: 'solid', fgColor: { rgb } } };
}

const STYLES: Readonly<Record<CellKind, CellStyle>> = {
  plain: {},
  answer: { font: { bold: true, color: { rgb: 'B5490F' } } },
  title: { font: { bold: true, size: 14 } },
  note: { font: { color: { rgb: QUIET } } },
  head: { font: { bold: true }, ...filled(HEAD) },
  count: { numFmt: '0' },
  input: filled(INPUT),
  value: { numFmt: '0.0000000000' },
  error: { numFmt: '0.000E+00' },
  order: { numFmt: '0.000' },
};

/** Colours of conditional formats, which are backgrounds. */
const RULES: Readonly<Record<'right' | 'wrong', CellStyle>> = {
  right: { fill: { type: 'pattern', pattern: 'solid', bgColor: { rgb: 'BFE8C8' } } },
  wrong: { fill: { type: 'pattern', pattern: 'solid', bgColor: { rgb: 'F4B9B4' } } },
};

function cellOf({ content, kind }: SheetCell): Partial<Cell> {
  const style = STYLES[kind];
  if (content === null || typeof content !== 'object') return { value: content, style };
  const { formula, result = null } = content;
  return { value: result, formula, formulaResult: result, style };
}

/** A sheet for the writers of files. */
export function sheetOf({ name, widths, rows, frozen, rules = [], hidden = false }: Sheet): WriteSheet {
  const cells = new Map<string, Partial<Cell>>();
  rows.forEach((row, i) =>
    row.forEach((cell, j) => {
      if (cell.content !== null || cell.kind === 'input') cells.set(`${i},${j}`, cellOf(cell));
    }),
  );
  return {
    name,
    columns: widths.map((width) => ({ width })),
    rows: rows.map((row) => row.map(() => null)),
    cells,
    freezePane: frozen,
    veryHidden: hidden,
    conditionalRules: rules.map(({ cells: range, formula, kind }, i) => ({
      type: 'expression',
      priority: i + 1,
      range,
      formula,
      style: RULES[kind],
    })),
  };
}

/**
 * Writes sheets as a file of Office Open XML (ISO/IEC 29500); spreadsheets calculate all of it when they open it.
 *
 * @example xlsx(workbook)
 */
export async function xlsx({ title, sheets, names }: Workbook): Promise<Uint8Array> {
  return writeXlsx({
    sheets: sheets.map(sheetOf),
    properties: { title, creator: 'Schritt' },
    namedRanges: names.map(({ name, sheet, row, column }) => ({
      name,
      range: `'${sheet}'!${cellAddress(row, column).replace(/^([A-Z]+)/, '$$$1$$')}`,
    })),
  });
}
