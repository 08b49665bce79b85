import { fixed, stepExpression, stepSizeText } from '@schritt/core/notation';
import { Button } from 'antd';
import { Fragment, type MouseEvent, type ReactNode } from 'react';
import { Mark } from '../plots/mark.tsx';
import type { KeyedResult } from '@schritt/plot';
import { methodMark } from '@schritt/plot/palette';
import { useDesk } from '../desk/desk.ts';
import { strike, withoutRungAt } from '../desk/working-study.ts';
import { usePalette } from '../theme/use-palette.ts';
import { RungCells, type RungColumn, rungHeading } from './rung-cells.tsx';
import './rung-table.css';

/** A step size as the part of the interval that it is; the number itself where it is none. */
function SizeAsPart({ h, steps }: { readonly h: number; readonly steps: number }): ReactNode {
  const { problem } = useDesk('problem');
  return (problem === null ? null : stepExpression(problem, steps)?.text) ?? stepSizeText(h);
}

/** The rungs of a study against its methods. */
export function RungTable({
  keyed,
  columns,
  asParts,
  onClick,
}: {
  readonly keyed: KeyedResult;
  readonly columns: readonly RungColumn[];
  /** Whether a step size is written as the part of the interval that it is. */
  readonly asParts: boolean;
  readonly onClick: (event: MouseEvent) => void;
}): ReactNode {
  const {
    methods: own,
    chosen,
    pointed,
    edit,
    error,
    independent,
    setPointed,
  } = useDesk('methods', 'chosen', 'pointed', 'setPointed', 'edit', 'error', 'independent');
  const { placeOf, titleOf, change, moveWindow } = own;
  const { rows } = chosen;
  const { scale } = error;
  const palette = usePalette();
  const { methods } = keyed.result;
  const lead = methods.reduce<(typeof methods)[number]['rungs']>(
    (longest, { rungs }) => (rungs.length > longest.length ? rungs : longest),
    [],
  );
  const implicit = methods.some(({ rungs }) => rungs.some(({ cost }) => cost.newton > 0));
  const isUnjudged = keyed.result.findings.some(({ kind }) => kind === 'wrong exact');
  const isPointed = (key: string, row: number): boolean =>
    pointed !== null && (pointed.key === null || pointed.key === key) && pointed.rows.includes(row);
  const isWindowEnd = ({ fit }: (typeof methods)[number], row: number): boolean =>
    fit !== null && (row === Math.min(...fit.rungs) || row === Math.max(...fit.rungs));
  return (
    <table
      className={['rung-table', lead.length > 8 ? 'dense' : '', isUnjudged ? 'unjudged' : ''].join(' ')}
      onClick={onClick}
    >
      <thead>
        <tr>
          <td colSpan={2} />
          {methods.map((_, i) => {
            const key = keyed.keys[i] ?? '';
            return (
              <th key={key} colSpan={columns.length} scope="colgroup" className="method">
                <Mark index={placeOf(key)} /> {titleOf(key)}
              </th>
            );
          })}
          <td />
        </tr>
        <tr>
          <th scope="col">h</th>
          <th scope="col">N</th>
          {methods.map((_, i) => (
            <Fragment key={keyed.keys[i]}>
              {columns.map((column, k) => (
                <th key={column} scope="col" className={k === 0 ? 'first' : ''}>
                  {rungHeading(column, scale, implicit)}
                </th>
              ))}
            </Fragment>
          ))}
          <td />
        </tr>
      </thead>
      <tbody>
        {lead.map((first, row) => {
          const rung = rows[row] ?? row;
          return (
            <tr
              key={rung}
              className={rung === chosen.rung ? 'chosen' : ''}
              aria-selected={rung === chosen.rung}
              onClick={() => chosen.choose(rung)}
            >
              <th scope="row" title={first.remark ?? String(first.h)}>
                <span data-full={String(first.h)}>
                  {asParts && first.divides ? (
                    <SizeAsPart h={first.h} steps={first.steps} />
                  ) : (
                    stepSizeText(first.h)
                  )}
                </span>
                {!first.divides && <span className="off"> ≈</span>}
              </th>
              <td className="quiet">{first.steps}</td>
              {methods.map((method, i) => {
                const key = keyed.keys[i] ?? '';
                const result = method.rungs[row];
                if (result === undefined)
                  return <td key={key} colSpan={columns.length} className="first quiet" />;
                return (
                  <RungCells
                    key={key}
                    rung={result}
                    previous={method.rungs[row - 1] ?? null}
                    implicit={implicit}
                    columns={columns}
                    scale={scale}
                    independent={independent}
                    title={titleOf(key)}
                    color={methodMark(palette, placeOf(key)).color}
                    pointed={isPointed(key, row)}
                    windowEnd={isWindowEnd(method, row)}
                    onStrike={() => change(key, 'strike', (working) => strike(working, rung))}
                    onWindow={() => moveWindow(key, rung)}
                  />
                );
              })}
              <td className="remove">
                <Button
                  type="text"
                  size="small"
                  aria-label={`Remove h = ${stepSizeText(first.h)}`}
                  title="Remove this h"
                  onClick={(event) => {
                    event.stopPropagation();
                    edit('ladder', (now) => withoutRungAt(now, rung));
                  }}
                >
                  ×
                </Button>
              </td>
            </tr>
          );
        })}
      </tbody>
      {columns.includes('error') && methods.some(({ fit }) => fit !== null) && (
        <tfoot>
          <tr>
            <th scope="row" colSpan={2}>
              least-squares slope
            </th>
            {methods.map(({ fit }, i) => (
              <td
                key={keyed.keys[i]}
                colSpan={columns.length}
                className="first"
                onMouseEnter={() => fit !== null && setPointed({ key: keyed.keys[i] ?? '', rows: fit.rungs })}
                onMouseLeave={() => setPointed(null)}
              >
                {fit !== null && (
                  <>
                    <span className="slope">{fixed(fit.order, 2)}</span>{' '}
                    <span className="quiet">over {fit.rungs.length} step sizes</span>
                  </>
                )}
              </td>
            ))}
            <td />
          </tr>
        </tfoot>
      )}
    </table>
  );
}
