import { stageComponents, vectorNames } from '@schritt/core/document';
import { componentNames, Refusal } from '@schritt/core/notation';
import { begin, compileWithStart, layGrid, rowsOf, type Study } from '@schritt/core/study';
import type { RowsWindow, RowsWish } from './messages.ts';

/** Components that a table of steps shows at most; the first ones of a large system. */
const MOST_SHOWN = 8;

/** A window of the steps of one run with all stages, computed again from the start. */
export function rowsWindow(study: Study, { method, wish, from, count }: RowsWish): RowsWindow {
  const { problem, lastStep, start } = study;
  const chosen = study.methods[method];
  if (chosen === undefined) throw new Refusal('missing', 'there is no such method');
  const run = compileWithStart(problem, chosen.method, start);
  const grid = layGrid(problem.start, problem.end, wish, lastStep);
  const { rows, stopped } = rowsOf(run, grid, from, count, begin(run, grid));
  const components = componentNames(problem).slice(0, MOST_SHOWN);
  const shown = stageComponents(run, components).slice(0, MOST_SHOWN);
  const names = run.program.stages.flatMap(({ name, shape }) =>
    shape === 'scalar' ? [name] : vectorNames(name, shown),
  );
  return {
    components,
    slopes: vectorNames('f', components),
    stages: names,
    conserved: problem.conserved.map(({ name }) => name),
    rows: rows.map((row) => ({
      ...row,
      values: row.values.slice(0, MOST_SHOWN),
      slopes: row.slopes.slice(0, MOST_SHOWN),
      exact: row.exact.slice(0, MOST_SHOWN),
      stages: row.stages?.map((stage) => stage.slice(0, MOST_SHOWN)) ?? null,
    })),
    steps: grid.steps,
    stopped: stopped === null ? null : `step ${stopped.step}, ${stopped.stage}: ${stopped.why}`,
  };
}
