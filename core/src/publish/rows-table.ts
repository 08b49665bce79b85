import type { CompiledRun } from '../compile/compile.ts';
import { componentNames } from '../problem/problem.ts';
import { stageNames, vectorNames } from '../program/stage-names.ts';
import { differenceAt, type Row } from '../run/rows.ts';
import type { CsvCell } from './csv.ts';

/** Rows of a run as a table. */
export interface RowsTable {
  /** Names for a reader: the second is that of the independent variable. */
  readonly header: readonly string[];
  /** Names for programs: the second is `t`, whatever the problem calls it. */
  readonly keys: readonly string[];
  readonly rows: readonly (readonly CsvCell[])[];
}

/**
 * n, t, components, slopes f, stages, conserved quantities, exact values and the error, one row a grid point.
 *
 * @example rowsTable(run, rows).header[0] // 'n'
 */
export function rowsTable(run: CompiledRun, rows: readonly Row[]): RowsTable {
  const { problem, program } = run;
  const names = componentNames(problem);
  const stages = stageNames(problem, program, run.layout);
  const columns = [
    ...names,
    ...vectorNames('f', names),
    ...stages,
    ...problem.conserved.map((quantity) => quantity.name),
    ...vectorNames('exact', names),
    'error',
  ];
  return {
    header: ['n', problem.independent, ...columns],
    keys: ['n', 't', ...columns],
    rows: rows.map((row) => [row.n, ...cellsOf(row, stages.length), rowError(row)]),
  };
}

function long(digits: string | null): CsvCell {
  return digits === null ? null : { digits };
}

/** The cells of a row between n and the error; of a run in decimals with all digits. */
function cellsOf({ digits, ...row }: Row, stages: number): readonly CsvCell[] {
  const none = Array.from({ length: stages }, () => null);
  if (digits === null)
    return [
      row.t,
      ...row.values,
      ...row.slopes,
      ...(row.stages?.flat() ?? none),
      ...row.conserved,
      ...row.exact,
    ];
  return [
    long(digits.t),
    ...digits.values.map(long),
    ...digits.slopes.map(long),
    ...(digits.stages?.flat().map(long) ?? none),
    ...digits.conserved.map(long),
    ...digits.exact.map(long),
  ];
}

/** The Euclidean norm of the error of a row over all components; null where an exact value is unknown. */
function rowError(row: Row): number | null {
  let sum = 0;
  let difference = NaN;
  for (const j of row.values.keys()) {
    const error = differenceAt(row, j);
    if (error === null) return null;
    difference = error;
    sum += difference * difference;
  }
  return row.values.length === 1 ? Math.abs(difference) : Math.sqrt(sum);
}
