import { type RungResult, stepSizeText } from '@schritt/core';
import { Fragment, type ReactNode } from 'react';
import { PowerNumber } from '../math/power-number.tsx';
import { Mark } from '../pictures/mark.tsx';
import type { KeyedResult } from '../study/use-results.ts';
import './rung-table.css';

interface RungTableProps {
  readonly keyed: KeyedResult;
  readonly placeOf: (key: string) => number;
  readonly titleOf: (key: string) => string;
  /** Which rung of the ladder is chosen, and which rung of the ladder each row is. */
  readonly chosen: number;
  readonly rows: readonly number[];
  readonly onChoose: (rung: number) => void;
  readonly onRemove: (rung: number) => void;
}

function ErrorCell({ rung }: { readonly rung: RungResult }): ReactNode {
  if (rung.stopped !== null) {
    const { step, t, stage, why } = rung.stopped;
    if (step === 0)
      return (
        <span className="wrong" title={why}>
          cannot run
        </span>
      );
    return (
      <span className="wrong" title={`step ${step} at t = ${t}, ${stage}: ${why}`}>
        left at t = {stepSizeText(t)}
      </span>
    );
  }
  return rung.error === null ? <span className="quiet">–</span> : <PowerNumber value={rung.error} />;
}

/** Ratio and order to as many digits as mean something. */
function short(value: number | null): string {
  if (value === null) return '';
  if (Math.abs(value) < 0.005) return '0.00';
  return Math.abs(value) >= 1000 ? value.toPrecision(3) : value.toFixed(2).replace('-', '−');
}

/** The rungs of a study against its methods: error, ratio, observed order. */
export function RungTable({
  keyed,
  placeOf,
  titleOf,
  chosen,
  rows,
  onChoose,
  onRemove,
}: RungTableProps): ReactNode {
  const { methods } = keyed.result;
  const lead = methods[0]?.rungs ?? [];
  return (
    <table className="rung-table">
      <thead>
        <tr>
          <th colSpan={2} />
          {methods.map((_, i) => {
            const key = keyed.keys[i] ?? '';
            return (
              <th key={key} colSpan={3} scope="colgroup" className="method">
                <Mark index={placeOf(key)} /> {titleOf(key)}
              </th>
            );
          })}
          <th />
        </tr>
        <tr>
          <th scope="col">h</th>
          <th scope="col">N</th>
          {methods.map((_, i) => (
            <Fragment key={keyed.keys[i]}>
              <th scope="col" className="first">
                error
              </th>
              <th scope="col">ratio</th>
              <th scope="col">order</th>
            </Fragment>
          ))}
          <th />
        </tr>
      </thead>
      <tbody>
        {lead.map((first, row) => {
          const rung = rows[row] ?? row;
          return (
            <tr
              key={rung}
              className={rung === chosen ? 'chosen' : ''}
              aria-selected={rung === chosen}
              onClick={() => onChoose(rung)}
            >
              <th scope="row" title={String(first.h)}>
                {stepSizeText(first.h)}
                {!first.divides && (
                  <span
                    className="off"
                    title={`h = ${stepSizeText(first.wished)} does not divide the interval; ${stepSizeText(first.h)} was taken`}
                  >
                    {' '}
                    ≈
                  </span>
                )}
              </th>
              <td className="quiet">{first.steps}</td>
              {methods.map((method, i) => {
                const result = method.rungs[row];
                if (result === undefined) return null;
                return (
                  <Fragment key={keyed.keys[i]}>
                    <td className="first">
                      <ErrorCell rung={result} />
                    </td>
                    <td>{short(result.ratio)}</td>
                    <td className="order">{short(result.order)}</td>
                  </Fragment>
                );
              })}
              <td className="remove">
                <button
                  type="button"
                  className="plain-button"
                  aria-label={`Remove the rung h = ${stepSizeText(first.h)}`}
                  title="Remove this rung"
                  onClick={(event) => {
                    event.stopPropagation();
                    onRemove(rung);
                  }}
                >
                  ×
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
