import { type Cell, type CellStyle, type WriteSheet, writeXlsx } from 'hucre/xlsx';
import {
  cellAddress,
  type CellKind,
  columnLetters,
  type Sheet,
  type SheetCell,
  type SheetChart,
  type Workbook,
} from './workbook.ts';

type WriteChart = NonNullable<WriteSheet['charts']>[number];

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
  // as many digits as the column has room for, with an exponent where that is shorter
  value: {},
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

/** Cells that a chart is wide and high. */
const [CHART_COLUMNS, CHART_ROWS] = [7, 18];

function chartOf(sheet: string, { title, x, series, rows, logarithmic, at }: SheetChart): WriteChart {
  const [first, last] = rows;
  const range = (column: number): string => {
    const letters = columnLetters(column);
    return `'${sheet}'!$${letters}$${first + 1}:$${letters}$${last + 1}`;
  };
  const scale = logarithmic ? { scale: { logBase: 10 } } : {};
  return {
    type: 'scatter',
    title,
    series: series.map((one) => ({
      name: one.title,
      values: range(one.column),
      categories: range(x.column),
      marker: { symbol: 'circle', size: 4 },
    })),
    anchor: {
      from: { row: at.row, col: at.column },
      to: { row: at.row + CHART_ROWS, col: at.column + CHART_COLUMNS },
    },
    scatterStyle: 'marker',
    legend: series.length > 1 ? 'bottom' : false,
    axes: { x: { title: x.title, ...scale }, y: scale },
  };
}

/** A sheet for the writers of files. */
export function sheetOf({
  name,
  widths,
  rows,
  frozen,
  rules = [],
  charts = [],
  hidden = false,
}: Sheet): WriteSheet {
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
    charts: charts.map((chart) => chartOf(name, chart)),
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
