/** The inverse of a matrix by elimination with pivots; null for a singular one. */
export function inverseOf(matrix: readonly (readonly number[])[]): readonly (readonly number[])[] | null {
  const n = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...row.map((_, j) => (i === j ? 1 : 0))]);
  for (let k = 0; k < n; k += 1) {
    let best = k;
    for (let i = k + 1; i < n; i += 1) if (Math.abs(rows[i]![k]!) > Math.abs(rows[best]![k]!)) best = i;
    const pivot = rows[best]!;
    if (!(Math.abs(pivot[k]!) > 1e-14)) return null;
    [rows[k], rows[best]] = [pivot, rows[k]!];
    const scale = pivot[k]!;
    for (let j = 0; j < 2 * n; j += 1) pivot[j]! /= scale;
    for (let i = 0; i < n; i += 1) {
      const by = rows[i]![k]!;
      if (i !== k && by !== 0) for (let j = 0; j < 2 * n; j += 1) rows[i]![j]! -= by * pivot[j]!;
    }
  }
  return rows.map((row) => row.slice(n));
}
