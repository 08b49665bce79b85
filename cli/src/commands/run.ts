import {
  type CsvCell,
  csv,
  isNumberCell,
  jsonCell,
  numberText,
  plainTable,
  rowsTable,
} from '@schritt/core/document';
import { significant } from '@schritt/core/text';
import { amountValue, type GridRequest, layGrid, type Row, rowsOf, runOf } from '@schritt/core/study';
import { Failure } from '../failure.ts';
import { lineWidth } from '../line-width.ts';
import { loadStudy } from '../load.ts';
import { pickMethod } from '../pick-method.ts';

export interface RunOptions {
  readonly method: string;
  readonly h?: string;
  readonly steps?: string;
  readonly from?: string;
  readonly count?: string;
  readonly format: 'json' | 'table' | 'csv';
}

/** Up to this many steps all rows are printed; above it the first and the last five. */
const ALL_ROWS = 10_000;

function wholeNumber(text: string, option: string): number {
  const value = Number(text);
  if (!Number.isSafeInteger(value) || value < 0)
    throw new Failure([`--${option} takes an integer, not ${text}`]);
  return value;
}

function gridRequestOf(options: RunOptions): GridRequest {
  if ((options.h === undefined) === (options.steps === undefined))
    throw new Failure(['give either --h, a step size, or --steps, a number of steps']);
  if (options.steps !== undefined) return { steps: wholeNumber(options.steps, 'steps') };
  return { h: amountValue(options.h ?? '') };
}

function printCell(cell: CsvCell): string {
  if (cell === null) return '';
  if (!isNumberCell(cell)) return String(cell);
  if (typeof cell !== 'number' || Number.isInteger(cell)) return numberText(cell);
  return significant(cell, 10);
}

/** Prints the rows of one run: n, t, components, slopes, stages, exact values and the error. */
export function runCommand(file: string, options: RunOptions): string {
  const { study } = loadStudy(file);
  const run = runOf(study, pickMethod(study, options.method));
  const grid = layGrid(study.problem.start, study.problem.end, gridRequestOf(options), study.lastStep);
  const windows: (readonly [number, number])[] = [];
  if (options.from !== undefined || options.count !== undefined) {
    const from = wholeNumber(options.from ?? '0', 'from');
    windows.push([from, wholeNumber(options.count ?? '10', 'count')]);
  } else if (grid.steps <= ALL_ROWS) windows.push([0, grid.steps + 1]);
  else windows.push([0, 5], [grid.steps - 4, 5]);

  const rows: Row[] = [];
  let stopped = null;
  for (const [from, count] of windows) {
    const part = rowsOf(run, grid, { from, count });
    rows.push(...part.rows);
    stopped ??= part.stopped;
  }
  if (stopped !== null)
    process.stderr.write(
      `the run stopped in step ${stopped.step} at ${study.problem.independent} = ${stopped.t}, ${stopped.stage}: ${stopped.why}\n`,
    );
  const table = rowsTable(run, rows);
  switch (options.format) {
    case 'csv':
      return csv([table.header, ...table.rows]);
    case 'json':
      return `${JSON.stringify(
        table.rows.map((row) =>
          Object.fromEntries(table.keys.map((name, i) => [name, jsonCell(row[i] ?? null)])),
        ),
        null,
        2,
      )}\n`;
    case 'table':
      return `${plainTable(
        table.header,
        table.rows.map((row) => row.map(printCell)),
        lineWidth(),
      )}\n`;
  }
}
