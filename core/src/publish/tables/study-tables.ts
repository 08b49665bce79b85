import type { CsvCell } from '../csv.ts';
import { type RungReport, type StudyReport } from '../study-report.ts';
import { namesOf } from '../../text/names-of.ts';
import { Refusal } from '../../text/refusal.ts';
import { column, type Column, type Table } from './table.ts';

/** What a table of rungs can have of every method, with what each column is called in a choice of columns. */
export const RUNG_COLUMN_LABELS = {
  value: 'value at the end',
  error: 'error',
  digits: 'correct significant digits',
  ratio: 'ratio',
  order: 'order',
  rounding: 'rounding in the error',
  'order of three': 'order from three step sizes',
  extrapolated: 'Richardson extrapolation',
  estimate: 'estimated error',
  evaluations: 'evaluations',
  'per step': 'evaluations per step',
  Newton: 'Newton iterations',
  seconds: 'time',
} as const;
export type RungColumn = keyof typeof RUNG_COLUMN_LABELS;

/** All columns of a table of rungs, in their order. */
export const RUNG_COLUMNS = namesOf(RUNG_COLUMN_LABELS);

/** What it has where nothing is said. */
export const USUAL_RUNG_COLUMNS: readonly RungColumn[] = ['error', 'ratio', 'order'];

/**
 * The columns of a table of step sizes that are asked for, by name.
 *
 * @throws Refusal for a name that is none
 * @example rungColumnsOf({ columns: 'error, value' }) // ['error', 'value']
 */
export function rungColumnsOf({ columns }: { readonly columns?: string }): readonly RungColumn[] {
  if (columns === undefined) return USUAL_RUNG_COLUMNS;
  return columns.split(',').map((text) => {
    const found = RUNG_COLUMNS.find((known) => known === text.trim());
    if (found !== undefined) return found;
    throw new Refusal('form', `columns takes ${RUNG_COLUMNS.join(', ')}, not ${text.trim()}`);
  });
}

/** Columns that each component has. */
type VectorColumn = 'value' | 'extrapolated';

const COLUMNS: Readonly<Record<Exclude<RungColumn, VectorColumn>, Column>> = {
  error: column('error', null, 4),
  ratio: column('ratio', null, 4),
  order: column('order', null, 4),
  digits: column('digits', null, 3),
  rounding: column('rounding', null, 2),
  'order of three': column('order of three', null, 4),
  estimate: column('estimated error', null, 3),
  evaluations: column('evaluations'),
  'per step': column('evaluations per step', null, 4),
  Newton: column('Newton iterations'),
  seconds: column('seconds', null, 3),
};

/** A value of a run: a number, or of a run in decimals all its digits. */
export function valueCell(value: number | string | undefined): CsvCell {
  return typeof value === 'string' ? { digits: value } : (value ?? null);
}

function cellsOf(
  kind: RungColumn,
  rung: RungReport | undefined,
  names: readonly string[],
): readonly CsvCell[] {
  if (rung === undefined) return kind === 'value' || kind === 'extrapolated' ? names.map(() => null) : [null];
  switch (kind) {
    case 'value':
      return names.map((name) => valueCell(rung.values[name]));
    case 'extrapolated':
      return names.map((name) => rung.extrapolated?.values[name] ?? null);
    case 'order of three':
      return [rung.extrapolated?.order ?? null];
    case 'estimate':
      return [rung.extrapolated?.error ?? null];
    case 'evaluations':
      return [rung.cost.evaluations];
    case 'per step':
      return [rung.cost.evaluations / rung.steps];
    case 'Newton':
      return [rung.cost.newton];
    case 'seconds':
      return [rung.cost.seconds];
    default:
      return [rung[kind]];
  }
}

/** Rungs down, methods across: h, N, and of every method what is chosen. */
export function rungTable(
  report: StudyReport,
  kinds: readonly RungColumn[] = USUAL_RUNG_COLUMNS,
  digits: number | null = null,
): Table {
  const [first] = report.methods;
  const names = Object.keys(first?.rungs[0]?.values ?? {});
  const own = kinds.flatMap((kind) =>
    kind === 'value'
      ? names.map((name) => column(name, null, 10))
      : kind === 'extrapolated'
        ? names.map((name) => column(`extrapolated ${name}`, null, 10))
        : [COLUMNS[kind]],
  );
  const set = own.map((of) => (of.digits === null || digits === null ? of : { ...of, digits }));
  const rungs = first?.rungs ?? [];
  return {
    caption: report.title,
    groups: [
      { title: '', columns: 2 },
      ...report.methods.map(({ title }) => ({ title, columns: own.length })),
    ],
    columns: [column('h', 'h', 6), column('N', 'N'), ...report.methods.flatMap(() => set)],
    rows: rungs.map(({ h, steps }, i) => [
      h,
      steps,
      ...report.methods.flatMap((method) => kinds.flatMap((kind) => cellsOf(kind, method.rungs[i], names))),
    ]),
  };
}

/** What every method costs at every rung: evaluations, iterations of Newton's method, and the error they buy. */
export function costTable(report: StudyReport): Table {
  return {
    caption: `${report.title}: cost`,
    groups: null,
    columns: [
      column('method'),
      column('h', 'h', 6),
      column('N', 'N'),
      column('evaluations'),
      column('Newton iterations'),
      column('error', null, 4),
    ],
    rows: report.methods.flatMap(({ title, rungs }) =>
      rungs.map(({ h, steps, cost, error }) => [title, h, steps, cost.evaluations, cost.newton, error]),
    ),
  };
}

/** What each method needs for one error; an empty table where nothing can be compared. */
export function comparisonTable({ title, comparison }: StudyReport): Table {
  const wished = comparison === null ? '' : `: for an error of ${comparison.wished}`;
  return {
    caption: `${title}${wished}`,
    groups: null,
    columns: [
      column('method'),
      column('evaluations'),
      column('at most'),
      column('N', 'N'),
      column('h', 'h', 4),
    ],
    rows:
      comparison === null
        ? []
        : [
            ...comparison.needs.map(({ method, evaluations, atMost, steps, h }): CsvCell[] => [
              method,
              evaluations,
              atMost,
              steps,
              h,
            ]),
            ...comparison.short.map((method): CsvCell[] => [method, null, null, null, null]),
          ],
  };
}

/** The tables of a study by their names. */
export const STUDY_TABLES = ['rungs', 'cost', 'comparison'] as const;
export type StudyTable = (typeof STUDY_TABLES)[number];

/**
 * A table of a study by its name; the digits are those of its errors, ratios and orders.
 *
 * @example studyTable(report, 'rungs').rows.length // 3
 */
export function studyTable(
  report: StudyReport,
  what: StudyTable,
  digits: number | null = null,
  kinds: readonly RungColumn[] = USUAL_RUNG_COLUMNS,
): Table {
  switch (what) {
    case 'rungs':
      return rungTable(report, kinds, digits);
    case 'cost':
      return costTable(report);
    case 'comparison':
      return comparisonTable(report);
  }
}
