import {
  type Amount,
  amountOf,
  amountText,
  fraction,
  type Inspection,
  multistepText,
  type Tableau,
  tableauText,
} from '@schritt/core/inspect';
import { Button, Input } from 'antd';
import { memo, type ReactNode, useState } from 'react';

/** An amount as a fraction, or as a decimal where that is shorter. */
function cellText(amount: Amount): string {
  const [fraction, decimal] = [amountText(amount), String(amount.value)];
  return decimal.length < fraction.length ? decimal : fraction;
}

/** A number or a fraction as it is typed into a cell; null for anything else. */
export function cellAmount(text: string): Amount | null {
  const whole = /^\s*(-?\d+)\s*(?:\/\s*(\d+))?\s*$/.exec(text);
  if (whole !== null) {
    const [, top = '0', below = '1'] = whole;
    return Number(below) === 0 ? null : fraction(BigInt(top), BigInt(below));
  }
  return /^\s*-?(\d+\.?\d*|\.\d+)(e-?\d+)?\s*$/i.test(text) ? amountOf(Number(text)) : null;
}

/** The cells of a grid as texts, row by row. */
type Cells = readonly (readonly string[])[];

/** The cells of a tableau, with one row of weights or two. */
function cellsOf({ c, A, b }: Tableau, embedded: readonly Amount[] | null): Cells {
  return [
    ...A.map((row, i) => [c[i], ...row].map((amount) => (amount === undefined ? '0' : cellText(amount)))),
    ['', ...b.map(cellText)],
    ...(embedded === null ? [] : [['', ...embedded.map(cellText)]]),
  ];
}

/** Rows of weights below a tableau: one, or two with an embedded formula; none below other coefficients. */
type Weights = 0 | 1 | 2;

/**
 * The tableau of a grid, with the weights of an embedded formula if it has two rows of them; null where a cell is no
 * number.
 */
export function tableauOfCells(
  cells: Cells,
  weights: Weights = 1,
): { readonly tableau: Tableau; readonly embedded: readonly Amount[] | null } | null {
  const stages = cells.length - weights;
  const amounts = cells.map((row, i) =>
    row.map((text, j) => (i >= stages && j === 0 ? fraction(0) : cellAmount(text))),
  );
  const known = amounts.map((row) => row.flatMap((amount) => amount ?? []));
  if (known.some((row, i) => row.length < (cells[i]?.length ?? 0))) return null;
  const rows = known.slice(0, stages);
  const [b = [], embedded = null] = known.slice(stages).map((row) => row.slice(1));
  return {
    tableau: { c: rows.map(([first]) => first ?? fraction(0)), A: rows.map((row) => row.slice(1)), b },
    embedded,
  };
}

function resized(cells: Cells, stages: number, weights: Weights): Cells {
  const before = cells.length - weights;
  const row = (i: number): readonly string[] => {
    const own = i >= stages ? cells[before + i - stages] : i < before ? cells[i] : undefined;
    return Array.from({ length: stages + 1 }, (_, j) => own?.[j] ?? (i >= stages && j === 0 ? '' : '0'));
  };
  return Array.from({ length: stages + weights }, (_, i) => row(i));
}

interface GridProps {
  readonly inspection: Inspection;
  readonly startWith: string | null;
  readonly onText: (text: string) => void;
}

/** The cells of a method's grid; none of a method without one. */
function methodCells({ tableau, multistep, embedded }: Inspection): Cells {
  const both = embedded?.tableau ?? null;
  if (both !== null) return cellsOf(both, both.embedded);
  if (tableau !== null) return cellsOf(tableau, null);
  if (multistep === null) return [];
  const { alpha, next, beta } = multistep;
  return [alpha.map(cellText), [cellText(next), ...beta.map(cellText)]];
}

/** The text of the method that cells give; null where one of them is no number. */
function textOfCells(cells: Cells, weights: Weights, startWith: string | null): string | null {
  if (weights > 0) {
    const grid = tableauOfCells(cells, weights);
    return grid && tableauText(grid.tableau, grid.embedded);
  }
  const [alpha, slopes] = cells.map((row) => row.map(cellAmount));
  const [next, ...beta] = slopes ?? [];
  if (alpha === undefined || next == null || [...alpha, ...beta].some((amount) => amount === null))
    return null;
  return multistepText(
    { alpha: alpha.flatMap((a) => a ?? []), beta: beta.flatMap((b) => b ?? []), next },
    startWith,
  );
}

/** What a cell is: an entry of a tableau, or a factor of a multistep formula. */
function cellLabel(stages: number | null, i: number, j: number): string {
  if (stages !== null && i >= stages) return i === stages ? `b ${j}` : `embedded b ${j}`;
  if (stages !== null) return j === 0 ? `c ${i + 1}` : `a ${i + 1} ${j}`;
  if (i === 0) return `factor of y[n-${j}]`;
  return j === 0 ? 'factor of f[n+1]' : `factor of f[n-${j - 1}]`;
}

function CoefficientCell({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}): ReactNode {
  const isWrong = cellAmount(value) === null;
  return (
    <Input
      size="small"
      className="coefficient"
      variant="borderless"
      aria-label={label}
      aria-invalid={isWrong}
      status={isWrong ? 'error' : ''}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

/** The rows of cells: those of a tableau have a blank below c, those of a multistep formula their factors in front. */
function CoefficientRows({
  cells,
  weights,
  onChange,
}: {
  readonly cells: Cells;
  readonly weights: Weights;
  readonly onChange: (i: number, j: number, value: string) => void;
}): ReactNode {
  const isTableau = weights > 0;
  const stages = cells.length - weights;
  return cells.map((row, i) => (
    <tr key={i} className={isTableau && i === stages ? 'weights' : ''}>
      {!isTableau && <th scope="row">{i === 0 ? 'y' : 'h f'}</th>}
      {!isTableau && i === 0 && <td className="quiet">n+1:</td>}
      {row.map((value, j) => (
        <td key={j}>
          {!(isTableau && i >= stages && j === 0) && (
            <CoefficientCell
              label={cellLabel(isTableau ? stages : null, i, j)}
              value={value}
              onChange={(text) => onChange(i, j, text)}
            />
          )}
        </td>
      ))}
    </tr>
  ));
}

/** The coefficients of a method as a small grid; what is typed there becomes the text. */
export const CoefficientGrid = memo(function CoefficientGrid({
  inspection,
  startWith,
  onText,
}: GridProps): ReactNode {
  const { tableau, multistep } = inspection;
  const [draft, setDraft] = useState<{ readonly of: Inspection; readonly cells: Cells } | null>(null);
  if (tableau === null && multistep === null) return null;
  const isTableau = tableau !== null;
  const weights: Weights = !isTableau ? 0 : inspection.embedded?.tableau == null ? 1 : 2;
  const isChanged = draft?.of === inspection;
  const cells = isChanged ? draft.cells : methodCells(inspection);
  const made = textOfCells(cells, weights, startWith);
  const put = (next: Cells): void => setDraft({ of: inspection, cells: next });
  const change = (i: number, j: number, text: string): void =>
    put(cells.map((row, k) => (k === i ? row.map((old, m) => (m === j ? text : old)) : row)));
  return (
    <section aria-label="Coefficients">
      <div className="statement-head">
        <h2 className="label">{isTableau ? 'Butcher tableau' : 'Coefficients'}</h2>
        {isTableau && (
          <>
            <Button
              size="small"
              type="text"
              onClick={() => put(resized(cells, cells.length - weights + 1, weights))}
            >
              + stage
            </Button>
            {cells.length - weights > 1 && (
              <Button
                size="small"
                type="text"
                onClick={() => put(resized(cells, cells.length - weights - 1, weights))}
              >
                − stage
              </Button>
            )}
          </>
        )}
        {isChanged && (
          <>
            <Button size="small" disabled={made === null} onClick={() => made !== null && onText(made)}>
              Write as text
            </Button>
            <Button size="small" type="text" onClick={() => setDraft(null)}>
              Reset
            </Button>
          </>
        )}
      </div>
      <table className={isTableau ? 'coefficient-grid tableau' : 'coefficient-grid'}>
        <tbody>
          <CoefficientRows cells={cells} weights={weights} onChange={change} />
        </tbody>
      </table>
    </section>
  );
});
