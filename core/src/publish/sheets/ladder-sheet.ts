import { ln } from '../../elementary/logarithm.ts';
import { componentNames, type Problem } from '../../problem/problem.ts';
import type { EndMeasure, GridMeasure } from '../../study/measures/measure.ts';
import { shortNumber } from './sheet-writing.ts';
import type { ProblemCells } from './problem-sheet.ts';
import { FIRST_ROW, type OneRun, type RunColumns } from './run-sheet.ts';
import {
  cell,
  cellAddress,
  formulaCell,
  columnLetters,
  EMPTY,
  type NamedCell,
  type Sheet,
  type SheetCell,
  type SheetChart,
} from './workbook.ts';

export const LADDER_SHEET = 'Ladder';

/** Error measures that a sheet has formulas for. */
export type SheetMeasure = EndMeasure | GridMeasure;

/** A rung in the sheet: its run, and how its grid was asked for. */
export interface SheetRung {
  readonly run: OneRun;
  readonly givenAs: 'h' | 'steps';
  /** Whether it is half of the rung before, so that it follows that one. */
  readonly isHalf: boolean;
  /** Its error, as the study takes it; null where there is none. */
  readonly error: number | null;
}

/** The first row of rungs, from 0. */
const FIRST = 3;
const [STEPS_COLUMN, H_COLUMN] = [3, 4];

/** Cells of a rung up to its step size: the requested h, the number of steps, N and h. */
function gridCells(
  { givenAs, run: { grid }, isHalf }: SheetRung,
  i: number,
  { start, end }: ProblemCells,
  length: number,
): readonly SheetCell[] {
  const row = FIRST + i;
  const at = (column: number): string => cellAddress(row, column);
  const label = cell(i + 1, 'count');
  if (givenAs === 'steps')
    return [
      label,
      EMPTY,
      EMPTY,
      isHalf
        ? formulaCell(`2*${cellAddress(row - 1, STEPS_COLUMN)}`, grid.steps, 'count')
        : cell(grid.steps, 'input'),
      formulaCell(`(${end}-${start})/${at(STEPS_COLUMN)}`, grid.h, 'value'),
    ];
  const [wished, times] = [at(1), at(2)];
  const whole = `MAX(1,ROUND(${times},0))`;
  const divides = `ABS(${times}-${whole})<=0.000000000001*${whole}`;
  const fewer = `MAX(1,INT(${times}))`;
  const isNearer = `ABS((${end}-${start})/${fewer}-${wished})<ABS((${end}-${start})/(${fewer}+1)-${wished})`;
  return [
    label,
    isHalf ? formulaCell(`${cellAddress(row - 1, 1)}/2`, grid.wished, 'value') : cell(grid.wished, 'input'),
    formulaCell(`(${end}-${start})/${wished}`, length / grid.wished, 'value'),
    formulaCell(`IF(${divides},${whole},IF(${isNearer},${fewer},${fewer}+1))`, grid.steps, 'count'),
    formulaCell(`IF(${divides},${wished},(${end}-${start})/${at(STEPS_COLUMN)})`, grid.h, 'value'),
  ];
}

function ratioOf(rungs: readonly SheetRung[], i: number): number | null {
  const [before, own] = [rungs[i - 1]?.error ?? null, rungs[i]?.error ?? null];
  return before === null || own === null ? null : before / own;
}

function orderOf(rungs: readonly SheetRung[], i: number): number | null {
  const ratio = ratioOf(rungs, i);
  const [before, own] = [rungs[i - 1]?.run.grid.h ?? NaN, rungs[i]?.run.grid.h ?? NaN];
  return ratio === null || !(ratio > 0) ? null : ln(ratio) / ln(before / own);
}

/** What the sheet of the ladder is made of. */
export interface LadderOptions {
  readonly problem: Problem;
  readonly cells: ProblemCells;
  readonly columns: RunColumns;
  readonly title: string;
  readonly rungs: readonly SheetRung[];
  readonly measure: SheetMeasure;
  /** The head of the column of errors. */
  readonly errorTitle: string;
  /** What is said of the step sizes that have no sheet. */
  readonly left: readonly string[];
}

/** The chart of the errors over the step sizes, on logarithmic axes, below the table and its notes. */
function errorChart(
  title: string,
  column: number,
  { rungs, notes }: { readonly rungs: number; readonly notes: number },
): SheetChart {
  return {
    title,
    x: { title: 'h', column: H_COLUMN },
    series: [{ title, column }],
    rows: [FIRST, FIRST + rungs - 1],
    logarithmic: true,
    at: { row: FIRST + rungs + notes + 2, column: 1 },
  };
}

/** The sheet of the ladder: values at the end, errors, ratios and orders as formulas over the sheets of the runs. */
export function ladderSheet({
  problem,
  cells,
  columns,
  title,
  rungs,
  measure,
  errorTitle,
  left,
}: LadderOptions): { readonly sheet: Sheet; readonly names: readonly NamedCell[] } {
  const components = componentNames(problem);
  const { error } = columns;
  const errorColumn = 5 + components.length;
  const heads = [
    'No.',
    'h as typed',
    'number of steps',
    'N',
    'h',
    ...components.map((name) => `${name} at the end`),
    ...(error === null ? [] : [errorTitle, 'ratio', 'order']),
    'rows',
  ];
  const rows = rungs.map((rung, i): readonly SheetCell[] => {
    const { run } = rung;
    const row = FIRST + i;
    const last = FIRST_ROW + run.rows;
    const range = (column: number): string => {
      const letters = columnLetters(column);
      return `'${run.name}'!$${letters}$${FIRST_ROW + 1}:$${letters}$${last}`;
    };
    const fits = `${run.steps}<${run.rows}`;
    const atEnd = (column: number): string => `IF(${fits},INDEX(${range(column)},${run.steps}+1),"")`;
    const own = cellAddress(row, errorColumn);
    const before = cellAddress(row - 1, errorColumn);
    const both = (formula: string): string => `IF(AND(ISNUMBER(${before}),ISNUMBER(${own})),${formula},"")`;
    const taken = (column: number): string =>
      measure.kind === 'end' ? atEnd(column) : `IF(${fits},${measure.sheet(range(column))},"")`;
    const ratio = cellAddress(row, errorColumn + 1);
    const sizes = `${cellAddress(row - 1, H_COLUMN)}/${cellAddress(row, H_COLUMN)}`;
    return [
      ...gridCells(rung, i, cells, problem.end - problem.start),
      ...components.map((_, place) =>
        formulaCell(
          atEnd(columns.component(place)),
          run.endsWell ? (run.known.at(-1)?.values[place] ?? null) : null,
          'value',
        ),
      ),
      ...(error === null
        ? []
        : [
            formulaCell(taken(error), rung.error, 'error'),
            i === 0 ? EMPTY : formulaCell(both(`${before}/${own}`), ratioOf(rungs, i), 'order'),
            i === 0
              ? EMPTY
              : formulaCell(
                  `IF(ISNUMBER(${ratio}),IF(${ratio}>0,LN(${ratio})/LN(${sizes}),""),"")`,
                  orderOf(rungs, i),
                  'order',
                ),
          ]),
      formulaCell(
        `IF(${fits},"","only ${run.rows} rows: copy the last row of ${run.name} further down, or use a larger h")`,
        '',
        'note',
      ),
    ];
  });
  return {
    sheet: {
      name: LADDER_SHEET,
      widths: heads.map((head, i) =>
        i === 0 ? 6 : i === heads.length - 1 ? 50 : Math.max(14, head.length + 2),
      ),
      rows: [
        [cell(title, 'title')],
        [cell('Change any yellow cell, here or on the problem sheet: everything is recalculated.', 'note')],
        heads.map((head) => cell(head, 'head')),
        ...rows,
        [EMPTY],
        ...left.map((note) => [cell(note, 'note')]),
      ],
      frozen: { rows: FIRST, columns: 1 },
      charts:
        error === null || rungs.length < 2
          ? []
          : [errorChart(errorTitle, errorColumn, { rungs: rungs.length, notes: left.length })],
    },
    names: rungs.flatMap(({ run }, i) => [
      { name: run.h, sheet: LADDER_SHEET, row: FIRST + i, column: H_COLUMN },
      { name: run.steps, sheet: LADDER_SHEET, row: FIRST + i, column: STEPS_COLUMN },
    ]),
  };
}

/** Whether a number can be half of another to the last digit of both, as they were typed. */
export function isHalfOf(value: number, before: number): boolean {
  return value === before / 2 && shortNumber(before) !== null;
}
