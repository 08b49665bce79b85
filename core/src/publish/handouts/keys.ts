import type { CsvCell } from '../csv.ts';
import { column, type Table } from '../tables/table.ts';
import { isOfRun, rowNumber } from './blanks.ts';
import type { Handout } from './handout.ts';
import type { Variant } from './variants.ts';

/** One table of the keys of all sheets. */
export interface Keys {
  readonly table: Table;
  /** Columns at its left that say which sheet it is. */
  readonly leading: number;
  /** What is to be said of the sheets; null where nothing is. */
  readonly note: string | null;
}

/** Most blanks of a sheet that are in the table of all keys; of more the last ones are. */
const MAX = 60;
/** Answers beside one another on paper. */
const ON_PAPER = 6;

interface Answer {
  readonly title: string;
  readonly cell: CsvCell;
}

function answersOf({ table, blank }: Handout): readonly Answer[] {
  const all = table.rows.flatMap((row, r) =>
    row.flatMap((cell, i): readonly Answer[] =>
      blank[r]?.[i] === true
        ? [
            {
              title: `${table.columns[i]?.title ?? ''}, ${isOfRun(table) ? 'n =' : 'row'} ${rowNumber(table, r)}`,
              cell,
            },
          ]
        : [],
    ),
  );
  return all.slice(-MAX);
}

/** The table of all keys in pieces that fit on paper, each with the columns that say which sheet it is. */
export function keyTables({ table, leading }: Keys): readonly Table[] {
  const answers = table.columns.length - leading;
  return Array.from({ length: Math.max(1, Math.ceil(answers / ON_PAPER)) }, (_, piece) => {
    const from = leading + piece * ON_PAPER;
    const part = <T>(list: readonly T[]): readonly T[] => [
      ...list.slice(0, leading),
      ...list.slice(from, from + ON_PAPER),
    ];
    return { ...table, columns: part(table.columns), rows: table.rows.map(part) };
  });
}

/** The numbers that each sheet has in its problem, and what belongs into its blanks: up to sixty, the last ones. */
export function keysOf(
  handouts: readonly Handout[],
  variants: readonly Variant[],
  { digits, note }: { readonly digits: number; readonly note: string | null },
): Keys {
  const answers = handouts.map(answersOf);
  const names = variants[0]?.map(({ name }) => name) ?? [];
  const titles = answers[0]?.map(({ title }) => title) ?? [];
  return {
    leading: 1 + names.length,
    note,
    table: {
      caption: '',
      groups: null,
      columns: [
        column('sheet'),
        ...names.map((name) => column(name)),
        ...titles.map((title) => column(title, null, digits)),
      ],
      rows: handouts.map(({ number }, i) => [
        number,
        ...names.map((_, k) => variants[i]?.[k]?.value ?? ''),
        ...titles.map((_, k) => answers[i]?.[k]?.cell ?? null),
      ]),
    },
  };
}
