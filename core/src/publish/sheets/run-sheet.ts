import { atom, type TextPart } from '../../formula/printer.ts';
import { blockAt, componentNames, hasExact, type Problem } from '../../problem/problem.ts';
import type { Grid } from '../../run/grid.ts';
import { norm } from '../../run/norm.ts';
import type { Row } from '../../run/rows.ts';
import { vectorNames } from '../../program/stage-names.ts';
import { cellAt, type CellFormula, fromBelow, writerOf } from './cell-formula.ts';
import { MISSING } from './problem-formulas.ts';
import type { ProblemCells } from './problem-sheet.ts';
import type { RunPlaces, StageSource, StepColumns } from './step-columns.ts';
import {
  cell,
  type CellKind,
  EMPTY,
  formulaCell,
  type Sheet,
  type SheetCell,
  type SheetChart,
} from './workbook.ts';

/** The first row of numbers, from 0: above it are a title, a line on the run and the heads of the columns. */
export const FIRST_ROW = 3;

/** How the error of a row is made: of which components, and whether beside the size of the exact values. */
export interface RowError {
  readonly of: readonly number[];
  readonly relative: boolean;
}

/** The columns of a sheet of a run. */
export interface RunColumns extends RunPlaces {
  readonly exact: ((place: number) => number) | null;
  /** Null where there is no exact solution. */
  readonly error: number | null;
  /** The first column of stages. */
  readonly stages: number;
}

export function runColumns(problem: Problem): RunColumns {
  const { size } = problem;
  const isKnown = hasExact(problem);
  return {
    n: 0,
    t: 1,
    component: (place) => 2 + place,
    exact: isKnown ? (place) => 2 + size + place : null,
    error: isKnown ? 2 + 2 * size : null,
    stages: isKnown ? 3 + 2 * size : 2 + size,
  };
}

/** What a sheet of a run is made of. */
export interface RunRequest {
  readonly problem: Problem;
  readonly cells: ProblemCells;
  readonly columns: RunColumns;
  readonly error: RowError;
  /** The formula and its starting methods: each with what its columns are headed by. */
  readonly chain: readonly { readonly prefix: string; readonly steps: StepColumns }[];
  /** Whether the starting values are exact. */
  readonly exactStart: boolean;
}

/** One run: the names of its step size and its number of steps, and how many rows it gets. */
export interface OneRun {
  readonly name: string;
  readonly title: string;
  readonly h: string;
  readonly steps: string;
  readonly rows: number;
  /** The run itself: what its formulas come to. */
  readonly known: readonly Row[];
  readonly endsWell: boolean;
  readonly grid: Grid;
}

/** The square root of a sum of squares. */
function rootOfSquares(terms: readonly CellFormula[]): CellFormula {
  return `SQRT(${terms.map((term) => `${term}*${term}`).join('+')})`;
}

function errorFormula({ of, relative }: RowError, { component, exact }: RunColumns): CellFormula {
  const exactAt = (place: number): CellFormula => cellAt(exact?.(place) ?? 0);
  const terms = of.map((place) => `(${cellAt(component(place))}-${exactAt(place)})`);
  const isOne = of.length === 1;
  const size = isOne ? `ABS(${exactAt(of[0] ?? 0)})` : rootOfSquares(of.map(exactAt));
  const error = isOne ? `ABS${terms[0] ?? ''}` : rootOfSquares(terms);
  return relative ? `${error}/${size}` : error;
}

/** The error of a row of a run, as the formula has it; null where there is none. */
export function errorOfRow({ of, relative }: RowError, { values, exact }: Row): number | null {
  const exacts = of.map((place) => exact[place] ?? NaN);
  const error = norm(of.map((place, i) => values[place]! - exacts[i]!));
  const shownError = relative ? error / norm(exacts) : error;
  return Number.isFinite(shownError) ? shownError : null;
}

/** A column: formulas that stay blank in rows that are not there, null for a row without one; and what they come to. */
interface SheetColumn {
  readonly title: string;
  readonly kind: CellKind;
  readonly of: (n: number) => CellFormula | null;
  readonly result: (row: Row) => number | string | null;
  /** What it comes to in rows that are not there; blank by default. */
  readonly behind?: number | null;
}

/** Components that the chart of a run shows, at most. */
const MAX_CHARTED = 8;

/** How many columns the charts of a run need. */
export function chartColumns(problem: Problem): number {
  return 1 + Math.min(problem.size, MAX_CHARTED) + (hasExact(problem) ? 1 : 0);
}

/**
 * Charts of the values and of the errors of a run, and the columns that they draw: the same numbers, with the last ones
 * repeated in rows that are not there, because a chart takes a blank cell for a number.
 */
function chartParts(
  problem: Problem,
  columns: RunColumns,
  run: OneRun,
  made: readonly SheetColumn[],
): { readonly helpers: readonly SheetColumn[]; readonly charts: readonly SheetChart[] } {
  const from = made.length;
  const sources = [
    columns.t,
    ...Array.from({ length: Math.min(problem.size, MAX_CHARTED) }, (_, place) => columns.component(place)),
    ...(columns.error === null ? [] : [columns.error]),
  ];
  const last = run.known.at(-1);
  const helpers = sources.map((source, i): SheetColumn => {
    const of = made[source];
    const value = last === undefined ? null : (of?.result(last) ?? null);
    return {
      title: `chart: ${of?.title ?? ''}`,
      kind: 'note',
      of: (n) =>
        n === 0 ? cellAt(source) : `IF($${cellAt(columns.n)}="",${cellAt(from + i, -1)},${cellAt(source)})`,
      result: (row) => (source === columns.t ? row.t : (of?.result(row) ?? null)),
      behind: run.endsWell && typeof value === 'number' ? value : null,
    };
  });
  const titleOf = (i: number): string => made[sources[i] ?? 0]?.title ?? '';
  const chart = (title: string, places: readonly number[], row: number): SheetChart => ({
    title,
    x: { title: problem.independent, column: from },
    series: places.map((i) => ({ title: titleOf(i), column: from + i })),
    rows: [FIRST_ROW, FIRST_ROW + run.rows - 1],
    logarithmic: false,
    at: { row, column: from + sources.length + 1 },
  });
  const shown = Math.min(problem.size, MAX_CHARTED);
  const components = Array.from({ length: shown }, (_, i) => 1 + i);
  return {
    helpers,
    charts: [
      chart('Solution', components, FIRST_ROW),
      ...(columns.error === null ? [] : [chart('Error', [1 + shown], FIRST_ROW + 20)]),
    ],
  };
}

/**
 * The sheet of one run: a row for every grid point, formulas in all of them, blank behind the end of the interval.
 *
 * A spreadsheet takes a difference that is nearly nothing for 0 where it is the last thing that a formula does; within
 * brackets it does not.
 */
export function runSheet(request: RunRequest, run: OneRun): Sheet {
  const { problem, cells, columns, chain, exactStart } = request;
  const names = componentNames(problem);
  const here = cellAt(columns.n);
  const inRow = (formula: CellFormula): CellFormula => `IF($${here}="","",(${formula}))`;
  const inStep = (formula: CellFormula): CellFormula =>
    `IF($${here}="","",IF($${here}>=${run.steps},"",(${formula})))`;
  /** What does the step to row n. */
  const doing = (n: number): StepColumns | null => chain.find(({ steps }) => steps.depth < n)?.steps ?? null;
  const exactOf = (place: number): CellFormula => {
    const block = blockAt(problem, place);
    if (block?.exact == null) return 'NA()';
    const standing = { time: atom(cellAt(columns.t)), component: (): TextPart => MISSING };
    return cells.formula(block.exact, block, place - block.offset, standing).text;
  };
  const made: SheetColumn[] = [
    {
      title: 'n',
      kind: 'count',
      of: (n) =>
        n === 0 ? null : `IF(${cellAt(0, -1)}="","",IF(${cellAt(0, -1)}<${run.steps},${cellAt(0, -1)}+1,""))`,
      result: ({ n }) => n,
    },
    {
      title: problem.independent,
      kind: 'value',
      of: () => inRow(`${cells.start}+${here}*${run.h}`),
      result: ({ t }) => t,
    },
    ...names.map((title, place) => ({
      title,
      kind: 'value' as const,
      of: (n: number): CellFormula => {
        if (n === 0) return cells.initial[place] ?? 'NA()';
        const steps = doing(n);
        if (steps !== null) return inRow(fromBelow(steps.next[place] ?? 'NA()', 1));
        return exactStart ? inRow(exactOf(place)) : 'NA()';
      },
      result: ({ values }: Row) => values[place] ?? null,
    })),
  ];
  if (columns.exact !== null) {
    vectorNames('exact', names).forEach((title, place) => {
      const formula = inRow(exactOf(place));
      made.push({ title, kind: 'value', of: () => formula, result: ({ exact }) => exact[place] ?? null });
    });
    const formula = inRow(errorFormula(request.error, columns));
    made.push({
      title: 'error',
      kind: 'error',
      of: () => formula,
      result: (row) => errorOfRow(request.error, row),
    });
  }
  for (const [i, { prefix, steps }] of chain.entries()) {
    // a starter is done with where the formula before it begins; kept slopes are wanted from the first row on
    const until = chain[i - 1]?.steps.depth ?? Infinity;
    for (const { title, formula, source } of steps.columns) {
      const isKept = source?.kind === 'slope';
      const whole = inStep(formula);
      made.push({
        title: `${prefix}${title}`,
        kind: 'value',
        of: (n) => (n >= until || (n < steps.depth && !isKept) ? null : whole),
        result: (row) => (row.n === run.grid.steps ? '' : i === 0 || isKept ? stageValue(source, row) : null),
      });
    }
  }
  const { helpers, charts } = chartParts(problem, columns, run, made);
  made.push(...helpers);
  return {
    name: run.name,
    widths: made.map(({ kind }) => (kind === 'count' ? 7 : 16)),
    rows: [
      [cell(run.title, 'title')],
      [
        cell('h', 'head'),
        formulaCell(run.h, run.grid.h, 'value'),
        cell('N', 'head'),
        formulaCell(run.steps, run.grid.steps, 'count'),
      ],
      made.map(({ title }) => cell(title, 'head')),
      ...rowsOf(made, run),
    ],
    frozen: { rows: FIRST_ROW, columns: 2 },
    charts,
  };
}

/** The value of a stage in a row; none at the last point and for steps taken by the starting method. */
function stageValue(source: StageSource | null, { stages, slopes }: Row): number | null {
  if (source === null) return null;
  return source.kind === 'slope'
    ? (slopes[source.place] ?? null)
    : (stages?.[source.index]?.[source.component] ?? null);
}

function rowsOf(
  made: readonly SheetColumn[],
  { rows: count, known, endsWell }: OneRun,
): readonly (readonly SheetCell[])[] {
  const writers = new Map<CellFormula, (row: number) => string>();
  // behind the end of a run rows are blank; behind a step that became non-finite they are not known
  const behind = endsWell ? '' : null;
  const write = (formula: CellFormula, row: number): string => {
    const writer = writers.get(formula) ?? writerOf(formula);
    writers.set(formula, writer);
    return writer(row);
  };
  return Array.from({ length: count }, (_, n) =>
    made.map(({ kind, of, result, behind: own = behind }, i) => {
      if (i === 0 && n === 0) return cell(0, kind);
      const formula = of(n);
      if (formula === null) return EMPTY;
      const row = known[n];
      return formulaCell(write(formula, FIRST_ROW + n), row === undefined ? own : result(row), kind);
    }),
  );
}
