import { startingChain } from '../compile/starting-chain.ts';
import type { Method } from '../method/method.ts';
import { componentNames } from '../problem/problem.ts';
import { layOut } from '../program/layout.ts';
import { lower } from '../program/lowering.ts';
import { stageNames } from '../program/stage-names.ts';
import type { Grid } from '../run/grid.ts';
import type { Study, StudyMethod } from '../study/runs/study.ts';
import { counted, rounded, short } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';
import type { KeptDigits } from './kept-digits.ts';
import { findMistakes, type Mistake } from './mistakes/find-mistakes.ts';
import { type RowVerdict, rowVerdicts } from './row-verdicts.ts';
import { type ColumnMeaning, type RowsOf, studentRows } from './student-rows.ts';
import { readStudentTable, type StudentTable } from './student-table.ts';
import type { Trial } from './trial-run.ts';

/** A student's rows, marked. */
export interface Marking {
  readonly rows: readonly RowVerdict[];
  readonly digits: KeptDigits;
  /** The first row that is wrong; null where all agree. */
  readonly firstWrong: number | null;
  readonly mistakes: readonly Mistake[];
  /** What is to be said of the rows. */
  readonly sentences: readonly string[];
  readonly meanings: readonly ColumnMeaning[];
  readonly table: StudentTable;
}

/** Most rows that are marked. */
const MAX_ROWS = 10_000;

/** The right run of a study, to be tried with mistakes. */
function rightTrial(study: Study, chosen: StudyMethod, grid: Grid): Trial {
  const { problem, start } = study;
  if (grid.shorter !== null)
    throw new Refusal('grid', 'rows of a run whose last step is shorter cannot be marked yet');
  const methods = startingChain(chosen, start).map(({ method }) => method);
  return {
    problem,
    methods,
    exchanged: null,
    exactStart: (methods.at(-1)?.depth ?? 0) > 0,
    initial: problem.initial,
    h: grid.h,
    steps: grid.steps,
    time: 'times h',
    precision: start.precision ?? 'double',
    kept: null,
    sequential: false,
    rhsAtExact: false,
  };
}

/** What the columns of a student may hold. */
function rowsOf({ problem }: Study, method: Method, grid: Grid): RowsOf {
  const program = lower(method, problem.size === 1 && method.form === 'first order');
  return {
    components: componentNames(problem),
    stages: stageNames(problem, program, layOut(problem, program)),
    independent: problem.independent,
    grid,
    initial: problem.initial,
  };
}

function digitsText({ decimals, significant }: KeptDigits): string {
  return decimals > 0 ? counted(decimals, 'decimal place') : counted(significant, 'significant digit');
}

function valuesText(values: readonly (number | null)[]): string {
  return values.flatMap((value) => (value === null ? [] : [short(value, 10)])).join(', ');
}

function rowsText(numbers: readonly number[]): string {
  const [first] = numbers;
  const last = numbers.at(-1);
  return numbers.length === 1 ? `Row ${first} agrees` : `Rows ${first}–${last} agree`;
}

/** The first wrong row in sentences: what agrees before it, what it should be, and how the rows behind it go on. */
function sentencesOf(rows: readonly RowVerdict[], digits: KeptDigits): readonly string[] {
  const at = rows.findIndex((row) => !row.agrees);
  if (at < 0) return [`All ${counted(rows.length, 'row')} agree to ${digitsText(digits)}.`];
  const wrong = rows[at];
  if (wrong === undefined) return [];
  const before = rows.slice(0, at).map(({ n }) => n);
  const behind = rows.slice(at + 1);
  const right =
    wrong.right === null
      ? `Row ${wrong.n} is after the end of the run.`
      : `Row ${wrong.n} is ${valuesText(wrong.given)} and should be ${valuesText(wrong.right.map((value, j) => (wrong.given[j] === null ? null : rounded(value, Math.min(12, digits.significant + 1)))))}.`;
  const bad = behind.filter((row) => row.agreesWithOwn === false).map(({ n }) => n);
  const onward =
    behind.length === 0
      ? []
      : behind.every((row) => row.agrees)
        ? ['All later rows agree.']
        : bad.length === 0 && behind.every((row) => row.agreesWithOwn === true)
          ? [`From row ${behind[0]?.n ?? 0} on, each step is right, starting from a wrong value.`]
          : bad.length === behind.length
            ? ['No later step is right, even from the student’s own previous rows.']
            : [
                `Of ${counted(behind.length, 'later step')} ${bad.length} are wrong as well, even from the student’s own previous rows.`,
              ];
  return [
    ...(before.length === 0 ? [] : [`${rowsText(before)} to ${digitsText(digits)}.`]),
    right,
    ...onward,
  ];
}

/** Whose rows are marked, against which run. */
export interface MarkRequest {
  readonly study: Study;
  /** Place of the method in the study. */
  readonly method: number;
  readonly grid: Grid;
  /** What the columns hold, where a person has said so. */
  readonly meanings?: readonly ColumnMeaning[];
}

/**
 * Marks the rows of a student: the first wrong row, how the rows behind it go on from it, and the mistakes that reproduce
 * all of them.
 *
 * @throws Refusal where the text holds no values, or the run cannot be marked
 * @example markColumn(request, '0;1\n1;0,5').firstWrong // null
 */
export function markColumn(request: MarkRequest, text: string): Marking {
  return markTable(request, readStudentTable(text));
}

/** The same for a table that is read. */
export function markTable({ study, method, grid, meanings }: MarkRequest, table: StudentTable): Marking {
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${method}`);
  const understood = studentRows(table, rowsOf(study, chosen.method, grid), meanings);
  const { rows, digits, timeDigits } = understood;
  if (rows.length === 0) throw new Refusal('form', 'there is no column with values of a component');
  if (rows.length > MAX_ROWS) throw new Refusal('size', `at most ${MAX_ROWS} rows are marked`);
  const trial = rightTrial(study, chosen, grid);
  const verdicts = rowVerdicts(trial, rows, digits, timeDigits);
  const firstWrong = verdicts.find((row) => !row.agrees)?.n ?? null;
  const others = study.methods.filter((one) => one !== chosen);
  const steps = verdicts.filter(({ agreesWithOwn }) => agreesWithOwn !== null);
  const rightSteps = steps.filter(({ agreesWithOwn }) => agreesWithOwn === true);
  const found =
    firstWrong === null
      ? []
      : findMistakes({
          trial,
          rows,
          digits,
          timeDigits,
          methods: others,
          title: chosen.title,
          inPairs: 2 * rightSteps.length < steps.length,
        });
  return {
    rows: verdicts,
    digits,
    firstWrong,
    mistakes: found,
    sentences: sentencesOf(verdicts, digits),
    meanings: understood.meanings,
    table,
  };
}
