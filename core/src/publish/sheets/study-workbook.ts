import { startingChain, type TitledMethod } from '../../compile/starting-chain.ts';
import { hasExact, isSecondOrder } from '../../problem/problem.ts';
import type { Grid } from '../../run/grid.ts';
import { type Row, rowsOf } from '../../run/rows.ts';
import { errorCaption } from '../../study/error-caption.ts';
import { summarize } from '../../study/measures/measure.ts';
import { isRelative, measureOf } from '../../study/runs/error-choice.ts';
import { layLadder } from '../../study/runs/ladder.ts';
import { precisionOf, runOf, type Study, type StudyMethod } from '../../study/runs/study.ts';
import { placesOf } from '../../study/runs/truth.ts';
import { count } from '../../text/number-text.ts';
import { Refusal } from '../../text/refusal.ts';
import { oneLine } from '../tables/cell-text.ts';
import { isHalfOf, ladderSheet, type SheetMeasure, type SheetRung } from './ladder-sheet.ts';
import { type ProblemCells, problemCells } from './problem-sheet.ts';
import {
  chartColumns,
  errorOfRow,
  type RowError,
  type RunColumns,
  runColumns,
  runSheet,
} from './run-sheet.ts';
import { stepColumns, type StepColumns } from './step-columns.ts';
import type { Workbook } from './workbook.ts';

/** Most rows of one run, most components, and most cells of formulas of a file. */
const MAX_ROWS = 20_000;
const MAX_COMPONENTS = 50;
const MAX_CELLS = 600_000;
/** Fewest rows that a run gets, so that its h may be made smaller. */
const FEWEST_ROWS = 40;

function sheetMeasure({ error }: Study): SheetMeasure {
  const measure = measureOf(error);
  if (measure !== null && measure.kind !== 'local') return measure;
  throw new Refusal(
    'form',
    'a spreadsheet has the error at the end, the maximum error or the RMS error; choose one of these for the study',
  );
}

function rowsFor({ steps }: Grid): number {
  return Math.max(steps + 1, Math.min(MAX_ROWS + 1, Math.max(FEWEST_ROWS, 2 * steps + 1)));
}

/** Why a rung has no sheet of its own; null where it has one. */
function whyLeft(grid: Grid): string | null {
  if (grid.steps > MAX_ROWS) return `more than ${count(MAX_ROWS)} steps`;
  // what does not divide is made to fit, shortened or overrun: only the first changes h
  if (!grid.divides && grid.h === grid.wished) return 'its last step has a different size';
  return null;
}

/** A study of which sheets can be made, with what they need of it. */
interface SheetCase {
  readonly title: string;
  readonly study: Study;
  readonly chosen: StudyMethod;
  readonly measure: SheetMeasure;
  readonly error: RowError;
  /** The method, and its starting methods. */
  readonly methods: readonly TitledMethod[];
  /** Whether the starting values are exact. */
  readonly exactStart: boolean;
}

/** @throws Refusal for what no sheet can be made of */
function sheetCase(title: string, study: Study, method: number): SheetCase {
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${method}`);
  const { problem, start, error } = study;
  if (precisionOf(study, chosen) === 'single')
    throw new Refusal('form', 'a spreadsheet is in double precision, and this study is in single');
  if (problem.size > MAX_COMPONENTS)
    throw new Refusal(
      'size',
      `a live spreadsheet has at most ${MAX_COMPONENTS} components, and this problem has ${problem.size}`,
    );
  if (chosen.method.form === 'second order' && !isSecondOrder(problem))
    throw new Refusal('form', "this method is for equations x'' = a(t, x, x')");
  const of = placesOf(problem, error.of);
  if ('message' in of) throw new Refusal('form', of.message);
  const measure = sheetMeasure(study);
  const methods = startingChain(chosen, start);
  const exactStart = (methods.at(-1)?.method.depth ?? 0) > 0;
  if (exactStart && !hasExact(problem))
    throw new Refusal('start', 'exact starting values were chosen, but no exact solution is given');
  return { title, study, chosen, measure, error: { of, relative: isRelative(error) }, methods, exactStart };
}

/** The grids whose runs get a sheet: those that are given, or those of the study's step sizes. */
function gridsOf({ problem, ladder, lastStep }: Study, grids: readonly Grid[] | null): readonly Grid[] {
  if (grids === null)
    return layLadder(ladder, problem.start, problem.end, lastStep).flatMap((r) => (r.ok ? [r.grid] : []));
  const [first] = grids;
  const why = first === undefined ? null : whyLeft(first);
  if (why !== null) throw new Refusal('grid', `this run cannot be exported as a live spreadsheet: ${why}`);
  return grids;
}

/** The stages of the method and of its starting methods, in columns beside each other. */
function chainColumns(
  { study: { problem }, methods }: SheetCase,
  cells: ProblemCells,
  columns: RunColumns,
): readonly { readonly prefix: string; readonly steps: StepColumns }[] {
  const chain: { prefix: string; steps: StepColumns }[] = [];
  let from = columns.stages;
  for (const [i, one] of methods.entries()) {
    const { start, writing, formula, used } = cells;
    const steps = stepColumns(one.method, {
      problem,
      places: columns,
      from,
      start,
      h: H_MARK,
      writing,
      formula,
      used,
    });
    chain.push({ prefix: i === 0 ? '' : `${oneLine(one.title)}: `, steps });
    from += steps.columns.length;
  }
  return chain;
}

/** The runs, each with room for its rows, and what is said of those that get none. */
function sheetRungs(
  { title, study, chosen, measure, error }: SheetCase,
  grids: readonly Grid[],
  byCounts: boolean,
  { width, cells }: { readonly width: number; readonly cells: ProblemCells },
): { readonly rungs: readonly SheetRung[]; readonly left: readonly string[] } {
  const run = runOf(study, chosen);
  const rungs: SheetRung[] = [];
  const left: string[] = [];
  let room = MAX_CELLS;
  let before: Grid | null = null;
  for (const grid of grids) {
    const rows = rowsFor(grid);
    const why = whyLeft(grid) ?? (rows * width > room ? 'the file would be too large' : null);
    if (why !== null) {
      left.push(`omitted: N = ${count(grid.steps)}, ${why}`);
      before = null;
      continue;
    }
    room -= rows * width;
    const i = rungs.length + 1;
    const { rows: known, stopped } = rowsOf(run, grid, { from: 0, count: grid.steps + 1 });
    const isHalf =
      before !== null && (byCounts ? grid.steps === 2 * before.steps : isHalfOf(grid.wished, before.wished));
    rungs.push({
      run: {
        name: `Run ${i}`,
        title: `${oneLine(title)}: ${oneLine(chosen.title)}, step size ${i}`,
        h: cells.another(`h_${i}`),
        steps: cells.another(`N_${i}`),
        rows,
        known,
        endsWell: stopped === null,
        grid,
      },
      givenAs: byCounts ? 'steps' : 'h',
      isHalf,
      error: stopped === null ? errorOfRun(error, known, measure) : null,
    });
    before = grid;
  }
  if (rungs.length === 0)
    throw new Refusal(
      'grid',
      `no step size of this study can be written as a spreadsheet; ${left[0] ?? 'there are none'}`,
    );
  return { rungs, left };
}

/** Notes below the problem: the texts of the methods, and which digits may differ. */
function notesOf({ methods }: SheetCase, { functions }: ProblemCells): readonly string[] {
  const names = [...functions].map((name) => (name === '^' ? 'powers' : name));
  return [
    ...methods.flatMap(({ title: name, method: { text } }, i) => [
      `${i === 0 ? 'method' : 'starting method'}: ${oneLine(name)}`,
      ...text
        .trimEnd()
        .split(/\r?\n/)
        .map((line) => `    ${oneLine(line)}`),
    ]),
    names.length === 0
      ? 'Only +, -, *, / and roots: all digits agree with those of the run.'
      : `Digits may differ from those of the run in the last places: a spreadsheet rounds ${names.join(', ')} differently.`,
  ];
}

/**
 * One method of a study as a file of sheets that calculate: the problem with its numbers in named cells, a sheet for
 * every run, and the step sizes with errors, ratios and orders over these.
 *
 * @param method its place in the study
 * @param grids the runs; without them those of the study's step sizes
 * @throws Refusal for more than six unknowns of an implicit formula, derivatives of f, more than fifty components, runs of more than 20,000 steps,
 *   single precision, and errors at a time or of one step
 */
export function studyWorkbook(
  title: string,
  study: Study,
  method: number,
  grids: readonly Grid[] | null = null,
): Workbook {
  const of = sheetCase(title, study, method);
  const { problem, error, ladder } = study;
  const laid = gridsOf(study, grids);
  const cells = problemCells(problem);
  const columns = runColumns(problem);
  const chain = chainColumns(of, cells, columns);
  const width =
    chain.reduce((sum, { steps }) => sum + steps.columns.length, columns.stages) + chartColumns(problem);
  const { rungs, left } = sheetRungs(of, laid, 'counts' in ladder && grids === null, {
    width,
    cells,
  });
  const ladderPart = ladderSheet({
    problem,
    cells,
    columns,
    title: `${oneLine(title)}: ${oneLine(of.chosen.title)}`,
    rungs,
    measure: of.measure,
    errorTitle: errorCaption(problem, error),
    left,
  });
  const request = { problem, cells, columns, error: of.error, exactStart: of.exactStart };
  const runs = rungs.map(({ run }) => {
    const own = chain.map(({ prefix, steps }) => ({ prefix, steps: withStepSize(steps, run.h) }));
    return runSheet({ ...request, chain: own }, run);
  });
  const problemPart = cells.sheet(title, notesOf(of, cells));
  return {
    title: oneLine(title),
    sheets: [problemPart.sheet, ladderPart.sheet, ...runs],
    names: [...problemPart.names, ...ladderPart.names],
  };
}

/** The error of a run from those of its rows. */
function errorOfRun(error: RowError, rows: readonly Row[], measure: SheetMeasure): number | null {
  const last = rows.at(-1);
  if (last === undefined) return null;
  if (measure.kind === 'end') return errorOfRow(error, last);
  return summarize(
    measure,
    rows.map((row) => errorOfRow(error, row) ?? NaN),
  );
}

/** Stands for the name of the step size in formulas that several runs share: no name has braces. */
const H_MARK = '{h}';

function withStepSize(steps: StepColumns, h: string): StepColumns {
  const put = (formula: string): string => formula.replaceAll(H_MARK, h);
  return {
    ...steps,
    columns: steps.columns.map((column) => ({ ...column, formula: put(column.formula) })),
    next: steps.next.map(put),
  };
}
