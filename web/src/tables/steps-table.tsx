import { type MouseEvent, type ReactNode, useContext } from 'react';
import { ColumnNumber } from '../math/number-column.tsx';
import type { RowDigits } from '@schritt/core/study';
import type { RowsWindow } from '../worker/messages.ts';
import { columnIn, errorsIn, FormatContext } from './number-format.tsx';
import type { RowErrors } from './row-error.ts';
import './rung-table.css';

/** Steps that the table shows at once. */
export const STEPS_SHOWN = 40;

/** Kinds of columns behind n and t. */
export type StepColumn = 'values' | 'slopes' | 'stages' | 'conserved' | 'exact' | 'error' | 'local';

export const STEP_COLUMNS: readonly { readonly value: StepColumn; readonly label: string }[] = [
  { value: 'values', label: 'components' },
  { value: 'slopes', label: 'slopes f' },
  { value: 'stages', label: 'stages' },
  { value: 'conserved', label: 'conserved quantities' },
  { value: 'exact', label: 'exact values' },
  { value: 'error', label: 'errors' },
  { value: 'local', label: 'local errors, estimated and actual' },
];

export const USUAL_COLUMNS: readonly StepColumn[] = [
  'values',
  'slopes',
  'stages',
  'conserved',
  'error',
  'local',
];

/** One column of the rows of a run. */
export interface StepCell {
  readonly heading: string;
  readonly kind: StepColumn;
  /** The value in a row; null or undefined where it has none. */
  readonly value: (row: RowsWindow['rows'][number], place: number) => number | null | undefined;
  /** All digits of the value, in a run in decimals. */
  readonly digits?: (digits: RowDigits) => string | null | undefined;
}

/** The columns of the rows of a run, of the chosen kinds. */
export function stepCells(
  window: RowsWindow,
  kinds: readonly StepColumn[],
  errors: RowErrors,
): readonly StepCell[] {
  const { components, slopes, stages, conserved, truths, localErrors } = window;
  const all: readonly StepCell[] = [
    ...components.map((heading, j): StepCell => ({
      heading,
      kind: 'values',
      value: (row) => row.values[j],
      digits: ({ values }) => values[j],
    })),
    ...slopes.map((heading, j): StepCell => ({
      heading,
      kind: 'slopes',
      value: (row) => row.slopes[j],
      digits: (all) => all.slopes[j],
    })),
    ...stages.map((heading, k): StepCell => ({
      heading,
      kind: 'stages',
      value: (row) => row.stages?.flat()[k],
      digits: (all) => all.stages?.flat()[k],
    })),
    ...conserved.map((heading, k): StepCell => ({
      heading,
      kind: 'conserved',
      value: (row) => row.conserved[k],
      digits: (all) => all.conserved[k],
    })),
    ...components.flatMap((name, j): readonly StepCell[] => {
      const truth = truths[j] ?? null;
      if (truth === null) return [];
      return [
        {
          heading: `${truth} ${name}`,
          kind: 'exact',
          value: (row) => row.exact[j],
          digits: ({ exact }) => exact[j],
        },
        {
          heading: `${errors.heading} ${name}`,
          kind: 'error',
          value: ({ values, exact, digits }) => {
            const difference = digits?.errors[j];
            return difference == null
              ? errors.of(values[j], exact[j])
              : errors.ofDifference(difference, exact[j]);
          },
        },
      ];
    }),
    ...(localErrors.length > 0
      ? components.flatMap((name, j): readonly StepCell[] => [
          { heading: `estimated ${name}`, kind: 'local', value: (_, i) => localErrors[i]?.estimate[j] },
          { heading: `local error ${name}`, kind: 'local', value: (_, i) => localErrors[i]?.error?.[j] },
        ])
      : []),
  ];
  return all.filter(({ kind }) => kinds.includes(kind));
}

interface StepsTableProps {
  readonly window: RowsWindow;
  readonly errors: RowErrors;
  readonly columns: readonly StepColumn[];
  readonly independent: string;
  /** Receives the time of the step under the pointer; null for none. */
  readonly onMark: (t: number | null) => void;
  readonly onClick: (event: MouseEvent) => void;
}

/** The steps of one run with every stage, a window of them at a time. */
export function StepsTable({
  window,
  errors,
  columns,
  independent,
  onMark,
  onClick,
}: StepsTableProps): ReactNode {
  const { rows, stopped } = window;
  const cells = stepCells(window, columns, errors);
  const format = useContext(FormatContext);
  const times = columnIn(
    format,
    rows.map(({ t }) => t),
  );
  const styles = cells.map(({ kind, value }) =>
    kind === 'error' || kind === 'local'
      ? errorsIn(format, rows.map(value))
      : columnIn(format, rows.map(value)),
  );
  const classOf = (i: number): string => {
    const { kind } = cells[i]!;
    const isFirst = i > 0 && kind !== cells[i - 1]?.kind && kind !== 'error' && kind !== 'exact';
    return [isFirst ? 'first' : '', kind === 'slopes' || kind === 'stages' ? 'quiet' : ''].join(' ').trim();
  };
  return (
    <>
      <table className="rung-table steps" onMouseLeave={() => onMark(null)} onClick={onClick}>
        <thead>
          <tr>
            <th scope="col">n</th>
            <th scope="col">{independent}</th>
            {cells.map(({ heading }, i) => (
              <th key={`${heading}/${i}`} scope="col" className={classOf(i)}>
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, place) => (
            <tr key={row.n} onMouseEnter={() => onMark(row.t)}>
              <th scope="row">{row.n}</th>
              <td>
                <ColumnNumber value={row.t} column={times} full={row.digits?.t} />
              </td>
              {cells.map(({ heading, value, digits }, i) => (
                <td key={`${heading}/${i}`} className={classOf(i)}>
                  <ColumnNumber
                    value={value(row, place)}
                    column={styles[i]!}
                    full={row.digits && digits?.(row.digits)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {stopped !== null && <p className="wrong">Stopped in {stopped}.</p>}
    </>
  );
}
