import { significant, stepSizeText } from '@schritt/core/notation';
import { Input } from 'antd';
import { type ReactNode, useState } from 'react';
import { Mark } from '../pictures/mark.tsx';
import type { KeyedResult } from './use-results.ts';

interface ComparisonPartProps {
  readonly keyed: KeyedResult;
  readonly placeOf: (key: string) => number;
  readonly titleOf: (key: string) => string;
  /** The error a person asked for; undefined for the one that all methods reach. */
  readonly wished: number | undefined;
  readonly onWished: (error: number | undefined) => void;
}

/** Which method gives a wished error with the fewest evaluations. */
export function ComparisonPart({
  keyed,
  placeOf,
  titleOf,
  wished,
  onWished,
}: ComparisonPartProps): ReactNode {
  const { comparison } = keyed.result;
  const [typed, setTyped] = useState<string | null>(null);
  if (comparison === null) return null;
  const keyOf = (method: number): string => keyed.keys[method] ?? '';
  const shown = typed ?? String(wished ?? comparison.wished);
  const done = (): void => {
    const value = Number(typed);
    if (typed !== null) onWished(typed.trim() === '' || !(value > 0) ? undefined : value);
    setTyped(null);
  };
  const list = (errors: readonly { readonly method: number; readonly error: number }[]): string =>
    errors.map(({ method, error }) => `${titleOf(keyOf(method))} ${significant(error, 2)}`).join(', ');
  return (
    <section className="comparison" aria-label="Comparison">
      <label>
        Evaluations for an error of{' '}
        <Input
          size="small"
          value={shown}
          status={typed !== null && typed.trim() !== '' && !(Number(typed) > 0) ? 'error' : ''}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={done}
          onPressEnter={done}
        />
      </label>
      <table>
        <tbody>
          {comparison.needs.map(({ method, evaluations, steps }) => (
            <tr key={keyOf(method)}>
              <th scope="row">
                <Mark index={placeOf(keyOf(method))} /> {titleOf(keyOf(method))}
              </th>
              <td>{evaluations.toLocaleString('en')}</td>
              <td className="quiet">N {steps.toLocaleString('en')}</td>
            </tr>
          ))}
          {comparison.short.map((method) => (
            <tr key={keyOf(method)} className="quiet">
              <th scope="row">
                <Mark index={placeOf(keyOf(method))} /> {titleOf(keyOf(method))}
              </th>
              <td colSpan={2}>no rung so exact</td>
            </tr>
          ))}
        </tbody>
      </table>
      {comparison.equalStep !== null && (
        <p className="quiet">
          at h = {stepSizeText(comparison.equalStep.h)}: {list(comparison.equalStep.errors)}
        </p>
      )}
      {comparison.equalCost !== null && (
        <p className="quiet">
          with {comparison.equalCost.evaluations.toLocaleString('en')} evaluations:{' '}
          {list(comparison.equalCost.errors)}
        </p>
      )}
    </section>
  );
}
