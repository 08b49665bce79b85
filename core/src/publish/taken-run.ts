import { compileWithStart } from '../compile/compile-with-start.ts';
import { layGrid, type Wish } from '../run/grid.ts';
import { rowsOf } from '../run/rows.ts';
import type { Study } from '../study/runs/study.ts';
import { count } from '../text/number-text.ts';
import { Refusal } from '../text/refusal.ts';
import type { LanguageName } from './programs/language.ts';
import { programOf } from './programs/program-of.ts';
import { rowTable } from './tables/row-table.ts';
import type { TableFormat } from './tables/table.ts';
import { type TableOptions, writeTable } from './tables/table-formats.ts';

/** A run to be taken away: its rows as a table, or itself as a program. */
export type TakenRun = { readonly method: number; readonly wish: Wish } & (
  | {
      readonly what: 'rows';
      readonly as: TableFormat;
      readonly digits: number | null;
      readonly options: TableOptions;
    }
  | { readonly what: 'program'; readonly as: LanguageName }
);

/** Most rows of one text. */
const MOST_ROWS = 200_000;

/**
 * A run of a study as a text to be taken away.
 *
 * @throws Refusal for more than 200,000 rows, and for what no program is made of
 */
export function takenRun(title: string, study: Study, taken: TakenRun): string {
  const { problem, lastStep, start } = study;
  const grid = layGrid(problem.start, problem.end, taken.wish, lastStep);
  if (taken.what === 'program') return programOf(title, study, taken.method, grid, taken.as);
  const chosen = study.methods[taken.method];
  if (chosen === undefined) throw new Refusal('missing', `this study has no method ${taken.method}`);
  if (grid.steps >= MOST_ROWS)
    throw new Refusal(
      'grid',
      `a table has at most ${count(MOST_ROWS)} rows; schritt export writes CSV of any length`,
    );
  const run = compileWithStart(problem, chosen.method, start);
  const { rows } = rowsOf(run, grid, 0, grid.steps + 1);
  const caption = `${title}: ${chosen.title}`;
  return writeTable(rowTable(caption, run, rows, null, taken.digits), taken.as, taken.options);
}
