import { problemLinesTex } from '../../problem/tex-problem.ts';
import { methodTex } from '../../method/tex-method.ts';
import { componentNames, type Problem } from '../../problem/problem.ts';
import { isExactSolution } from '../../problem/statement.ts';
import type { Grid } from '../../run/grid.ts';
import { rowsOf } from '../../run/rows.ts';
import { runStudy } from '../../study/run-study.ts';
import { runOf, type Study } from '../../study/runs/study.ts';
import { rounded, stepSizeText } from '../../text/number-text.ts';
import { Refusal } from '../../text/refusal.ts';
import { type PlotData, runPlotData, studyPlotData } from '../plot-data.ts';
import { type CsvCell, isNumberCell, nearestDouble } from '../csv.ts';
import { studyReport } from '../study-report.ts';
import { rowTable } from '../tables/row-table.ts';
import { rungTable } from '../tables/study-tables.ts';
import type { Table } from '../tables/table.ts';
import { blankCells, type Blanks } from './blanks.ts';

/** What a sheet for students is of: a study with its rungs, or a run with its rows. */
export type HandoutOf =
  | { readonly kind: 'rungs' }
  | {
      readonly kind: 'rows';
      readonly method: number;
      readonly grid: Grid;
      readonly columns: readonly string[] | null;
    };

/** What a teacher chooses for a sheet. */
export interface HandoutChoice {
  readonly of: HandoutOf;
  readonly title: string;
  /** Sentences of her own, a paragraph a line. */
  readonly task: string;
  readonly blanks: Blanks;
  /** Significant digits that are asked for. */
  readonly digits: number;
  /** Whether there is room for a plot. */
  readonly plot: boolean;
}

/** A sheet for students, and all that belongs to its solution, before it is written in a format. */
export interface Handout {
  readonly title: string;
  /** The number of a sheet among its variants; null for the only one. */
  readonly number: number | null;
  readonly task: readonly string[];
  /** Lines of TeX: equations, values given, interval. */
  readonly problem: readonly string[];
  readonly methods: readonly { readonly title: string; readonly lines: readonly string[] }[];
  /** The problem and the methods as they are typed, for formats without formulas. */
  readonly problemText: readonly string[];
  readonly methodTexts: readonly (readonly string[])[];
  readonly hidesNumbers: boolean;
  readonly table: Table;
  readonly blank: readonly (readonly boolean[])[];
  readonly digits: number;
  /** What belongs into the room for a plot; null without one. */
  readonly plot: PlotData | null;
}

/** Most rows of a table on a sheet. */
const MAX_ROWS = 60;

/** The column of the times, which are given and need no more digits than they have. */
const TIME = 1;

function plainTime(t: CsvCell | undefined): CsvCell {
  if (t === undefined || !isNumberCell(t)) return t ?? null;
  return rounded(nearestDouble(t), 6);
}

/** The table of a sheet, and what belongs into the room for a plot. */
function contentOf(study: Study, choice: HandoutChoice): Pick<Handout, 'table' | 'plot'> {
  const { of, title, digits } = choice;
  if (of.kind === 'rungs') {
    const result = runStudy(study);
    return {
      table: rungTable(studyReport(title, study.problem, result), ['error', 'ratio', 'order'], digits),
      plot: choice.plot ? studyPlotData('order', title, study, result) : null,
    };
  }
  return {
    table: runTable(study, of, digits),
    plot: choice.plot
      ? runPlotData('solution', title, study, {
          method: of.method,
          gridRequests: [{ steps: of.grid.steps }],
          component: null,
          drawn: null,
        })
      : null,
  };
}

/** The rows of a run that students work out: values, stages, the error. */
function runTable(study: Study, of: HandoutOf & { readonly kind: 'rows' }, digits: number): Table {
  const { grid } = of;
  const method = study.methods[of.method];
  if (method === undefined) throw new Refusal('missing', `this study has no method ${of.method}`);
  if (grid.steps >= MAX_ROWS)
    throw new Refusal(
      'grid',
      `a sheet has at most ${MAX_ROWS} rows, and this run has ${grid.steps + 1}; use a larger h`,
    );
  const run = runOf(study, method);
  const { rows, stopped } = rowsOf(run, grid, { from: 0, count: grid.steps + 1 });
  if (stopped !== null)
    throw new Refusal('form', `${method.title} stops in step ${stopped.step}: ${stopped.why}`);
  const whole = rowTable('', run, rows, { columns: null, digits });
  const names = new Set(componentNames(study.problem));
  const isShown = (column: string): boolean =>
    of.columns === null
      ? names.has(column) ||
        column === 'error' ||
        run.program.stages.some(({ name }) => column === name || column.startsWith(`${name}[`))
      : of.columns.includes(column);
  const shown = whole.columns.flatMap(({ title: column }, i) => (i < 2 || isShown(column) ? [i] : []));
  // a column without a single number is none
  const kept = shown.filter((i) => i < 2 || whole.rows.some((row) => row[i] !== null));
  return {
    ...whole,
    caption: `${method.title}, h = ${stepSizeText(grid.h)}`,
    columns: kept.map((i) => (i === TIME ? { ...whole.columns[i]!, digits: null } : whole.columns[i]!)),
    rows: whole.rows.map((row) => kept.map((i) => (i === TIME ? plainTime(row[i]) : (row[i] ?? null)))),
  };
}

/** What a problem says, without its exact solutions, which are not for students. */
function problemLines({ text, statements, independent }: Problem): readonly string[] {
  return statements
    .filter((statement) => !isExactSolution(statement, independent))
    .map(({ at }) => text.slice(at.from, at.to));
}

/**
 * A sheet of a study or of one of its runs.
 *
 * @throws Refusal for more than sixty rows, and for blanks in columns that there are not
 */
export function makeHandout(study: Study, choice: HandoutChoice, number: number | null = null): Handout {
  const { of, title, task, blanks, digits } = choice;
  const { table, plot } = contentOf(study, choice);
  const methods = of.kind === 'rungs' ? study.methods : study.methods.slice(of.method, of.method + 1);
  return {
    title,
    number,
    task: task.split(/\r?\n/).filter((line) => line.trim() !== ''),
    problem: problemLinesTex(study.problem),
    methods: methods.map((method) => ({ title: method.title, lines: methodTex(method.method) })),
    problemText: problemLines(study.problem),
    // where numbers of a formula are left out, its text would tell them
    methodTexts: methods.map(({ method }) =>
      blanks.coefficients ? [] : method.text.trimEnd().split(/\r?\n/),
    ),
    hidesNumbers: blanks.coefficients,
    table,
    blank: blankCells(table, blanks),
    digits,
    plot,
  };
}
