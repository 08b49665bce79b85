import { startingChain } from '../compile/starting-chain.ts';
import { componentNames } from '../problem/problem.ts';
import { layOut } from '../program/layout.ts';
import { lower } from '../program/lowering.ts';
import { stageNames } from '../program/stage-names.ts';
import { type Grid, type GridRequest, layGrid } from '../run/grid.ts';
import { precisionOf, type Study, type StudyMethod } from '../study/runs/study.ts';
import { Refusal } from '../text/refusal.ts';
import type { KeptDigits } from './kept-digits.ts';
import { findMistakes, type Mistake, type MistakesOf } from './mistakes/find-mistakes.ts';
import { type RowVerdict, rowVerdicts } from './row-verdicts.ts';
import {
  AS_FOUND,
  type ColumnMeaning,
  type ReadingChoice,
  type RowsOf,
  type StudentRows,
  studentRows,
} from './student-rows.ts';
import { readStudentTable, type StudentTable } from './student-table.ts';
import type { Trial } from './trial-run.ts';

/** A student's rows, marked. */
export interface Marking {
  readonly rows: readonly RowVerdict[];
  readonly digits: KeptDigits;
  /** The first row that is wrong; null where all agree. */
  readonly firstWrong: number | null;
  readonly mistakes: readonly Mistake[];
  /** The only wrong step, where all others are right from the student's own rows and no mistake explains them; else null. */
  readonly slip: number | null;
  readonly table: StudentTable;
  /** Steps of the right run. */
  readonly steps: number;
  /** The name of the time. */
  readonly independent: string;
}

/** Most rows that are marked. */
const MAX_ROWS = 10_000;

/** The right run of a study, to be tried with mistakes. */
function rightTrial(study: Study, chosen: StudyMethod, grid: Grid): Trial {
  const { problem, start } = study;
  const methods = startingChain(chosen, start).map(({ method }) => method);
  return {
    problem,
    methods,
    exchanged: null,
    exactStart: (methods.at(-1)?.depth ?? 0) > 0,
    initial: problem.initial,
    h: grid.h,
    steps: grid.steps,
    shorter: grid.shorter === null ? null : { n: grid.steps - 1, h: grid.shorter },
    time: 'times h',
    precision: precisionOf(study, chosen),
    kept: null,
    sequential: 'no',
    rhsAtExact: false,
  };
}

/** The row of the only wrong step; null where several are wrong, or steps cannot be compared. */
function slipOf(verdicts: readonly RowVerdict[]): number | null {
  const wrong = verdicts.filter(({ agreesWithOwn }) => agreesWithOwn === false);
  const [only] = wrong;
  const others = verdicts.filter(({ agreesWithOwn }) => agreesWithOwn === true);
  return only !== undefined && wrong.length === 1 && others.length > 0 ? only.n : null;
}

/** Against which run rows are marked. */
export interface MarkRequest {
  readonly study: Study;
  /** Place of the method in the study. */
  readonly method: number;
  readonly grid: Grid;
}

/**
 * A request for a run of a study.
 *
 * @throws Refusal for a step size or number of steps that is none
 * @example markRequest(study, { method: 0, gridRequest: { steps: 10 } }).grid.steps // 10
 */
export function markRequest(
  study: Study,
  { method, gridRequest }: { readonly method: number; readonly gridRequest: GridRequest },
): MarkRequest {
  const { problem, lastStep } = study;
  return { study, method, grid: layGrid(problem.start, problem.end, gridRequest, lastStep) };
}

/** The method of a request, with its starting methods. */
function chosenOf({ study, method }: MarkRequest): StudyMethod {
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${method}`);
  return chosen;
}

/**
 * What the columns of a student may hold.
 *
 * @throws Refusal for a method that the study has not
 * @example rowsFor(request).stages // ['k1', 'k2']
 */
export function rowsFor(request: MarkRequest): RowsOf {
  const { grid } = request;
  const { problem } = request.study;
  const { method } = chosenOf(request);
  const program = lower(method, problem.size === 1 && method.form === 'first order');
  return {
    components: componentNames(problem),
    stages: stageNames(problem, program, layOut(problem, program)),
    independent: problem.independent,
    grid,
    initial: problem.initial,
  };
}

/** A student's rows as rounded or as cut off, beside the right run. */
interface Compared {
  readonly digits: KeptDigits;
  readonly verdicts: readonly RowVerdict[];
}

function compared(trial: Trial, { rows, digits, timeDigits }: StudentRows, areCut: boolean): Compared {
  const kept = { ...digits, areCut };
  return { digits: kept, verdicts: rowVerdicts(trial, rows, kept, timeDigits) };
}

function agreeing(verdicts: readonly RowVerdict[]): number {
  return verdicts.filter(({ agrees }) => agrees).length;
}

/** Where the first wrong row is; behind all rows where none is wrong. */
function firstWrongOf({ verdicts }: Compared): number {
  const at = verdicts.findIndex(({ agrees }) => !agrees);
  return at < 0 ? Infinity : at;
}

/** Rows that have to agree as cut off and not as rounded, before digits count as cut off: fewer may do so by chance. */
const MIN_CUT = 2;

/** Rows and the mistakes that reproduce them. */
interface Explained {
  readonly compared: Compared;
  readonly mistakes: readonly Mistake[];
}

/**
 * Rows as rounded, where all of them are right or a mistake explains them; otherwise as cut off, where that is so or makes the
 * first wrong row a later one.
 */
function explained(
  trial: Trial,
  understood: StudentRows,
  { methods, title }: Pick<MistakesOf, 'methods' | 'title'>,
): Explained {
  const rounded = compared(trial, understood, false);
  const wrong = rounded.verdicts.length - agreeing(rounded.verdicts);
  if (wrong === 0) return { compared: rounded, mistakes: [] };
  const cut = wrong < MIN_CUT ? null : compared(trial, understood, true);
  if (cut !== null && firstWrongOf(cut) === Infinity) return { compared: cut, mistakes: [] };
  const { rows, timeDigits } = understood;
  const of = { trial, rows, timeDigits, methods, title };
  const steps = rounded.verdicts.filter(({ agreesWithOwn }) => agreesWithOwn !== null);
  const rightSteps = steps.filter(({ agreesWithOwn }) => agreesWithOwn === true);
  const mistakes = findMistakes({
    ...of,
    digits: rounded.digits,
    inPairs: 2 * rightSteps.length < steps.length,
  });
  if (mistakes.length > 0 || cut === null) return { compared: rounded, mistakes };
  return {
    compared: firstWrongOf(cut) < firstWrongOf(rounded) + MIN_CUT ? rounded : cut,
    mistakes: findMistakes({ ...of, digits: cut.digits, inPairs: false }),
  };
}

/** A table of a student that is read. */
export interface RowsToMark {
  readonly table: StudentTable;
  /** What its columns hold; null to find it. */
  readonly meanings: readonly ColumnMeaning[] | null;
  readonly reading: ReadingChoice;
}

/** How far the rows of a student are those of a run. */
export interface Agreement {
  /** Rows after the first grid point that agree with the run. */
  readonly right: number;
  /** Rows after the first grid point that agree with the run or with the step from the student's own rows. */
  readonly near: number;
  /** Rows after the first grid point. */
  readonly of: number;
}

/**
 * How far rows agree with a run, without a look for mistakes.
 *
 * @throws Refusal where the run cannot be marked
 * @example agreementOf(request, submission).of // 1
 */
export function agreementOf(request: MarkRequest, { table, meanings, reading }: RowsToMark): Agreement {
  const { study, grid } = request;
  const chosen = chosenOf(request);
  const understood = studentRows(table, rowsFor(request), meanings, reading);
  const { verdicts } = compared(rightTrial(study, chosen, grid), understood, false);
  const later = verdicts.filter(({ n }) => n > 0);
  return {
    right: agreeing(later),
    near: later.filter((row) => row.agrees || row.agreesWithOwn === true).length,
    of: later.length,
  };
}

/**
 * Marks rows of a student against a run: the first that is wrong, how later ones go on from it, and the mistakes that reproduce
 * all of them.
 *
 * @throws Refusal where the text holds no values, or the run cannot be marked
 * @example markColumn(request, '0;1\n1;0,5').firstWrong // null
 */
export function markColumn(request: MarkRequest, text: string): Marking {
  return markTable(request, { table: readStudentTable(text), meanings: null, reading: AS_FOUND });
}

/** The same for a table that is read. */
export function markTable(request: MarkRequest, { table, meanings, reading }: RowsToMark): Marking {
  const { study, grid } = request;
  const chosen = chosenOf(request);
  const understood = studentRows(table, rowsFor(request), meanings, reading);
  if (understood.rows.length === 0)
    throw new Refusal('form', 'there is no column with values of a component');
  if (understood.rows.length > MAX_ROWS) throw new Refusal('size', `at most ${MAX_ROWS} rows are marked`);
  const trial = rightTrial(study, chosen, grid);
  const methods = study.methods.filter((one) => one !== chosen);
  const { compared: own, mistakes } = explained(trial, understood, { methods, title: chosen.title });
  const { verdicts, digits } = own;
  const firstWrong = verdicts.find((row) => !row.agrees)?.n ?? null;
  return {
    rows: verdicts,
    digits,
    firstWrong,
    mistakes,
    slip: mistakes.length > 0 || firstWrong === null ? null : slipOf(verdicts),
    table,
    steps: grid.steps,
    independent: study.problem.independent,
  };
}
