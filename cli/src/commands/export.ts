import { writeFileSync } from 'node:fs';
import {
  csv,
  LANGUAGES,
  type LanguageName,
  programOf,
  rowTable,
  STUDY_TABLES,
  type StudyTable,
  studyReport,
  studyTable,
  type Table,
  TABLE_FORMATS,
  type TableFormat,
  writeTable,
} from '@schritt/core/document';
import {
  amountValue,
  begin,
  type CompiledRun,
  compileWithStart,
  type Grid,
  layGrid,
  rowsOf,
  type Study,
  studySteps,
} from '@schritt/core/study';
import { Failure } from '../failure.ts';
import { loadStudy } from '../load.ts';
import { pickMethod } from '../pick-method.ts';
import { withProgress } from '../progress.ts';

export const WHATS = [...STUDY_TABLES, 'rows', 'program'] as const;
export const FORMATS = [...TABLE_FORMATS, ...LANGUAGES] as const;

export interface ExportOptions {
  readonly what: (typeof WHATS)[number];
  readonly as: (typeof FORMATS)[number];
  readonly method?: string;
  readonly h?: string;
  readonly steps?: string;
  readonly digits?: string;
  readonly columns?: string;
  readonly bom?: boolean;
  readonly part?: boolean;
  readonly out?: string;
}

/** Rows of CSV that are made at a time: a run of any length takes the room of so many. */
const AT_ONCE = 5_000;
/** Rows of the other formats, which hold a whole table. */
const MOST_ROWS = 200_000;

function isTableFormat(format: string): format is TableFormat {
  return TABLE_FORMATS.some((known) => known === format);
}

function isLanguage(format: string): format is LanguageName {
  return LANGUAGES.some((known) => known === format);
}

function gridOf({ problem, lastStep }: Study, { h, steps }: ExportOptions): Grid {
  if ((h === undefined) === (steps === undefined))
    throw new Failure(['give either --h with a step size or --steps with a number of steps']);
  if (steps !== undefined) return layGrid(problem.start, problem.end, { steps: Number(steps) });
  return layGrid(problem.start, problem.end, { h: amountValue(h ?? '') }, lastStep);
}

function digitsOf({ digits }: ExportOptions): number | null {
  if (digits === undefined) return null;
  const value = Number(digits);
  if (Number.isSafeInteger(value) && value >= 1 && value <= 17) return value;
  throw new Failure([`--digits takes a whole number from 1 to 17, not ${digits}`]);
}

/** The rows of a run as CSV, some at a time. */
function* csvRows(
  run: CompiledRun,
  grid: Grid,
  chosen: readonly string[] | null,
  bom: boolean,
): Generator<string> {
  const at = begin(run, grid);
  for (let from = 0; from <= grid.steps; from += AT_ONCE) {
    const { rows } = rowsOf(run, grid, from, Math.min(AT_ONCE, grid.steps + 1 - from), at);
    const table = rowTable('', run, rows, chosen, null);
    yield from === 0 ? writeTable(table, 'csv', { mark: bom }) : csv(table.rows);
    if (rows.length < AT_ONCE) return;
  }
}

function* tableText(
  file: string,
  what: StudyTable | 'rows',
  options: ExportOptions,
  format: TableFormat,
): Generator<string> {
  const { document, study } = loadStudy(file);
  const { bom = false, part = false } = options;
  const write = (table: Table): string => writeTable(table, format, { mark: bom, part });
  const columns = options.columns?.split(',').map((name) => name.trim()) ?? null;
  if (what === 'rows') {
    const { title, method } = pickMethod(study, options.method ?? '');
    const run = compileWithStart(study.problem, method, study.start);
    const grid = gridOf(study, options);
    if (format === 'csv') {
      yield* csvRows(run, grid, columns, bom);
      return;
    }
    if (grid.steps > MOST_ROWS)
      throw new Failure([
        `a table of ${grid.steps} rows is written as csv alone; at most ${MOST_ROWS} otherwise`,
      ]);
    const { rows } = rowsOf(run, grid, 0, grid.steps + 1);
    yield write(rowTable(`${document.title}: ${title}`, run, rows, columns, digitsOf(options) ?? 10));
    return;
  }
  const report = studyReport(document.title, study.problem, withProgress(studySteps(study)));
  yield write(studyTable(report, what, digitsOf(options)));
}

/** A study or a run in a format to be taken away, in parts. */
function* partsOf(file: string, options: ExportOptions): Generator<string> {
  const { what, as } = options;
  if (what === 'program') {
    if (!isLanguage(as)) throw new Failure([`a program is written as ${LANGUAGES.join(', ')}, not ${as}`]);
    const { document, study } = loadStudy(file);
    const { title } = pickMethod(study, options.method ?? '');
    const place = study.methods.findIndex((method) => method.title === title);
    yield programOf(document.title, study, place, gridOf(study, options), as);
  } else if (isTableFormat(as)) yield* tableText(file, what, options, as);
  else throw new Failure([`${what} are written as ${TABLE_FORMATS.join(', ')}, not ${as}`]);
}

/** Writes a study or a run as a table or a program, to a file or to the terminal. */
export function* exportCommand(file: string, options: ExportOptions): Generator<string> {
  const { out } = options;
  if (out === undefined) {
    yield* partsOf(file, options);
    return;
  }
  let isFirst = true;
  for (const part of partsOf(file, options)) {
    writeFileSync(out, part, { flag: isFirst ? 'w' : 'a' });
    isFirst = false;
  }
}
