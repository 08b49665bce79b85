import { count, significant, stepSizeText } from '@schritt/core/text';
import type { StepsForError } from '@schritt/core/study';
import { Button, Input } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { type Ask, useComputed } from '../worker/use-work.ts';
import { Mark } from '../plots/mark.tsx';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import type { KeyedResult } from '@schritt/plot';

/** Which method gives a target error with the fewest evaluations. */
export function ComparisonPart(): ReactNode {
  const { results } = useStudyState('results');
  return results.value === null ? null : <Costs keyed={results.value} />;
}

/** Which N theory asks for the target error, by method, and what a run with it comes to. */
function AskedSettings({
  targetError,
  keyed,
}: {
  readonly targetError: number;
  readonly keyed: KeyedResult;
}): ReactNode {
  const { methods } = useStudyState('methods');
  const chooseSteps = useStudyValue(({ chosen }) => chosen.chooseSteps);
  const [isAsked, setAsked] = useState(false);
  const document = useStudyValue(({ good }) => (isAsked ? good.document : null));
  const ask = useMemo((): Ask<readonly (StepsForError | null)[]> | null => {
    if (document === null) return null;
    return (computer, progress) => computer.ask('wished', { document, targetError }, progress);
  }, [document, targetError]);
  const { value } = useComputed(ask);
  if (!keyed.result.methods.some(({ predicted }) => predicted !== null)) return null;
  if (!isAsked)
    return (
      <Button type="link" size="small" onClick={() => setAsked(true)}>
        predicted N
      </Button>
    );
  return (
    <table className="asked-steps">
      <tbody>
        {value?.map((found, i) => {
          const key = keyed.keys[i] ?? '';
          return (
            found !== null && (
              <tr key={key}>
                <th scope="row">
                  <Mark index={methods.placeOf(key)} /> {methods.titleOf(key)}
                </th>
                <td>
                  <Button
                    type="link"
                    size="small"

                    onClick={() => chooseSteps(found.steps)}
                  >
                    N {count(found.steps)}
                  </Button>
                </td>
                <td className="quiet">
                  {found.measured === null
                    ? 'too many steps to run'
                    : `run: ${significant(found.measured, 3)}`}
                </td>
              </tr>
            )
          );
        })}
      </tbody>
    </table>
  );
}

function Costs({ keyed }: { readonly keyed: KeyedResult }): ReactNode {
  const { edit, methods } = useStudyState('edit', 'methods');
  const targetError = useStudyValue(({ study }) => study.wished);
  const { placeOf, titleOf } = methods;
  const setTargetError = (error: number | undefined): void =>
    edit('target error', ({ wished: _, ...now }) => (error === undefined ? now : { ...now, wished: error }));
  const { comparison } = keyed.result;
  const [typed, setTyped] = useState<string | null>(null);
  if (comparison === null) return null;
  const keyOf = (method: number): string => keyed.keys[method] ?? '';
  const shown = typed ?? String(targetError ?? comparison.wished);
  const done = (): void => {
    const value = Number(typed);
    if (typed !== null) setTargetError(typed.trim() === '' || !(value > 0) ? undefined : value);
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
          className="wished-error"
          value={shown}
          aria-invalid={typed !== null && typed.trim() !== '' && !(Number(typed) > 0)}
          status={typed !== null && typed.trim() !== '' && !(Number(typed) > 0) ? 'error' : ''}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={done}
          onPressEnter={done}
        />
      </label>
      <table>
        <tbody>
          {comparison.needs.map(({ method, evaluations, steps, atMost, isCoarsest }) => (
            <tr key={keyOf(method)}>
              <th scope="row">
                <Mark index={placeOf(keyOf(method))} /> {titleOf(keyOf(method))}
              </th>
              <td
                title={
                  isCoarsest && atMost
                    ? 'already reached at the largest h'
                    : atMost
                      ? 'already reached at the largest h that counts'
                      : 'interpolated between its step sizes'
                }
              >
                {atMost ? 'at most ' : ''}
                {count(evaluations)}
              </td>
              <td className="quiet">N {count(steps)}</td>
            </tr>
          ))}
          {comparison.short.map((method) => (
            <tr key={keyOf(method)} className="quiet">
              <th scope="row">
                <Mark index={placeOf(keyOf(method))} /> {titleOf(keyOf(method))}
              </th>
              <td colSpan={2}>not reached</td>
            </tr>
          ))}
        </tbody>
      </table>
      <AskedSettings targetError={targetError ?? comparison.wished} keyed={keyed} />
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
