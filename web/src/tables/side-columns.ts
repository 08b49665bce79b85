import type { SideRow, SideRows } from '../worker/messages.ts';
import type { RowErrors } from './row-error.ts';

/** One column of the rows of all methods side by side. */
export interface SideColumn {
  readonly heading: string;
  readonly kind: 'exact' | 'value' | 'error' | 'stage';
  readonly value: (row: SideRow) => number | null;
  /** All digits of the value, where the method is run in decimals. */
  readonly digits?: (row: SideRow) => string | null;
}

/** Columns that belong together: the exact values, or those of a method by its place. */
export interface SideGroup {
  readonly method: number | null;
  readonly columns: readonly SideColumn[];
}

/** The columns behind n and t: exact values, then for every method values with their errors, and stages. */
export function sideGroups(side: SideRows, errors: RowErrors): readonly SideGroup[] {
  const { components, truths, stages } = side;
  const exact = components.flatMap((name, c): readonly SideColumn[] => {
    const truth = truths[c] ?? null;
    return truth === null
      ? []
      : [{ heading: `${truth} ${name}`, kind: 'exact', value: (row) => row.exact[c] ?? null }];
  });
  const ofMethod = (i: number): SideGroup => ({
    method: i,
    columns: [
      ...components.flatMap((name, c): readonly SideColumn[] => {
        const value = (row: SideRow): number | null => row.values[i]?.[c] ?? null;
        const heading = components.length > 1 ? `${errors.heading} ${name}` : errors.heading;
        return [
          { heading: name, kind: 'value', value, digits: (row) => row.digits[i]?.values[c] ?? null },
          ...((truths[c] ?? null) === null
            ? []
            : [
                {
                  heading,
                  kind: 'error' as const,
                  value: (row: SideRow) => {
                    const difference = row.digits[i]?.errors[c] ?? null;
                    return difference === null
                      ? errors.of(value(row), row.exact[c])
                      : errors.ofDifference(difference, row.exact[c]);
                  },
                },
              ]),
        ];
      }),
      ...(stages[i] ?? []).map((heading, k): SideColumn => ({
        heading,
        kind: 'stage',
        value: (row) => row.stages[i]?.[k] ?? null,
        digits: (row) => row.digits[i]?.stages[k] ?? null,
      })),
    ],
  });
  return [{ method: null, columns: exact }, ...side.stopped.map((_, i) => ofMethod(i))];
}
