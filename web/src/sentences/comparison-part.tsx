import { count, significant, stepSizeText } from '@schritt/core/notation';
import { Input } from 'antd';
import { type ReactNode, useState } from 'react';
import { Mark } from '../pictures/mark.tsx';
import { useDesk } from '../desk/desk.ts';
import type { KeyedResult } from '../desk/use-results.ts';

/** Which method gives a wished error with the fewest evaluations. */
export function ComparisonPart(): ReactNode {
  const { results } = useDesk();
  return results.value === null ? null : <Costs keyed={results.value} />;
}

function Costs({ keyed }: { readonly keyed: KeyedResult }): ReactNode {
  const { study, edit, methods } = useDesk();
  const { placeOf, titleOf } = methods;
  const { wished } = study;
  const setWished = (error: number | undefined): void =>
    edit('wished error', ({ wished: _, ...now }) => (error === undefined ? now : { ...now, wished: error }));
  const { comparison } = keyed.result;
  const [typed, setTyped] = useState<string | null>(null);
  if (comparison === null) return null;
  const keyOf = (method: number): string => keyed.keys[method] ?? '';
  const shown = typed ?? String(wished ?? comparison.wished);
  const done = (): void => {
    const value = Number(typed);
    if (typed !== null) setWished(typed.trim() === '' || !(value > 0) ? undefined : value);
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
              <td>{count(evaluations)}</td>
              <td className="quiet">N {count(steps)}</td>
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
          with {count(comparison.equalCost.evaluations)} evaluations: {list(comparison.equalCost.errors)}
        </p>
      )}
    </section>
  );
}
