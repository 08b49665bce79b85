import type { ReactNode } from 'react';
import type { RowsWindow } from '../worker/messages.ts';
import { PowerNumber } from '../math/power-number.tsx';
import { StepValue } from './side-table.tsx';
import './rung-table.css';

/** Steps that the table shows at once. */
export const STEPS_SHOWN = 40;

interface StepsTableProps {
  readonly window: RowsWindow;
  readonly independent: string;
  /** Told the time of the step that is pointed at; null for none. */
  readonly onMark: (t: number | null) => void;
}

/** The steps of one run with every stage, a window of them at a time. */
export function StepsTable({ window, independent, onMark }: StepsTableProps): ReactNode {
  const { components, slopes, stages, conserved, rows, stopped } = window;
  const exact = rows.some((row) => row.exact.some((value) => value !== null));
  return (
    <>
      <table className="rung-table steps" onMouseLeave={() => onMark(null)}>
        <thead>
          <tr>
            <th scope="col">n</th>
            <th scope="col">{independent}</th>
            {[...components, ...slopes, ...stages, ...conserved].map((name, i) => (
              <th key={`${name}/${i}`} scope="col" className={i === components.length ? 'first' : ''}>
                {name}
              </th>
            ))}
            {exact && components.map((name) => <th key={`exact ${name}`} scope="col">{`error ${name}`}</th>)}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.n} onMouseEnter={() => onMark(row.t)}>
              <th scope="row">{row.n}</th>
              <td>
                <StepValue value={row.t} />
              </td>
              {row.values.map((value, j) => (
                <td key={components[j]}>
                  <StepValue value={value} />
                </td>
              ))}
              {row.slopes.map((slope, j) => (
                <td key={`slope ${components[j] ?? j}`} className={j === 0 ? 'first quiet' : 'quiet'}>
                  <StepValue value={slope} />
                </td>
              ))}
              {stages.map((name, k) => (
                <td key={`${name}/${k}`} className="quiet">
                  <StepValue value={row.stages?.flat()[k]} />
                </td>
              ))}
              {conserved.map((name, k) => (
                <td key={name}>
                  <StepValue value={row.conserved[k]} />
                </td>
              ))}
              {exact &&
                row.values.map((value, j) => {
                  const known = row.exact[j];
                  return (
                    <td key={`error ${components[j] ?? j}`}>
                      {known != null && <PowerNumber value={value - known} />}
                    </td>
                  );
                })}
            </tr>
          ))}
        </tbody>
      </table>
      {stopped !== null && <p className="wrong">Left the numbers in {stopped}.</p>}
    </>
  );
}
