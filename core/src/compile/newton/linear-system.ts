/**
 * Solves M x = r for a dense matrix by elimination with partial pivoting; x replaces r and M is used up.
 *
 * @param m row by row, n*n
 * @returns false where the matrix is singular
 */
export function solveDense(m: Float64Array, r: Float64Array, n: number): boolean {
  for (let column = 0; column < n; column += 1) {
    let pivot = column;
    for (let row = column + 1; row < n; row += 1)
      if (Math.abs(m[row * n + column]!) > Math.abs(m[pivot * n + column]!)) pivot = row;
    const head = m[pivot * n + column]!;
    if (!(Math.abs(head) > 0) || !Number.isFinite(head)) return false;
    if (pivot !== column) {
      for (let k = column; k < n; k += 1) {
        const other = m[pivot * n + k]!;
        m[pivot * n + k] = m[column * n + k]!;
        m[column * n + k] = other;
      }
      const other = r[pivot]!;
      r[pivot] = r[column]!;
      r[column] = other;
    }
    for (let row = column + 1; row < n; row += 1) {
      const factor = m[row * n + column]! / head;
      if (factor === 0) continue;
      for (let k = column + 1; k < n; k += 1) m[row * n + k] = m[row * n + k]! - factor * m[column * n + k]!;
      r[row] = r[row]! - factor * r[column]!;
    }
  }
  for (let row = n - 1; row >= 0; row -= 1) {
    let sum = r[row]!;
    for (let k = row + 1; k < n; k += 1) sum -= m[row * n + k]! * r[k]!;
    r[row] = sum / m[row * n + row]!;
  }
  return true;
}

/**
 * The same for a banded matrix: entry (i, j) with |i - j| <= band is at m[i*(3*band + 1) + j - i + band];
 * the room on the right takes the fill-in of row exchanges.
 *
 * Source: G. H. Golub, C. F. Van Loan, Matrix Computations (4th ed., 2013), section 4.3.
 */
export function solveBanded(m: Float64Array, r: Float64Array, n: number, band: number): boolean {
  const stride = 3 * band + 1;
  const at = (row: number, column: number): number => row * stride + column - row + band;
  for (let column = 0; column < n; column += 1) {
    const lastRow = Math.min(n - 1, column + band);
    const lastColumn = Math.min(n - 1, column + 2 * band);
    let pivot = column;
    for (let row = column + 1; row <= lastRow; row += 1)
      if (Math.abs(m[at(row, column)]!) > Math.abs(m[at(pivot, column)]!)) pivot = row;
    const head = m[at(pivot, column)]!;
    if (!(Math.abs(head) > 0) || !Number.isFinite(head)) return false;
    if (pivot !== column) {
      for (let k = column; k <= lastColumn; k += 1) {
        const other = m[at(pivot, k)]!;
        m[at(pivot, k)] = m[at(column, k)]!;
        m[at(column, k)] = other;
      }
      const other = r[pivot]!;
      r[pivot] = r[column]!;
      r[column] = other;
    }
    for (let row = column + 1; row <= lastRow; row += 1) {
      const factor = m[at(row, column)]! / head;
      if (factor === 0) continue;
      for (let k = column + 1; k <= lastColumn; k += 1)
        m[at(row, k)] = m[at(row, k)]! - factor * m[at(column, k)]!;
      r[row] = r[row]! - factor * r[column]!;
    }
  }
  for (let row = n - 1; row >= 0; row -= 1) {
    let sum = r[row]!;
    const lastColumn = Math.min(n - 1, row + 2 * band);
    for (let k = row + 1; k <= lastColumn; k += 1) sum -= m[at(row, k)]! * r[k]!;
    r[row] = sum / m[at(row, row)]!;
  }
  return true;
}

/** The largest size of a list of numbers; 0 for none. */
export function largest(list: Float64Array): number {
  let most = 0;
  for (let i = 0; i < list.length; i += 1) most = Math.max(most, Math.abs(list[i]!));
  return most;
}
