import { Fragment, type MouseEvent, type ReactNode } from 'react';
import { PowerNumber } from '../math/power-number.tsx';
import { Mark } from '../plots/mark.tsx';
import type { SideRows } from '../worker/messages.ts';
import { StepValue } from './number-format.tsx';
import './rung-table.css';

interface SideTableProps {
  readonly side: SideRows;
  readonly independent: string;
  readonly methods: readonly { readonly key: string; readonly title: string; readonly place: number }[];
  /** The grid point from which the chosen step goes. */
  readonly chosen: number;
  readonly onStep: (n: number, method: number) => void;
  readonly onMark: (t: number | null) => void;
  readonly onClick: (event: MouseEvent) => void;
}

/** Rows of all methods side by side: the value of one component, and its error where the exact one is known. */
export function SideTable({
  side,
  independent,
  methods,
  chosen,
  onStep,
  onMark,
  onClick,
}: SideTableProps): ReactNode {
  const { rows, component } = side;
  const hasExact = rows.some(({ exact }) => exact !== null);
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
          {hasExact && <th scope="col">{`exact ${component}`}</th>}
          {methods.map(({ key }) => (
            <Fragment key={key}>
              <th scope="col" className="first">
                {component}
              </th>
              {hasExact && <th scope="col">error</th>}
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
              <StepValue value={row.t} />
            </td>
            {hasExact && (
              <td className="quiet">
                <StepValue value={row.exact} />
              </td>
            )}
            {methods.map(({ key }, i) => {
              const value = row.values[i] ?? null;
              return (
                <Fragment key={key}>
                  <td className="first" onClick={() => onStep(row.n, i)}>
                    <StepValue value={value} />
                  </td>
                  {hasExact && (
                    <td onClick={() => onStep(row.n, i)}>
                      {value !== null && row.exact !== null && <PowerNumber value={value - row.exact} />}
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
