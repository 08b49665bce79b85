import { count, exponential, short, withMinus } from '@schritt/core/notation';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { RowsWindow } from '../worker/messages.ts';
import { PowerNumber } from '../math/power-number.tsx';
import './rung-table.css';

/** Steps that the table shows at once. */
export const STEPS_SHOWN = 40;

interface StepsTableProps {
  readonly window: RowsWindow;
  readonly independent: string;
  /** First step of the window, and how to ask for another. */
  readonly from: number;
  readonly onFrom: (from: number) => void;
  /** Told the time of the step that is pointed at; null for none. */
  readonly onMark: (t: number | null) => void;
}

/** A number to the digits that a table of steps has room for; the full one is its title. */
function Value({ value }: { readonly value: number | null | undefined }): ReactNode {
  if (value == null) return null;
  const isPlain = value === 0 || (Math.abs(value) >= 1e-4 && Math.abs(value) < 1e7);
  return <span title={String(value)}>{withMinus(isPlain ? short(value, 8) : exponential(value, 7))}</span>;
}

/** The steps of one run with every stage, a window of them at a time. */
export function StepsTable({ window, independent, from, onFrom, onMark }: StepsTableProps): ReactNode {
  const { components, slopes, stages, conserved, rows, steps, stopped } = window;
  const exact = rows.some((row) => row.exact.some((value) => value !== null));
  const last = Math.max(0, steps + 1 - STEPS_SHOWN);
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
                <Value value={row.t} />
              </td>
              {row.values.map((value, j) => (
                <td key={components[j]}>
                  <Value value={value} />
                </td>
              ))}
              {row.slopes.map((slope, j) => (
                <td key={`slope ${components[j] ?? j}`} className={j === 0 ? 'first quiet' : 'quiet'}>
                  <Value value={slope} />
                </td>
              ))}
              {stages.map((name, k) => (
                <td key={`${name}/${k}`} className="quiet">
                  <Value value={row.stages?.flat()[k]} />
                </td>
              ))}
              {conserved.map((name, k) => (
                <td key={name}>
                  <Value value={row.conserved[k]} />
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
      {steps + 1 > STEPS_SHOWN && (
        <nav className="pages" aria-label="Steps">
          <Button size="small" disabled={from === 0} onClick={() => onFrom(0)}>
            first
          </Button>
          <Button size="small" disabled={from === 0} onClick={() => onFrom(Math.max(0, from - STEPS_SHOWN))}>
            before
          </Button>
          <span className="quiet">
            n = {count(from)} to {count(Math.min(steps, from + STEPS_SHOWN - 1))} of {count(steps)}
          </span>
          <Button
            size="small"
            disabled={from >= last}
            onClick={() => onFrom(Math.min(last, from + STEPS_SHOWN))}
          >
            next
          </Button>
          <Button size="small" disabled={from >= last} onClick={() => onFrom(last)}>
            last
          </Button>
        </nav>
      )}
    </>
  );
}
