import { log10 } from '../../elementary/logarithm.ts';
import { pow } from '../../elementary/power.ts';
import { cellText, oneLine } from '../tables/cell-text.ts';
import { type CsvCell, isNumberCell, nearestDouble } from '../csv.ts';
import {
  cell,
  cellAddress,
  EMPTY,
  type Sheet,
  type SheetCell,
  type SheetRule,
  type Workbook,
} from '../sheets/workbook.ts';
import type { Handout } from './handout.ts';
import type { Keys } from './keys.ts';

/** The hidden sheet with what blanks are held against. */
const HIDDEN = 'Check';
/** Answers are scaled and shifted there, so that they cannot be read off. */
const [FACTOR, MOVED] = [7, 1234.5];

/** How far an answer may be from the value: half a unit of the last digit that is asked for. */
export function allowed(value: number, digits: number): number {
  if (value === 0) return 0.5 * pow(10, -digits);
  // a hair more, for answers that are rounded half way
  return 0.500001 * pow(10, Math.floor(log10(Math.abs(value))) + 1 - digits);
}

interface Checked {
  readonly rule: readonly SheetRule[];
  readonly rows: readonly (readonly SheetCell[])[];
}

/** The rules of one blank, and the row of the hidden sheet that they look at. */
function checkOf(at: string, value: number, digits: number, row: number): Checked {
  const shiftFormula = `('${HIDDEN}'!${cellAddress(row, 0)}-${MOVED})/${FACTOR}`;
  const far = `ABS(${at}-${shiftFormula})>'${HIDDEN}'!${cellAddress(row, 1)}`;
  // a spreadsheet computes all parts of an AND, and a text has no distance
  return {
    rule: [
      { cells: at, formula: `IF(ISNUMBER(${at}),NOT(${far}),FALSE())`, kind: 'right' },
      { cells: at, formula: `IF(ISBLANK(${at}),FALSE(),IF(ISNUMBER(${at}),${far},TRUE()))`, kind: 'wrong' },
    ],
    rows: [[cell(value * FACTOR + MOVED), cell(allowed(value, digits))]],
  };
}

function content(value: CsvCell): string | number | null {
  if (isNumberCell(value)) {
    const double = nearestDouble(value);
    return Number.isFinite(double) ? double : String(double);
  }
  return value === null ? null : cellText(value, { title: '', tex: null, digits: null });
}

/**
 * Sheets as a file of a spreadsheet: a blank that is filled turns green where it agrees to the digits asked for, and
 * red where it does not. Solved ones have the answers.
 */
export function handoutWorkbook(handouts: readonly Handout[], solved: boolean, keys: Keys | null): Workbook {
  const hidden: (readonly SheetCell[])[] = [];
  const sheets = handouts.map((handout): Sheet => {
    const { title, number, task, methods, problemText, methodTexts, table, blank, digits } = handout;
    const lines = [
      ...task,
      ...problemText,
      ...methods.flatMap(({ title: name }, i) => [name, ...(methodTexts[i] ?? [])]),
      ...(solved ? [] : [`Fill in the yellow cells to ${digits} significant digits.`]),
    ];
    const above: (readonly SheetCell[])[] = [
      [
        cell(
          `${oneLine(title)}${number === null ? '' : `, sheet ${number}`}${solved ? ', answer key' : ''}`,
          'title',
        ),
      ],
      ...lines.map((line) => [cell(oneLine(line), 'note')]),
      [EMPTY],
      [cell(oneLine(table.caption), 'note')],
      ...(table.groups === null
        ? []
        : [
            table.groups.flatMap(({ title: over, columns }) =>
              Array.from({ length: columns }, (_, i) => cell(i === 0 ? oneLine(over) : null, 'head')),
            ),
          ]),
      table.columns.map(({ title: column }) => cell(oneLine(column), 'head')),
    ];
    const rules: SheetRule[] = [];
    const rows = table.rows.map((row, r) =>
      table.columns.map((_, i): SheetCell => {
        const value = row[i] ?? null;
        const look = table.columns[i]?.title === 'n' || table.columns[i]?.title === 'N' ? 'count' : 'plain';
        if (blank[r]?.[i] !== true) return cell(content(value), look);
        if (solved) return cell(content(value), 'answer');
        const right = isNumberCell(value) ? nearestDouble(value) : NaN;
        if (Number.isFinite(right)) {
          const { rule, rows: added } = checkOf(
            cellAddress(above.length + r, i),
            right,
            digits,
            hidden.length,
          );
          rules.push(...rule);
          hidden.push(...added);
        }
        return cell(null, 'input');
      }),
    );
    return {
      name: number === null ? 'Sheet' : `Sheet ${number}`,
      widths: table.columns.map((_, i) => (i === 0 ? 8 : 16)),
      rows: [...above, ...rows],
      frozen: { rows: 0, columns: 0 },
      rules,
    };
  });
  const keySheet: readonly Sheet[] =
    solved && keys !== null
      ? [
          {
            name: 'All keys',
            widths: keys.table.columns.map(() => 16),
            rows: [
              keys.table.columns.map(({ title }) => cell(oneLine(title), 'head')),
              ...keys.table.rows.map((row) => row.map((value) => cell(content(value)))),
            ],
            frozen: { rows: 1, columns: 1 },
          },
        ]
      : [];
  const checkSheet: readonly Sheet[] =
    hidden.length === 0
      ? []
      : [{ name: HIDDEN, widths: [20, 20], rows: hidden, frozen: { rows: 0, columns: 0 }, hidden: true }];
  return {
    title: handouts[0]?.title ?? '',
    sheets: [...sheets, ...keySheet, ...checkSheet],
    names: [],
  };
}
