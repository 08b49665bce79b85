/** Linear equations whose numbers have names of their own. */
export interface Elimination {
  readonly n: number;
  /** The name of an entry of the matrix. */
  readonly entry: (row: number, column: number) => string;
  /** The name of a number of the right side, which becomes one of the solution. */
  readonly right: (row: number) => string;
  /** The name of what becomes true where the matrix is singular. */
  readonly isSingular: string;
}

/**
 * Lines that solve linear equations by elimination with partial pivoting, every operation written out: the same ones in the
 * same order as those of `solveDense`.
 */
export function eliminationLines({ n, entry, right, isSingular }: Elimination): readonly string[] {
  const from = (first: number): readonly number[] =>
    Array.from({ length: Math.max(0, n - first) }, (_, i) => first + i);
  const exchanged = (a: string, b: string): string => `{ const other = ${a}; ${a} = ${b}; ${b} = other; }`;
  const label = `${isSingular}Elimination`;
  const forward = from(0).flatMap((column) => {
    const below = from(column + 1);
    const head = entry(column, column);
    return [
      `{ let pivot = ${column}, largest = Math.abs(${head});`,
      ...below.map(
        (row) =>
          `if (Math.abs(${entry(row, column)}) > largest) { pivot = ${row}; largest = Math.abs(${entry(row, column)}); }`,
      ),
      `if (!(largest > 0 && largest < Infinity)) { ${isSingular} = true; break ${label}; }`,
      ...below.map(
        (row) =>
          `if (pivot === ${row}) { ${[
            ...from(column).map((k) => exchanged(entry(row, k), entry(column, k))),
            exchanged(right(row), right(column)),
          ].join(' ')} }`,
      ),
      ...below.map(
        (row) =>
          `{ const factor = ${entry(row, column)} / ${head}; if (factor !== 0) { ${[
            ...from(column + 1).map((k) => `${entry(row, k)} -= factor * ${entry(column, k)};`),
            `${right(row)} -= factor * ${right(column)};`,
          ].join(' ')} } }`,
      ),
      '}',
    ];
  });
  const back = [...from(0)]
    .reverse()
    .flatMap((row) => [
      ...from(row + 1).map((k) => `${right(row)} -= ${entry(row, k)} * ${right(k)};`),
      `${right(row)} /= ${entry(row, row)};`,
    ]);
  return [`${label}: {`, ...forward, ...back, '}'];
}
