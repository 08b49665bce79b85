import type { CompiledRun } from '../compile/compile.ts';
import { componentNames } from '../problem/problem.ts';
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
 * One name for each component of a vector; just the name itself where there is one component.
 *
 * @example vectorNames('k1', ['u', 'v']) // ['k1[u]', 'k1[v]']
 */
export function vectorNames(name: string, components: readonly string[]): readonly string[] {
  const isPlain = components.length === 1 && components[0] !== name;
  return isPlain ? [name] : components.map((component) => `${name}[${component}]`);
}

/**
 * n, t, components, slopes f, stages, conserved quantities, exact values and the error, one row a grid point.
 *
 * @example rowsTable(run, rows).header[0] // 'n'
 */
export function rowsTable(run: CompiledRun, rows: readonly Row[]): RowsTable {
  const { problem, program } = run;
  const names = componentNames(problem);
  const stageNames = program.stages.flatMap((stage) =>
    stage.shape === 'scalar' ? [stage.name] : vectorNames(stage.name, stageComponents(run, names)),
  );
  const columns = [
    ...names,
    ...vectorNames('f', names),
    ...stageNames,
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
      ...(row.stages?.flat() ?? stageNames.map(() => null)),
      ...row.conserved,
      ...row.exact,
      rowError(row),
    ]),
  };
}

/**
 * Names of the components of a stage: of all of them, or of the positions where the method is one in x and v.
 *
 * @example stageComponents(run, ['level']) // ['level']
 */
export function stageComponents({ layout }: CompiledRun, names: readonly string[]): readonly string[] {
  return (layout.places[0] ?? []).map((place) => names[place] ?? '');
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
