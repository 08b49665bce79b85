import { isDecimal, precisionText } from '../../compile/precision.ts';
import { finish } from '../../study/run-study.ts';
import { conclude } from '../../study/conclude.ts';
import type { Grid } from '../../run/grid.ts';
import { rowsOf } from '../../run/rows.ts';
import { methodSigns } from '../../study/runs/run-methods.ts';
import { layLadder } from '../../study/runs/ladder.ts';
import { precisionOf, runOf, type Study, type StudyMethod } from '../../study/runs/study.ts';
import { count, stepSizeText } from '../../text/number-text.ts';
import { Refusal } from '../../text/refusal.ts';
import { type CsvCell, isNumberCell, nearestDouble, numberText } from '../csv.ts';
import { rowsTable } from '../rows-table.ts';
import { studyReport } from '../study-report.ts';
import { oneLine } from '../tables/cell-text.ts';
import { rungTable } from '../tables/study-tables.ts';
import { cell, EMPTY, type Sheet, type SheetCell, type Workbook } from './workbook.ts';

/** Digits of numbers that a spreadsheet keeps; more are written as text. */
const KEPT = 15;
/** Most rows of one run. */
const MAX_ROWS = 20_000;

/** A value as a number, or as text where it has more digits than a spreadsheet keeps. */
function content(value: CsvCell, digits: number): string | number | null {
  if (value === null || typeof value === 'string') return value;
  if (!isNumberCell(value)) return String(value);
  const double = nearestDouble(value);
  const isKept = typeof value === 'number' || digits <= KEPT;
  return isKept && Number.isFinite(double) ? double : numberText(value);
}

function sheetOf(
  name: string,
  head: readonly string[],
  rows: readonly (readonly CsvCell[])[],
  digits: number,
): Sheet {
  return {
    name,
    widths: head.map((_, i) => (i === 0 ? 8 : Math.min(60, Math.max(16, digits + 6)))),
    rows: [
      head.map((title) => cell(oneLine(title), 'head')),
      ...rows.map((row) => row.map((value, i) => cell(content(value, digits), i === 0 ? 'count' : 'plain'))),
    ],
    frozen: { rows: 1, columns: 1 },
  };
}

/** The sheet of one run. */
function runSheet(study: Study, chosen: StudyMethod, grid: Grid, digits: number): Sheet {
  if (grid.steps > MAX_ROWS)
    throw new Refusal(
      'grid',
      `a sheet has at most ${count(MAX_ROWS)} rows, and this run has ${count(grid.steps + 1)}`,
    );
  const run = runOf(study, chosen);
  const { rows } = rowsOf(run, grid, { from: 0, count: grid.steps + 1 });
  const { header, rows: cells } = rowsTable(run, rows);
  return sheetOf(`N = ${grid.steps}`, header, cells, digits);
}

/** Step sizes with values, errors, ratios and orders of one method. */
function errorSheet(title: string, study: Study, method: number, digits: number): Sheet {
  const chosen = study.methods[method];
  const alone = { ...study, methods: chosen === undefined ? [] : [chosen] };
  const result = conclude(alone, [finish(methodSigns(alone, 0))]);
  const report = studyReport(title, study.problem, result);
  const { columns, rows } = rungTable(report, ['value', 'error', 'ratio', 'order'], null);
  return sheetOf(
    'Step sizes',
    columns.map((column) => column.title),
    rows,
    digits,
  );
}

/**
 * A method in decimals as a file of sheets with values: a spreadsheet computes in doubles, so that no formula of it gives
 * these numbers. Values of more than fifteen digits are text.
 *
 * @param grids the runs; without them those of the study's step sizes
 * @throws Refusal for runs of more than 20,000 steps
 */
export function decimalWorkbook(
  title: string,
  study: Study,
  method: number,
  grids: readonly Grid[] | null = null,
): Workbook {
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${method}`);
  const precision = precisionOf(study, chosen);
  const digits = isDecimal(precision) ? precision.digits : KEPT;
  const { problem, ladder, lastStep } = study;
  const laid =
    grids ??
    layLadder(ladder, problem.start, problem.end, lastStep).flatMap((rung) => (rung.ok ? [rung.grid] : []));
  const note = (text: string): readonly SheetCell[] => [cell(oneLine(text), 'note')];
  return {
    title: oneLine(title),
    names: [],
    sheets: [
      {
        name: 'Study',
        widths: [80],
        rows: [
          [cell(oneLine(title), 'title')],
          ...problem.text.trimEnd().split('\n').map(note),
          [EMPTY],
          note(chosen.title),
          ...chosen.method.text.trimEnd().split('\n').map(note),
          [EMPTY],
          note(
            `Computed with ${precisionText(precision)}. A spreadsheet computes in double precision: these sheets hold values and no formulas.`,
          ),
          ...laid.map((grid) => note(`N = ${grid.steps}: h = ${stepSizeText(grid.h)}`)),
        ],
        frozen: { rows: 0, columns: 0 },
      },
      errorSheet(title, study, method, digits),
      ...laid.map((grid) => runSheet(study, chosen, grid, digits)),
    ],
  };
}
