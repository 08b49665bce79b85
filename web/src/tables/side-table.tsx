import { Fragment, type MouseEvent, type ReactNode, useContext } from 'react';
import { ColumnNumber } from '../math/number-column.tsx';
import { Mark } from '../plots/mark.tsx';
import type { SideRows } from '../worker/messages.ts';
import { columnIn, errorsIn, FormatContext } from './number-format.tsx';
import type { RowErrors } from './row-error.ts';
import { type SideColumn, sideGroups } from './side-columns.ts';
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

/** How a column of a group is set: the first one of a method has a line before it, what is not the method's own is quiet. */
function classOf({ kind }: SideColumn, i: number): string {
  if (kind === 'exact') return 'quiet';
  return [i === 0 ? 'first' : '', kind === 'stage' ? 'quiet' : ''].join(' ').trim();
}

/** Rows of all methods side by side: values with their errors against exact ones or a reference, and stages. */
export function SideTable({
  side,
  errors,
  independent,
  methods,
  chosen,
  onStep,
  onMark,
  onClick,
}: SideTableProps): ReactNode {
  const { rows } = side;
  const format = useContext(FormatContext);
  const groups = sideGroups(side, errors);
  const times = columnIn(
    format,
    rows.map(({ t }) => t),
  );
  const styles = groups.map(({ columns }) =>
    columns.map(({ kind, value }) =>
      kind === 'error' ? errorsIn(format, rows.map(value)) : columnIn(format, rows.map(value)),
    ),
  );
  return (
    <table className="rung-table steps" onMouseLeave={() => onMark(null)} onClick={onClick}>
      <thead>
        <tr>
          <td colSpan={2 + (groups[0]?.columns.length ?? 0)} />
          {groups.map(({ method, columns }) => {
            const of = method === null ? undefined : methods[method];
            return of === undefined ? null : (
              <th key={of.key} colSpan={columns.length} scope="colgroup" className="method">
                <Mark index={of.place} /> {of.title}
              </th>
            );
          })}
        </tr>
        <tr>
          <th scope="col">n</th>
          <th scope="col">{independent}</th>
          {groups.map(({ method, columns }) =>
            columns.map((column, i) => (
              <th key={`${method ?? ''}/${i}`} scope="col" className={classOf(column, i)}>
                {column.heading}
              </th>
            )),
          )}
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
            {groups.map(({ method, columns }, g) => (
              <Fragment key={method ?? ''}>
                {columns.map((column, i) => (
                  <td
                    key={i}
                    className={classOf(column, i)}
                    onClick={method === null ? undefined : () => onStep(row.n, method)}
                  >
                    <ColumnNumber
                      value={column.value(row)}
                      column={styles[g]![i]!}
                      full={column.digits?.(row)}
                    />
                  </td>
                ))}
              </Fragment>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
