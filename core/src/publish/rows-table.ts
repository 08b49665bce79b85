import type { CompiledRun } from '../compile/compile.ts';
import { componentNames } from '../problem/problem.ts';
import { stageNames, vectorNames } from '../program/stage-names.ts';
import type { Row } from '../run/rows.ts';
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
    rows: rows.map((row) => [
      row.n,
      row.t,
      ...row.values,
      ...row.slopes,
      ...(row.stages?.flat() ?? stages.map(() => null)),
      ...row.conserved,
      ...row.exact,
      rowError(row),
    ]),
  };
}

/** The Euclidean norm of the error of a row over all components; null where an exact value is unknown. */
function rowError(row: Row): number | null {
  let sum = 0;
  for (const [j, value] of row.values.entries()) {
    const exact = row.exact[j] ?? null;
    if (exact === null) return null;
    sum += (value - exact) * (value - exact);
  }
  return row.values.length === 1 ? Math.abs(row.values[0]! - (row.exact[0] ?? NaN)) : Math.sqrt(sum);
}
