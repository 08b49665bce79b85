import { writeFileSync } from 'node:fs';
import {
  checkOptions,
  columnsOf,
  csv,
  digitsOf,
  everyOf,
  isTableFormat,
  rowTable,
  rungColumnsOf,
  studyReport,
  studyTable,
  exportStudy,
  exportRequest,
  wholeOf,
  gridRequestOf,
  writeTable,
} from '@schritt/core/document';
import { typesetOptions } from '@schritt/core/text';
import { begin, type CompiledRun, type Grid, layGrid, rowsOf, runOf, studySteps } from '@schritt/core/study';
import { loadStudy } from '../load.ts';
import { Failure } from '../failure.ts';
import { pickMethod } from '../pick-method.ts';
import { counted, withProgress } from '../progress.ts';
import { type ExportOptions, formatOf, isStudyTable } from './export-options.ts';

/** Rows of CSV that are made at a time: a run of any length takes the room of so many. */
const AT_ONCE = 5_000;

/** Which columns and rows of a run become CSV; all columns for null. */
interface CsvOptions {
  readonly columns: readonly string[] | null;
  readonly bom: boolean;
  readonly comma: boolean;
  readonly every: number;
}

/** The rows of a run as CSV, some at a time. */
function* csvRows(
  run: CompiledRun,
  grid: Grid,
  { columns, bom, comma, every }: CsvOptions,
): Generator<string> {
  const at = begin(run, grid);
  for (let from = 0; from <= grid.steps; from += AT_ONCE * every) {
    const { rows } = rowsOf(run, grid, { from, count: AT_ONCE, every }, at);
    const table = rowTable('', run, rows, { columns, digits: null });
    yield from === 0 ? writeTable(table, 'csv', { mark: bom, comma }) : csv(table.rows, comma);
    if (rows.length < AT_ONCE) return;
  }
}

/** A study or a run in an export format, in parts. */
async function* partsOf(file: string, options: ExportOptions): AsyncGenerator<string | Uint8Array> {
  const format = formatOf(options);
  const { what, bom = false, part = false, comma = false } = options;
  checkOptions(what, format, { ...options });
  if (options.scale !== undefined && format !== 'png')
    throw new Failure([`scale applies to png only, not to ${format}`]);
  const { document, study } = loadStudy(file);
  if (isStudyTable(what)) {
    if (!isTableFormat(format)) return;
    const report = studyReport(document.title, study.problem, withProgress(studySteps(study)));
    yield writeTable(studyTable(report, what, digitsOf(options), rungColumnsOf(options)), format, {
      mark: bom,
      part,
      comma,
    });
    return;
  }
  if (what === 'rows' && format === 'csv') {
    const run = runOf(study, pickMethod(study, options.method ?? ''));
    const grid = layGrid(study.problem.start, study.problem.end, gridRequestOf(options), study.lastStep);
    yield* counted(
      csvRows(run, grid, { columns: columnsOf(options), bom, comma, every: everyOf(options) }),
      Math.ceil((grid.steps + 1) / (AT_ONCE * everyOf(options))),
    );
    return;
  }
  const request = exportRequest(document.title, study, { ...options, what, as: format });
  // what most commands do without is loaded where it is wanted
  const { default: katex } = await import('katex');
  const made = exportStudy(document, study, request, (tex, wide) =>
    katex.renderToString(tex, typesetOptions(wide, 'mathml')),
  );
  if (made.kind === 'workbook') {
    const { ods, xlsx } = await import('@schritt/core/sheets');
    yield await (format === 'ods' ? ods : xlsx)(made.workbook);
    return;
  }
  const { drawnFile } = await import('@schritt/plot/node');
  yield drawnFile(made, format, { scale: wholeOf('scale', options.scale, [1, 4], 1), part });
}

/** @throws Failure where a file cannot be written */
function writeTo(file: string, part: string | Uint8Array, flag: 'w' | 'a'): void {
  try {
    writeFileSync(file, part, { flag });
  } catch (thrown) {
    throw new Failure([
      `${file}: cannot be written (${thrown instanceof Error ? thrown.message : String(thrown)})`,
    ]);
  }
}

/** Writes a study or a run in some format, to a file or to the caller. */
export async function* exportCommand(
  file: string,
  options: ExportOptions,
): AsyncGenerator<string | Uint8Array> {
  const { out } = options;
  let isFirst = true;
  for await (const part of partsOf(file, options)) {
    if (out === undefined) yield part;
    else writeTo(out, part, isFirst ? 'w' : 'a');
    isFirst = false;
  }
}
