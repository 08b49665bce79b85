import ExcelJS from 'exceljs';
import type { CellLook, SheetCell, Workbook } from './workbook.ts';

const INPUT = 'FFFFF1C2';
const HEAD = 'FFE9EDF0';
const QUIET = 'FF5C6670';

const STYLES: Readonly<Record<CellLook, Partial<ExcelJS.Style>>> = {
  plain: {},
  answer: { font: { bold: true, color: { argb: 'FFB5490F' } } },
  title: { font: { bold: true, size: 14 } },
  note: { font: { color: { argb: QUIET } } },
  head: {
    font: { bold: true },
    fill: { type: 'pattern', pattern: 'solid', fgColor: { argb: HEAD } },
  },
  count: { numFmt: '0' },
  input: { fill: { type: 'pattern', pattern: 'solid', fgColor: { argb: INPUT } } },
  value: { numFmt: '0.0000000000' },
  error: { numFmt: '0.000E+00' },
  order: { numFmt: '0.000' },
};

function filled(argb: string): Partial<ExcelJS.Style> {
  return { fill: { type: 'pattern', pattern: 'solid', bgColor: { argb } } };
}

const RULES: Readonly<Record<'right' | 'wrong', Partial<ExcelJS.Style>>> = {
  right: filled('FFBFE8C8'),
  wrong: filled('FFF4B9B4'),
};

function valueOf({ content }: SheetCell): ExcelJS.CellValue {
  if (content === null || typeof content !== 'object') return content;
  const { formula, result } = content;
  return { formula, ...(result === undefined ? {} : { result }), date1904: false };
}

/** Writes sheets as a file of Office Open XML (ISO/IEC 29500); all is calculated when it is opened. */
export async function xlsx({ title, sheets, names }: Workbook): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  book.title = title;
  book.creator = 'Schritt';
  book.calcProperties.fullCalcOnLoad = true;
  for (const sheet of sheets) {
    const { rows, columns } = sheet.frozen;
    const made = book.addWorksheet(
      sheet.name,
      rows + columns === 0 ? {} : { views: [{ state: 'frozen', xSplit: columns, ySplit: rows }] },
    );
    sheet.widths.forEach((width, i) => {
      made.getColumn(i + 1).width = width;
    });
    sheet.rows.forEach((cells, i) => {
      const row = made.getRow(i + 1);
      cells.forEach((one, j) => {
        if (one.content === null && one.look !== 'input') return;
        const cell = row.getCell(j + 1);
        cell.value = valueOf(one);
        cell.style = STYLES[one.look];
      });
    });
    for (const { cells, formula, look } of sheet.rules ?? [])
      made.addConditionalFormatting({
        ref: cells,
        rules: [{ type: 'expression', formulae: [formula], style: RULES[look], priority: 1 }],
      });
    if (sheet.hidden === true) made.state = 'veryHidden';
  }
  for (const { name, sheet, row, column } of names)
    book.definedNames.add(
      `'${sheet}'!$${book.getWorksheet(sheet)?.getColumn(column + 1).letter ?? 'A'}$${row + 1}`,
      name,
    );
  return new Uint8Array(await book.xlsx.writeBuffer({ zip: { compressionOptions: { level: 1 } } }));
}
