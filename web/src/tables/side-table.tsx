import { Fragment, type MouseEvent, type ReactNode, useContext } from 'react';
import { ColumnNumber } from '../math/number-column.tsx';
import { Mark } from '../plots/mark.tsx';
import type { SideRows } from '../worker/messages.ts';
import { columnIn, errorsIn, FormatContext } from './number-format.tsx';
import type { RowErrors } from './row-error.ts';
import './rung-table.css';

interface SideTableProps {
  readonly side: SideRows;
  readonly errors: RowErrors;
  readonly independent: string;
  readonly methods: readonly { readonly key: string; readonly title: string; readonly place: number }[];
  /** The grid point from which the chosen step goes. */
  readonly chosen: number;
  readonly onStep: (n: number, method: number) => void;
  readonly onMark: (t: number | null) => void;
  readonly onClick: (event: MouseEvent) => void;
}

/** Rows of all methods side by side: the value of one component, and its error against the exact one or a reference. */
export function SideTable({
  side,
  errors: rowErrors,
  independent,
  methods,
  chosen,
  onStep,
  onMark,
  onClick,
}: SideTableProps): ReactNode {
  const { rows, component, truth } = side;
  const hasExact = truth !== null;
  const format = useContext(FormatContext);
  const errorOf = ({ values, exact }: SideRows['rows'][number], i: number): number | null =>
    rowErrors.of(values[i], exact);
  const times = columnIn(
    format,
    rows.map(({ t }) => t),
  );
  const exacts = columnIn(
    format,
    rows.map(({ exact }) => exact),
  );
  const columns = methods.map((_, i) => ({
    values: columnIn(
      format,
      rows.map(({ values }) => values[i]),
    ),
    errors: errorsIn(
      format,
      rows.map((row) => errorOf(row, i)),
    ),
  }));
  return (
    <table className="rung-table steps" onMouseLeave={() => onMark(null)} onClick={onClick}>
      <thead>
        <tr>
          <td colSpan={hasExact ? 3 : 2} />
          {methods.map(({ key, title, place }) => (
            <th key={key} colSpan={hasExact ? 2 : 1} scope="colgroup" className="method">
              <Mark index={place} /> {title}
            </th>
          ))}
        </tr>
        <tr>
          <th scope="col">n</th>
          <th scope="col">{independent}</th>
          {hasExact && <th scope="col">{`${truth} ${component}`}</th>}
          {methods.map(({ key }) => (
            <Fragment key={key}>
              <th scope="col" className="first">
                {component}
              </th>
              {hasExact && <th scope="col">{rowErrors.heading}</th>}
            </Fragment>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr
            key={row.n}
            className={row.n === chosen ? 'chosen' : ''}
            aria-selected={row.n === chosen}
            onMouseEnter={() => onMark(row.t)}
          >
            <th scope="row">{row.n}</th>
            <td>
              <ColumnNumber value={row.t} column={times} />
            </td>
            {hasExact && (
              <td className="quiet">
                <ColumnNumber value={row.exact} column={exacts} />
              </td>
            )}
            {methods.map(({ key }, i) => {
              const { values, errors } = columns[i]!;
              return (
                <Fragment key={key}>
                  <td className="first" onClick={() => onStep(row.n, i)}>
                    <ColumnNumber value={row.values[i]} column={values} />
                  </td>
                  {hasExact && (
                    <td onClick={() => onStep(row.n, i)}>
                      <ColumnNumber value={errorOf(row, i)} column={errors} />
                    </td>
                  )}
                </Fragment>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
