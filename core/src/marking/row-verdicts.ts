import { agrees, type KeptDigits, spreadOf } from './kept-digits.ts';
import type { StudentRow } from './student-rows.ts';
import { runTrial, stepsOf, timeIn, type Trial, type TrialRow } from './trial-run.ts';

/** A row of a student beside the right run, and beside the right step from the student's own row before. */
export interface RowVerdict {
  readonly n: number;
  /** The time of the grid point in the right run. */
  readonly t: number;
  /** One a component; null where it is not given. */
  readonly given: readonly (number | null)[];
  /** Null behind the end of the run. */
  readonly right: readonly number[] | null;
  /** Null for the first row, and where the rows before it do not have all components. */
  readonly fromOwn: readonly number[] | null;
  /** Whether all that is given agrees with the right run. */
  readonly agrees: boolean;
  /** Whether the values agree with the right step from the student's own rows; null where that is not known. */
  readonly agreesWithOwn: boolean | null;
  readonly line: number;
}

/** Whether a row of a run has what a student's row gives, to the digits given. */
export function rowAgrees(
  given: StudentRow,
  { t, values, stages }: TrialRow,
  digits: KeptDigits,
  timeDigits: KeptDigits | null,
): boolean {
  if (given.t !== null && timeDigits !== null && !agrees(given.t.value, t, timeDigits)) return false;
  if (!given.values.every((cell, j) => cell === null || agrees(cell.value, values[j] ?? NaN, digits)))
    return false;
  if (given.stages.every((cell) => cell === null)) return true;
  const own = stages();
  return given.stages.every(
    (cell, k) => cell === null || own === null || agrees(cell.value, own[k] ?? NaN, digits),
  );
}

/** What steps from a student's own rows are made with. */
interface OwnSteps {
  readonly trial: Trial;
  readonly step: ReturnType<typeof stepsOf>;
  readonly rows: ReadonlyMap<number, StudentRow>;
  readonly digits: KeptDigits;
}

/** The spread of each value, moved through a step: how far the next row may be off because rows are rounded. */
function effectOfRounding(
  { step, digits }: OwnSteps,
  past: readonly ArrayLike<number>[],
  n: number,
  base: readonly number[],
): readonly number[] {
  const effects = base.map(() => 0);
  past.forEach((state, back) => {
    for (let j = 0; j < state.length; j += 1) {
      const moved = past.map((one, i) =>
        i === back ? Float64Array.from(one, (v, k) => (k === j ? v + spreadOf(v, digits) : v)) : one,
      );
      const other = step(moved, n);
      effects.forEach((effect, k) => {
        effects[k] = effect + Math.abs((other[k] ?? NaN) - (base[k] ?? NaN));
      });
    }
  });
  return effects;
}

/** What a row should be by the student's own rows before it; null where they do not tell. */
function fromOwn(
  own: OwnSteps,
  n: number,
): { readonly values: readonly number[]; readonly effects: readonly number[] } | null {
  const { trial, step, rows } = own;
  const depth = trial.methods.find((method) => method.depth <= n - 1)?.depth;
  if (depth === undefined) return null;
  const past: number[][] = [];
  for (let back = 0; back <= depth; back += 1) {
    const row = rows.get(n - 1 - back);
    const given = row?.values.flatMap((cell) => (cell === null ? [] : [cell.value])) ?? [];
    if (row !== undefined && given.length < row.values.length) return null;
    // rows that begin behind the start begin with the initial values
    if (row === undefined && n - 1 - back !== 0) return null;
    past.push(row === undefined ? [...trial.initial] : given);
  }
  const values = Array.from(step(past, n - 1));
  if (values.length === 0) return null;
  return { values, effects: effectOfRounding(own, past, n - 1, values) };
}

/** Every row of a student beside the right run, and beside the right step from the student's own rows. */
export function rowVerdicts(
  trial: Trial,
  rows: readonly StudentRow[],
  digits: KeptDigits,
  timeDigits: KeptDigits | null,
): readonly RowVerdict[] {
  const right = new Map<number, TrialRow>();
  const last = Math.max(0, ...rows.map(({ n }) => n));
  runTrial(trial, (row) => {
    const stages = row.stages();
    right.set(row.n, { ...row, values: Float64Array.from(row.values), stages: () => stages });
    return row.n < last;
  });
  const own = { trial, step: stepsOf(trial), rows: new Map(rows.map((row) => [row.n, row])), digits };
  return rows.map((row): RowVerdict => {
    const found = right.get(row.n);
    const byOwn = row.n === 0 ? null : fromOwn(own, row.n);
    return {
      n: row.n,
      t: timeIn(trial, row.n),
      given: row.values.map((cell) => cell?.value ?? null),
      right: found === undefined ? null : Array.from(found.values),
      fromOwn: byOwn?.values ?? null,
      agrees: found !== undefined && rowAgrees(row, found, digits, timeDigits),
      agreesWithOwn:
        byOwn === null
          ? null
          : row.values.every(
              (cell, j) =>
                cell === null || agrees(cell.value, byOwn.values[j] ?? NaN, digits, byOwn.effects[j]),
            ),
      line: row.line,
    };
  });
}
