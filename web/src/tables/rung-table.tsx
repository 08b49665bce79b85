import type { RungColumn } from '@schritt/core/document';
import { stepExpression } from '@schritt/core/notation';
import { fixed, stepSizeText } from '@schritt/core/text';
import { Fragment, memo, type MouseEvent, type ReactNode, useMemo } from 'react';
import { errorColumn, type NumberColumn } from '../math/number-column.tsx';
import { Mark } from '../plots/mark.tsx';
import type { KeyedResult } from '@schritt/plot';
import { methodMark } from '@schritt/plot/palette';
import { useStudyState, useStudyValue } from '../state/study-state.ts';
import { strike, withoutRungAt } from '../state/working-study.ts';
import { usePalette } from '../theme/use-palette.ts';
import { moveInRows } from './row-keys.ts';
import { RungCells, rungHeading, type ValueChoice } from './rung-cells.tsx';
import './rung-table.css';

/** A step size as the part of the interval that it is; the number itself where it is none. */
function SizeAsPart({ h, steps }: { readonly h: number; readonly steps: number }): ReactNode {
  const { problem } = useStudyState('problem');
  return (problem === null ? null : stepExpression(problem, steps)?.text) ?? stepSizeText(h);
}

interface RungTableProps {
  readonly keyed: KeyedResult;
  readonly columns: readonly RungColumn[];
  readonly value: ValueChoice;
  /** Whether a step size is written as the part of the interval that it is. */
  readonly asParts: boolean;
  readonly onClick: (event: MouseEvent) => void;
}

type MethodOfTable = KeyedResult['result']['methods'][number];

/** Names of the methods above names of the columns. */
function RungHead({ keyed, columns, value }: Pick<RungTableProps, 'keyed' | 'columns' | 'value'>): ReactNode {
  const { methods, error } = useStudyState('methods', 'error');
  return (
    <thead>
      <tr>
        <td colSpan={2} />
        {keyed.result.methods.map((_, i) => {
          const key = keyed.keys[i] ?? '';
          return (
            <th key={key} colSpan={columns.length} scope="colgroup" className="method">
              <Mark index={methods.placeOf(key)} /> {methods.titleOf(key)}
            </th>
          );
        })}
        <td />
      </tr>
      <tr>
        <th scope="col">h</th>
        <th scope="col">N</th>
        {keyed.result.methods.map((_, i) => (
          <Fragment key={keyed.keys[i]}>
            {columns.map((column, k) => (
              <th key={column} scope="col" className={k === 0 ? 'first' : ''}>
                {rungHeading(column, { scale: error.scale, value })}
              </th>
            ))}
          </Fragment>
        ))}
        <td />
      </tr>
    </thead>
  );
}

/** The size of a step and its number: of all methods, which share them. */
function SizeCells({
  first,
  asParts,
}: {
  readonly first: MethodOfTable['rungs'][number];
  readonly asParts: boolean;
}): ReactNode {
  return (
    <>
      <th scope="row" title={first.remark ?? String(first.h)}>
        <span data-full={String(first.h)}>
          {asParts && first.divides ? <SizeAsPart h={first.h} steps={first.steps} /> : stepSizeText(first.h)}
        </span>
        {!first.divides && <span className="off"> ≈</span>}
      </th>
      <td className="quiet">{first.steps}</td>
    </>
  );
}

/** The least-squares slope of each method, over the step sizes of its fit. */
function SlopeRow({ keyed, columns }: Pick<RungTableProps, 'keyed' | 'columns'>): ReactNode {
  const { setPointed } = useStudyState('setPointed');
  return (
    <tfoot>
      <tr>
        <th scope="row" colSpan={2}>
          least-squares slope
        </th>
        {keyed.result.methods.map(({ fit }, i) => (
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
  );
}

/** Takes a step size out of the study. */
const RemoveButton = memo(function RemoveButton({
  rung,
  h,
}: {
  readonly rung: number;
  readonly h: number;
}): ReactNode {
  const { edit } = useStudyState('edit');
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-label={`Remove h = ${stepSizeText(h)}`}
      title="Remove this h"
      onClick={(event) => {
        event.stopPropagation();
        edit('ladder', (now) => withoutRungAt(now, rung));
      }}
    >
      ×
    </button>
  );
});

/** A row for every step size: what each method has made of it. */
function RungRow({
  keyed,
  columns,
  value,
  asParts,
  errors,
  row,
  first,
}: Pick<RungTableProps, 'keyed' | 'columns' | 'value' | 'asParts'> & {
  /** How the errors of each method are written. */
  readonly errors: readonly NumberColumn[];
  readonly row: number;
  /** What is the same for all methods. */
  readonly first: MethodOfTable['rungs'][number];
}): ReactNode {
  const { methods, pointed, error, independent } = useStudyState(
    'methods',
    'pointed',
    'error',
    'independent',
  );
  const palette = usePalette();
  const { rung, isChosen, choose } = useStudyValue(({ chosen }) => {
    const own = chosen.rows[row] ?? row;
    return { rung: own, isChosen: own === chosen.rung, choose: chosen.choose };
  });
  const isPointed = (key: string): boolean =>
    pointed !== null && (pointed.key === null || pointed.key === key) && pointed.rows.includes(row);
  const isWindowEnd = ({ fit }: MethodOfTable): boolean =>
    fit !== null && (row === Math.min(...fit.rungs) || row === Math.max(...fit.rungs));
  return (
    <tr
      className={isChosen ? 'chosen' : ''}
      aria-selected={isChosen}
      tabIndex={0}
      onClick={() => choose(rung)}
      onKeyDown={(event) => {
        if (event.target === event.currentTarget && (event.key === 'Enter' || event.key === ' ')) {
          event.preventDefault();
          choose(rung);
        } else moveInRows(event);
      }}
    >
      <SizeCells first={first} asParts={asParts} />
      {keyed.result.methods.map((method, i) => {
        const key = keyed.keys[i] ?? '';
        const result = method.rungs[row];
        if (result === undefined) return <td key={key} colSpan={columns.length} className="first quiet" />;
        return (
          <RungCells
            key={key}
            rung={result}
            previous={method.rungs[row - 1] ?? null}
            columns={columns}
            value={value}
            scale={error.scale}
            errors={errors[i]!}
            independent={independent}
            title={methods.titleOf(key)}
            color={methodMark(palette, methods.placeOf(key)).color}
            pointed={isPointed(key)}
            windowEnd={isWindowEnd(method)}
            onStrike={() => methods.change(key, 'strike', (working) => strike(working, rung))}
            onWindow={() => methods.moveWindow(key, rung)}
          />
        );
      })}
      <td className="remove">
        <RemoveButton rung={rung} h={first.h} />
      </td>
    </tr>
  );
}

/** The step sizes of a study against its methods. */
export function RungTable({ keyed, columns, value, asParts, onClick }: RungTableProps): ReactNode {
  const rows = useStudyValue(({ chosen }) => chosen.rows);
  const { methods, findings } = keyed.result;
  const lead = methods.reduce<MethodOfTable['rungs']>(
    (longest, { rungs }) => (rungs.length > longest.length ? rungs : longest),
    [],
  );
  const errors = useMemo(
    () => methods.map(({ rungs }) => errorColumn(rungs.map(({ error }) => error))),
    [methods],
  );
  const isUnjudged = findings.some(({ kind }) => kind === 'wrong exact');
  return (
    <table
      className={['rung-table', lead.length > 8 ? 'dense' : '', isUnjudged ? 'unjudged' : ''].join(' ')}
      onClick={onClick}
    >
      <RungHead keyed={keyed} columns={columns} value={value} />
      <tbody>
        {lead.map((first, row) => (
          <RungRow
            key={rows[row] ?? row}
            keyed={keyed}
            columns={columns}
            value={value}
            asParts={asParts}
            errors={errors}
            row={row}
            first={first}
          />
        ))}
      </tbody>
      {columns.includes('error') && methods.some(({ fit }) => fit !== null) && (
        <SlopeRow keyed={keyed} columns={columns} />
      )}
    </table>
  );
}
