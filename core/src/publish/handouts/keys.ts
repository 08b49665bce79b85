import type { CsvCell } from '../csv.ts';
import { column, type Table } from '../tables/table.ts';
import type { Handout } from './handout.ts';
import type { Variant } from './variants.ts';

/** One table of the keys of all sheets. */
export interface Keys {
  readonly table: Table;
}

/** Most blanks of a sheet that are in the table of all keys; of more the last ones do. */
const MAX = 12;

interface Answer {
  readonly title: string;
  readonly cell: CsvCell;
}

function answersOf({ table, blank }: Handout): readonly Answer[] {
  const all = table.rows.flatMap((row, r) =>
    row.flatMap((cell, i): readonly Answer[] =>
      blank[r]?.[i] === true ? [{ title: `${table.columns[i]?.title ?? ''}, row ${r + 1}`, cell }] : [],
    ),
  );
  return all.slice(-MAX);
}

/** The numbers that each sheet has in its problem, and what belongs into its blanks: up to twelve, the last ones. */
export function keysOf(handouts: readonly Handout[], variants: readonly Variant[], digits: number): Keys {
  const answers = handouts.map(answersOf);
  const names = variants[0]?.map(({ name }) => name) ?? [];
  const titles = answers[0]?.map(({ title }) => title) ?? [];
  return {
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
