import type { BenchResult, TestBench } from '@schritt/core/inspect';
import { fixed } from '@schritt/core/text';
import { type ReactNode, useMemo } from 'react';
import { ColumnNumber, numberColumn } from '../math/number-column.tsx';
import { type Ask, useComputed } from '../worker/use-work.ts';

const VERDICT: { readonly [V in BenchResult['verdict']]: string } = {
  exact: 'exact up to rounding',
  agrees: 'as proved',
  above: 'higher here',
  unsteady: 'no steady order',
  parts: 'lower order',
  reduced: 'order reduction',
  digits: 'rounded coefficients',
  unknown: 'observed only',
  grows: 'does not converge',
};

/** Significant digits of the smallest errors. */
const ERROR_DIGITS = 2;

/** How a method does on a fixed battery of problems with known solutions: observed beside proved order. */
export function MethodBench({ text }: { readonly text: string }): ReactNode {
  const ask = useMemo(
    (): Ask<TestBench> => (computer, progress) => computer.ask('bench', { text }, progress),
    [text],
  );
  const { value } = useComputed(ask);
  const errors = numberColumn(value?.results.map(({ finest }) => finest) ?? [], ERROR_DIGITS);
  return (
    <section aria-label="Convergence tests" className="method-bench">
      <h2 className="label">Convergence tests</h2>
      {value === null ? (
        <p className="quiet">Running …</p>
      ) : (
        <table className="bench-table">
          <thead>
            <tr>
              <th scope="col">problem</th>
              <th scope="col">proved</th>
              <th scope="col">observed</th>
              <th scope="col">smallest error</th>
              <th scope="col">verdict</th>
            </tr>
          </thead>
          <tbody>
            {value.results.map(({ name, observed, finest, verdict, partsAt }) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                <td>{value.proved ?? '–'}</td>
                <td>{observed === null ? '–' : fixed(observed, 2)}</td>
                <td>
                  {finest === null || !Number.isFinite(finest) ? (
                    '–'
                  ) : (
                    <ColumnNumber value={finest} column={errors} />
                  )}
                </td>
                <td className={verdict === 'parts' || verdict === 'grows' ? 'wrong' : 'good'}>
                  {VERDICT[verdict]}
                  {partsAt === null ? '' : ` from N = ${partsAt} on`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
