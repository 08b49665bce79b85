import { componentNames } from '../problem/problem.ts';
import type { CompiledRun } from '../compile/compile.ts';
import type { Row } from '../run/rows.ts';
import type { Cell } from './csv.ts';

/** Column names and cells of rows of a run: n, t, components, stages, conserved quantities, exact values, error. */
export function rowsTable(
  run: CompiledRun,
  rows: readonly Row[],
): { readonly header: readonly string[]; readonly rows: readonly (readonly Cell[])[] } {
  const names = componentNames(run.problem);
  const single = names.length === 1;
  const stageNames = run.program.stages.flatMap((stage) =>
    stage.shape === 'scalar' || single ? [stage.name] : names.map((name) => `${stage.name}[${name}]`),
  );
  const conservedNames = run.problem.conserved.map((quantity) => quantity.name);
  const exactNames = single ? ['exact'] : names.map((name) => `exact[${name}]`);
  return {
    header: ['n', 't', ...names, ...stageNames, ...conservedNames, ...exactNames, 'error'],
    rows: rows.map((row) => [
      row.n,
      row.t,
      ...row.values,
      ...(row.stages?.flat() ?? stageNames.map(() => null)),
      ...row.conserved,
      ...row.exact,
      rowError(row),
    ]),
  };
}

/** The Euclidean norm of the error of a row over all components; null where an exact value is unknown. */
export function rowError(row: Row): number | null {
  let sum = 0;
  for (const [j, value] of row.values.entries()) {
    const exact = row.exact[j] ?? null;
    if (exact === null) return null;
    sum += (value - exact) * (value - exact);
  }
  return row.values.length === 1 ? Math.abs(row.values[0]! - (row.exact[0] ?? NaN)) : Math.sqrt(sum);
}
