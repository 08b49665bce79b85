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
import { type ReactNode, useState } from 'react';

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

function cellsOf({ c, A, b }: Tableau): Cells {
  return [
    ...A.map((row, i) => [c[i], ...row].map((amount) => (amount === undefined ? '0' : amountText(amount)))),
    ['', ...b.map(amountText)],
  ];
}

/** The tableau of a grid; null where a cell is no number. */
export function tableauOfCells(cells: Cells): Tableau | null {
  const amounts = cells.map((row, i) =>
    row.map((text, j) => (i === cells.length - 1 && j === 0 ? fraction(0) : cellAmount(text))),
  );
  const known = amounts.map((row) => row.flatMap((amount) => amount ?? []));
  if (known.some((row, i) => row.length < (cells[i]?.length ?? 0))) return null;
  const rows = known.slice(0, -1);
  return {
    c: rows.map(([first]) => first ?? fraction(0)),
    A: rows.map((row) => row.slice(1)),
    b: (known.at(-1) ?? []).slice(1),
  };
}

function resized(cells: Cells, stages: number): Cells {
  const row = (i: number): readonly string[] => {
    const own = i === stages ? cells.at(-1) : i < cells.length - 1 ? cells[i] : undefined;
    return Array.from({ length: stages + 1 }, (_, j) => own?.[j] ?? (i === stages && j === 0 ? '' : '0'));
  };
  return Array.from({ length: stages + 1 }, (_, i) => row(i));
}

/** The coefficients of a method as a small grid; what is typed there becomes the text. */
export function CoefficientGrid({
  inspection,
  startWith,
  onText,
}: {
  readonly inspection: Inspection;
  readonly startWith: string | null;
  readonly onText: (text: string) => void;
}): ReactNode {
  const { tableau, multistep } = inspection;
  const [draft, setDraft] = useState<{ readonly of: Inspection; readonly cells: Cells } | null>(null);
  if (tableau === null && multistep === null) return null;
  const own: Cells =
    tableau !== null
      ? cellsOf(tableau)
      : multistep === null
        ? []
        : [multistep.alpha.map(amountText), [amountText(multistep.next), ...multistep.beta.map(amountText)]];
  const cells = draft?.of === inspection ? draft.cells : own;
  const change = (i: number, j: number, text: string): void =>
    setDraft({
      of: inspection,
      cells: cells.map((row, k) => (k === i ? row.map((old, m) => (m === j ? text : old)) : row)),
    });
  const made = ((): string | null => {
    if (tableau !== null) {
      const grid = tableauOfCells(cells);
      return grid && tableauText(grid);
    }
    const [alpha, slopes] = cells.map((row) => row.map(cellAmount));
    const [next, ...beta] = slopes ?? [];
    if (alpha === undefined || next == null || [...alpha, ...beta].some((amount) => amount === null))
      return null;
    return multistepText(
      { alpha: alpha.flatMap((a) => a ?? []), beta: beta.flatMap((b) => b ?? []), next },
      startWith,
    );
  })();
  const isChanged = draft?.of === inspection;
  const cell = (i: number, j: number, label: string): ReactNode => (
    <Input
      size="small"
      className="coefficient"
      variant="borderless"
      aria-label={label}
      aria-invalid={cellAmount(cells[i]?.[j] ?? '') === null}
      status={cellAmount(cells[i]?.[j] ?? '') === null ? 'error' : ''}
      value={cells[i]?.[j] ?? ''}
      onChange={(event) => change(i, j, event.target.value)}
    />
  );
  return (
    <section aria-label="Coefficients">
      <div className="statement-head">
        <h2 className="label">{tableau === null ? 'Coefficients' : 'Butcher tableau'}</h2>
        {tableau !== null && (
          <>
            <Button
              size="small"
              type="text"
              onClick={() => setDraft({ of: inspection, cells: resized(cells, cells.length) })}
            >
              + stage
            </Button>
            {cells.length > 2 && (
              <Button
                size="small"
                type="text"
                onClick={() => setDraft({ of: inspection, cells: resized(cells, cells.length - 2) })}
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
      <table className={tableau === null ? 'coefficient-grid' : 'coefficient-grid tableau'}>
        <tbody>
          {tableau !== null
            ? cells.map((row, i) => (
                <tr key={i} className={i === cells.length - 1 ? 'weights' : ''}>
                  {row.map((_, j) => (
                    <td key={j}>
                      {i === cells.length - 1
                        ? j > 0 && cell(i, j, `b ${j}`)
                        : cell(i, j, j === 0 ? `c ${i + 1}` : `a ${i + 1} ${j}`)}
                    </td>
                  ))}
                </tr>
              ))
            : cells.map((row, i) => (
                <tr key={i}>
                  <th scope="row">{i === 0 ? 'y' : 'h f'}</th>
                  {i === 0 && <td className="quiet">n+1:</td>}
                  {row.map((_, j) => (
                    <td key={j}>
                      {cell(
                        i,
                        j,
                        i === 0
                          ? `factor of y[n-${j}]`
                          : j === 0
                            ? 'factor of f[n+1]'
                            : `factor of f[n-${j - 1}]`,
                      )}
                    </td>
                  ))}
                </tr>
              ))}
        </tbody>
      </table>
    </section>
  );
}
