import type { Grid } from '../run/grid.ts';
import { timeAt } from '../run/grid.ts';
import { agrees, type KeptDigits, keptDigits, withDecimals } from './kept-digits.ts';
import type { StudentCell, StudentTable } from './student-table.ts';

/** What the rows of a student belong to. */
export interface RowsOf {
  /** Names of the components, in the order of the state. */
  readonly components: readonly string[];
  /** Names of the stages, with their components where a stage has several: `k1`, `k1[m]`. */
  readonly stages: readonly string[];
  readonly independent: string;
  readonly grid: Grid;
  readonly initial: readonly number[];
}

/** What a column of a student holds. */
export type ColumnMeaning =
  | { readonly kind: 'n' }
  | { readonly kind: 't' }
  | { readonly kind: 'component'; readonly place: number }
  | { readonly kind: 'stage'; readonly place: number }
  /** Exact values, errors and what is not known: they are not marked. */
  | { readonly kind: 'other' };

/** One row of a student, at a grid point. */
export interface StudentRow {
  readonly n: number;
  readonly t: StudentCell | null;
  /** One a component; null where it is not given. */
  readonly values: readonly (StudentCell | null)[];
  /** One a stage of the run; null where it is not given. */
  readonly stages: readonly (StudentCell | null)[];
  /** The line of the text, from 1. */
  readonly line: number;
}

/** The rows of a student, and how they were understood. */
export interface StudentRows {
  readonly rows: readonly StudentRow[];
  readonly digits: KeptDigits;
  /** The digits of the times, which are often typed with fewer; null where there are none. */
  readonly timeDigits: KeptDigits | null;
}

function plain(heading: string): string {
  return heading
    .toLowerCase()
    .replace(/\s*(?:\([^()]*\)|\/\s*\S+|\s+in\s+\S+)\s*$/, '')
    .replaceAll(/[\s_{}$\\*]/g, '')
    .replace(/\[(?:n|i|k|\d+)\]$/, '')
    .replace(/(?<=[a-z])n$/, (n, at: number, whole: string) => (whole.length <= 3 && at > 0 ? '' : n));
}

const COUNTS = new Set(['n', 'i', 'k', 'step', 'no', 'nr', '#', 'row', 'schritt']);
const TIMES = new Set(['t', 'time', 'x', 'zeit']);
const VALUES = new Set(['y', 'w', 'u', 'approx', 'approximation', 'value', 'numerical', 'euler']);

/** What a heading says; null where it says nothing that is known. */
export function headingMeaning(heading: string, of: RowsOf): ColumnMeaning | null {
  const name = plain(heading);
  const component = of.components.findIndex((one) => plain(one) === name || one === heading.trim());
  if (component >= 0) return { kind: 'component', place: component };
  const stage = of.stages.findIndex((one) => plain(one) === name);
  if (stage >= 0) return { kind: 'stage', place: stage };
  if (name === plain(of.independent)) return { kind: 't' };
  if (COUNTS.has(name)) return { kind: 'n' };
  if (TIMES.has(name)) return { kind: 't' };
  return of.components.length === 1 && VALUES.has(name) ? { kind: 'component', place: 0 } : null;
}

type Cells = readonly (StudentCell | null)[];

function countsUp(cells: Cells): boolean {
  const [first] = cells;
  if (first == null || (first.value !== 0 && first.value !== 1)) return false;
  return cells.every((cell, i) => cell === null || (cell.decimals <= 0 && cell.value === first.value + i));
}

/** Whether a column has the times of a grid, from its start or from its first step on. */
function hasTimes(cells: Cells, grid: Grid): boolean {
  const digits = keptDigits(cells.filter((cell) => cell !== null));
  return [0, 1].some((first) =>
    cells.every((cell, i) => {
      const n = first + i;
      return cell === null || (n <= grid.steps && agrees(cell.value, timeAt(grid, n), digits));
    }),
  );
}

/** Whether values rise evenly, as times of another step size do. */
function risesEvenly(cells: Cells): boolean {
  const values = cells.filter((cell) => cell !== null).map(({ value }) => value);
  const [first = NaN, second = NaN] = values;
  const step = second - first;
  if (values.length < 3 || !(step > 0)) return false;
  const digits = keptDigits(cells.filter((cell) => cell !== null));
  return values.every((value, i) => Math.abs(value - first - i * step) <= (1 + i) * 10 ** -digits.decimals);
}

/** What the columns hold, by their headings or by what is in them. */
export function columnMeanings({ columns }: StudentTable, of: RowsOf): readonly ColumnMeaning[] {
  const OTHER: ColumnMeaning = { kind: 'other' };
  if (columns.some(({ title }) => title !== null)) {
    const known = columns.map(({ title }) => headingMeaning(title ?? '', of));
    const hasValues = known.some((meaning) => meaning?.kind === 'component');
    // a table with one column that is not the time or a count has the values there
    const isOnly = !hasValues && known.filter((meaning) => meaning === null).length === 1;
    return known.map((meaning) => meaning ?? (isOnly ? { kind: 'component', place: 0 } : OTHER));
  }
  const found: ColumnMeaning[] = [];
  let rest = columns;
  const take = (meaning: ColumnMeaning): void => {
    found.push(meaning);
    rest = rest.slice(1);
  };
  if (rest.length > 1 && countsUp(rest[0]?.cells ?? [])) take({ kind: 'n' });
  const cells = rest[0]?.cells ?? [];
  if (
    rest.length > 1 &&
    (hasTimes(cells, of.grid) || (rest.length > of.components.length && risesEvenly(cells)))
  )
    take({ kind: 't' });
  const { length } = of.components;
  return [
    ...found,
    ...rest.map((_, i): ColumnMeaning => {
      if (i < length) return { kind: 'component', place: i };
      return i - length < of.stages.length ? { kind: 'stage', place: i - length } : OTHER;
    }),
  ];
}

/** The grid point next to a time; the last one may be nearer to the one before it than the others are. */
function nearestPoint(grid: Grid, t: number): number {
  const n = Math.round((t - grid.start) / grid.h);
  const last = timeAt(grid, grid.steps);
  const before = timeAt(grid, grid.steps - 1);
  return grid.shorter !== null && Math.abs(t - last) < Math.abs(t - before) ? grid.steps : n;
}

/** The grid point of the first row, where rows have no number and no time of the grid. */
function firstPoint(values: readonly Cells[], of: RowsOf, digits: KeptDigits): number {
  const isInitial = values.every((cells, place) => {
    const cell = cells[0];
    return cell == null || agrees(cell.value, of.initial[place] ?? NaN, digits);
  });
  const { length } = values.find((cells) => cells.length > 0) ?? [];
  // as many rows as steps begin behind the first step
  return isInitial || length !== of.grid.steps ? 0 : 1;
}

/** How rows are read, as far as a person has said so; null for what is found. */
export interface ReadingChoice {
  readonly decimalSign: '.' | ',' | null;
  /** The grid point of the first row, where rows have no number. */
  readonly firstRow: number | null;
  /** Decimal places that were kept. */
  readonly decimals: number | null;
}

export const AS_FOUND: ReadingChoice = { decimalSign: null, firstRow: null, decimals: null };

/**
 * Understands a student's table as rows of a run.
 *
 * @param known what the columns hold, where a person or the table of a class says so; null to find it
 * @returns no rows where no column holds values of a component
 */
export function studentRows(
  table: StudentTable,
  of: RowsOf,
  known: readonly ColumnMeaning[] | null = null,
  { firstRow, decimals }: ReadingChoice = AS_FOUND,
): StudentRows {
  const meanings = known ?? columnMeanings(table, of);
  const cellsOf = (is: (meaning: ColumnMeaning) => boolean): Cells => {
    const at = meanings.findIndex(is);
    return at < 0 ? [] : (table.columns[at]?.cells ?? []);
  };
  const values = of.components.map((_, place) =>
    cellsOf((meaning) => meaning.kind === 'component' && meaning.place === place),
  );
  const stages = of.stages.map((_, place) =>
    cellsOf((meaning) => meaning.kind === 'stage' && meaning.place === place),
  );
  const counts = cellsOf(({ kind }) => kind === 'n');
  const times = cellsOf(({ kind }) => kind === 't');
  const given = [...values, ...stages].flat().filter((cell) => cell !== null);
  const found = keptDigits(given);
  const digits = decimals === null ? found : withDecimals(given, decimals);
  const first = firstRow ?? firstPoint(values, of, digits);
  const isOnGrid = times.length > 0 && hasTimes(times, of.grid);
  const pointOf = (i: number): number => {
    const count = counts[i];
    if (count != null) return count.value;
    const t = times[i];
    return isOnGrid && t != null ? nearestPoint(of.grid, t.value) : first + i;
  };
  const rows = table.lines.flatMap((line, i): readonly StudentRow[] => {
    const own = values.map((cells) => cells[i] ?? null);
    const ownStages = stages.map((cells) => cells[i] ?? null);
    if ([...own, ...ownStages].every((cell) => cell === null)) return [];
    return [{ n: pointOf(i), t: times[i] ?? null, values: own, stages: ownStages, line }];
  });
  return {
    rows: values.some((cells) => cells.some((cell) => cell !== null)) ? rows : [],
    digits,
    timeDigits: times.length === 0 ? null : keptDigits(times.filter((cell) => cell !== null)),
  };
}
