import { atom, type TextPart } from '../../formula/printer.ts';

/** Most unknown numbers of one step: their matrix is eliminated cell by cell. */
export const MAX_UNKNOWNS = 6;

/** How often the matrix is made anew, and how many corrections are taken with each: one unknown needs no matrix kept. */
const ROUNDS = { one: { matrices: 6, corrections: 1 }, many: { matrices: 3, corrections: 3 } } as const;

/** What the columns of Newton's method are made with. */
export interface NewtonColumns {
  /** Cells of the first guess. */
  readonly guess: readonly TextPart[];
  /** Names of the unknowns, for the heads of the columns. */
  readonly names: readonly string[];
  /** The formulas whose values the unknowns are, at cells of them. */
  readonly formulas: (at: readonly TextPart[]) => readonly TextPart[];
  /** Puts a formula into a column of its own, and answers its cell. */
  readonly put: (title: string, formula: string) => TextPart;
}

/** Cells of the unknowns, and those of the formulas there. */
interface Iterate {
  readonly at: readonly TextPart[];
  readonly values: readonly TextPart[];
}

/** A matrix by rows; its part below the diagonal holds the factors of the rows above. */
type Eliminated = readonly (readonly TextPart[])[];

/**
 * The matrix of 1 minus the derivatives of the formulas, as difference quotients, eliminated without exchange of rows: what
 * is off in it slows the corrections down, and is in no value that they come to.
 */
function matrixAt(
  { names, formulas, put }: NewtonColumns,
  { at, values }: Iterate,
  label: string,
): Eliminated {
  const changes = at.map(({ text }, j) =>
    put(`change of ${names[j]}, ${label}`, `0.0000001*(1+ABS(${text}))`),
  );
  const slopes = at.map((_, j) => {
    const changed = at.map((cell, k) => (k === j ? atom(`(${cell.text}+${changes[j]?.text})`) : cell));
    return formulas(changed).map(({ text }, i) =>
      put(
        `matrix ${i + 1},${j + 1}, ${label}`,
        `${i === j ? '1' : '0'}-((${text})-${values[i]?.text})/${changes[j]?.text}`,
      ),
    );
  });
  const rows = at.map((_, i) => at.map((__, j) => slopes[j]?.[i] ?? atom('0')));
  for (let k = 0; k < rows.length; k += 1)
    for (let i = k + 1; i < rows.length; i += 1) {
      const [pivot, row] = [rows[k] ?? [], rows[i] ?? []];
      const factor = put(`factor ${i + 1},${k + 1}, ${label}`, `${row[k]?.text}/${pivot[k]?.text}`);
      row[k] = factor;
      for (let j = k + 1; j < row.length; j += 1)
        row[j] = put(
          `eliminated ${i + 1},${j + 1}, ${label}`,
          `${row[j]?.text}-${factor.text}*${pivot[j]?.text}`,
        );
    }
  return rows;
}

/** The unknowns after one correction. */
function corrected(
  { names, put }: NewtonColumns,
  matrix: Eliminated,
  { at, values }: Iterate,
  label: string,
): readonly TextPart[] {
  const right: TextPart[] = [];
  at.forEach((cell, i) => {
    const above = right.map((known, k) => `-${matrix[i]?.[k]?.text}*${known.text}`).join('');
    right.push(put(`remainder ${i + 1}, ${label}`, `(${values[i]?.text}-${cell.text})${above}`));
  });
  const corrections: TextPart[] = [];
  for (let i = at.length - 1; i >= 0; i -= 1) {
    const behind = corrections
      .map((known, k) => `-${matrix[i]?.[at.length - 1 - k]?.text}*${known.text}`)
      .join('');
    corrections.push(
      put(`correction of ${names[i]}, ${label}`, `(${right[i]?.text}${behind})/${matrix[i]?.[i]?.text}`),
    );
  }
  corrections.reverse();
  return at.map(({ text }, i) => put(`${names[i]}, ${label}`, `${text}+${corrections[i]?.text}`));
}

/**
 * Newton's method for the unknowns of one step in a fixed number of corrections, in columns beside each other, and a column of
 * how far the last values are from their formulas.
 *
 * @returns the cells of the last values
 */
export function newtonColumns(parts: NewtonColumns): readonly TextPart[] {
  const { guess, names, formulas, put } = parts;
  const { matrices, corrections } = guess.length === 1 ? ROUNDS.one : ROUNDS.many;
  const iterate = (at: readonly TextPart[], label: string): Iterate => ({
    at,
    values: formulas(at).map(({ text }, i) => put(`formula of ${names[i]}, ${label}`, text)),
  });
  let count = 0;
  let now = iterate(guess, 'guess');
  for (let round = 0; round < matrices; round += 1) {
    const matrix = matrixAt(parts, now, `iteration ${count + 1}`);
    for (let i = 0; i < corrections; i += 1) {
      count += 1;
      now = iterate(corrected(parts, matrix, now, `iteration ${count}`), `iteration ${count}`);
    }
  }
  const off = now.at.map(({ text }, i) => `ABS(${now.values[i]?.text}-${text})`).join(',');
  put(`residual of ${names.join(', ')}`, `MAX(${off})`);
  return now.at;
}
