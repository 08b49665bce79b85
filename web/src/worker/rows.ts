import { scalarName, stageComponents, vectorNames } from '@schritt/core/document';
import { componentNames } from '@schritt/core/notation';
import { Refusal } from '@schritt/core/text';
import {
  begin,
  type CompiledRun,
  type Grid,
  type GridRequest,
  keepRun,
  layGrid,
  localErrors,
  type LongRun,
  type Row,
  type RowDigits,
  type Rows,
  rowsAgain,
  rowsOf,
  runOf,
  type Study,
  type StudyMethod,
  truthOfPlaces,
  withReference,
} from '@schritt/core/study';
import { LRUCache } from 'lru-cache';
import type { RowsWindow, RowsRequest } from './messages.ts';

/** Components that a table of steps shows at most; the first ones of a large system. */
const MAX_SHOWN = 8;

/** Runs whose checkpoints are kept: those of all methods side by side, and some to go back to. */
const MAX_KEPT = 12;
/** Runs of fewer steps are done again from the start in no time. */
const SHORT = 20_000;

const kept = new LRUCache<string, LongRun>({ max: MAX_KEPT });

/** A run that was kept under a key, or the same kept now. */
function keptRun(key: string, run: CompiledRun, grid: Grid): LongRun {
  const known = kept.get(key);
  if (known !== undefined) return known;
  const work = keepRun(run, grid);
  let next = work.next();
  while (next.done !== true) next = work.next();
  kept.set(key, next.value);
  return next.value;
}

/** Rows of one run: those of a long one are done again from the checkpoint before them, to the same bits. */
function rowsOfRun(
  { problem, lastStep }: Study,
  run: CompiledRun,
  { gridRequest, from, count, every, points }: Omit<RowsRequest, 'method'>,
  key: string,
): Rows & { readonly grid: Grid } {
  const grid = layGrid(problem.start, problem.end, gridRequest, lastStep);
  if (grid.steps > SHORT) {
    const long = keptRun(JSON.stringify([key, gridRequest]), run, grid);
    if (points === null) return { ...rowsAgain(long, from, count, every), grid };
    const found = points.map((point) => rowsAgain(long, point, 1));
    return { ...joined(found), grid };
  }
  if (points === null) return { ...rowsOf(run, grid, { from, count, every }), grid };
  // one run goes from each point to the next
  const at = begin(run, grid);
  return { ...joined(points.map((point) => rowsOf(run, grid, { from: point, count: 1 }, at))), grid };
}

function joined(found: readonly Rows[]): Rows {
  return {
    rows: found.flatMap(({ rows }) => rows),
    stopped: found.find(({ stopped }) => stopped !== null)?.stopped ?? null,
  };
}

/** The digits of the components that are shown. */
function digitsShown({ t, values, slopes, stages, conserved, exact, errors }: RowDigits): RowDigits {
  return {
    t,
    conserved,
    values: values.slice(0, MAX_SHOWN),
    slopes: slopes.slice(0, MAX_SHOWN),
    stages: stages?.map((stage) => stage.slice(0, MAX_SHOWN)) ?? null,
    exact: exact.slice(0, MAX_SHOWN),
    errors: errors.slice(0, MAX_SHOWN),
  };
}

function methodAt({ methods }: Study, place: number): StudyMethod {
  const chosen = methods[place];
  if (chosen === undefined) throw new Refusal('missing', 'there is no such method');
  return chosen;
}

function compiled(study: Study, method: number): CompiledRun {
  return runOf(study, methodAt(study, method));
}

/** The errors of the steps that start in some rows, where the method has an embedded formula; of the components shown. */
function localErrorsOf(
  study: Study,
  method: number,
  run: CompiledRun,
  { rows, grid }: ReturnType<typeof rowsOfRun>,
): RowsWindow['localErrors'] {
  const chosen = methodAt(study, method);
  const { embedded } = chosen.method;
  if (embedded === null) return [];
  const second = runOf(study, { ...chosen, method: embedded.method });
  return localErrors(run, second, grid, rows).map(
    (found) =>
      found && {
        estimate: found.estimate.slice(0, MAX_SHOWN),
        error: found.error?.slice(0, MAX_SHOWN) ?? null,
      },
  );
}

/** The row of one grid point with all components; none where the run does not come that far. */
export function rowsAt(
  study: Study,
  {
    method,
    gridRequest,
    n,
  }: { readonly method: number; readonly gridRequest: GridRequest; readonly n: number },
  key: string,
): readonly Row[] {
  return rowsOfRun(
    study,
    compiled(study, method),
    { gridRequest, from: n, count: 1, every: 1, points: null },
    key,
  ).rows;
}

/**
 * A window of the steps of one run with all stages: of a long run computed again from the checkpoint before it, to the
 * same bits.
 *
 * @param key equal for studies in which that method has the same runs
 */
export function rowsWindow(study: Study, window: RowsRequest, key: string): RowsWindow {
  const { problem } = study;
  const run = compiled(study, window.method);
  const found = rowsOfRun(study, run, window, key);
  const { stopped, grid } = found;
  const rows = withReference(study, methodAt(study, window.method), grid, found.rows);
  const all = componentNames(problem);
  const components = all.slice(0, MAX_SHOWN);
  const shown = stageComponents(run, all).slice(0, MAX_SHOWN);
  const truth = truthOfPlaces(problem);
  const times = rows.map(({ t }) => t);
  const truths = components.map((_, place) => truth.curve(place, times));
  const known = (place: number, row: number): number | null => {
    const value = truths[place]?.values[row];
    return value === undefined || Number.isNaN(value) ? null : value;
  };
  const names = run.program.stages.flatMap(({ name, shape }) =>
    shape === 'scalar' ? [scalarName(name, all)] : vectorNames(name, shown),
  );
  return {
    components,
    slopes: vectorNames('f', components),
    stages: names,
    conserved: problem.conserved.map(({ name }) => name),
    truths: truths.map((one) => one?.kind ?? null),
    rows: rows.map((row, i) => ({
      ...row,
      values: row.values.slice(0, MAX_SHOWN),
      slopes: row.slopes.slice(0, MAX_SHOWN),
      exact: components.map((_, place) =>
        row.digits === null ? known(place, i) : (row.exact[place] ?? known(place, i)),
      ),
      digits: row.digits && digitsShown(row.digits),
      stages: row.stages?.map((stage) => stage.slice(0, MAX_SHOWN)) ?? null,
    })),
    localErrors: localErrorsOf(study, window.method, run, found),
    steps: grid.steps,
    stopped: stopped === null ? null : `step ${stopped.step}, ${stopped.stage}: ${stopped.why}`,
  };
}
