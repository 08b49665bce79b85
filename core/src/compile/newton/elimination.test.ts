import { generatedFunction } from '../generated.ts';
import { eliminationLines } from './elimination.ts';
import { solveDense } from './linear-system.ts';

/** The written-out elimination as a function of the numbers of a matrix and a right side; null where it is singular. */
function writtenOut(n: number): (m: Float64Array, r: Float64Array) => Float64Array | null {
  const places = Array.from({ length: n }, (_, i) => i);
  const lines = eliminationLines({
    n,
    entry: (row, column) => `m${row}_${column}`,
    right: (row) => `r${row}`,
    isSingular: 'singular',
  });
  return generatedFunction(
    [
      'function (M, R) {',
      'let singular = false;',
      ...places.flatMap((i) => places.map((j) => `let m${i}_${j} = M[${i * n + j}];`)),
      ...places.map((i) => `let r${i} = R[${i}];`),
      ...lines,
      `return singular ? null : Float64Array.of(${places.map((i) => `r${i}`).join(', ')});`,
      '}',
    ].join('\n'),
  );
}

/** Numbers between -1 and 1 that are the same in every run, some of them 0. */
function* numbers(): Generator<number, never> {
  for (let seed = 1; ; seed = (seed * 48_271) % 2_147_483_647)
    yield seed % 7 === 0 ? 0 : seed / 1_073_741_823.5 - 1;
}

test.each([1, 2, 3, 4])('elimination written out for %i unknowns has the bits of the loops', (n) => {
  const solve = writtenOut(n);
  const source = numbers();
  let singular = 0;
  for (let round = 0; round < 2_000; round += 1) {
    const m = Float64Array.from({ length: n * n }, () => source.next().value);
    const r = Float64Array.from({ length: n }, () => source.next().value);
    const found = solve(m.slice(), r.slice());
    const isSolved = solveDense(m, r, n);
    if (!isSolved) singular += 1;
    expect(found).toEqual(isSolved ? r : null);
  }
  // both ends of the test are reached
  expect(singular).toBeLessThan(1_000);
  expect(n > 2 || singular > 0).toBe(true);
});

test.each([
  ['zeros', [0, 0, 0, 0]],
  ['the same row twice', [1, 2, 1, 2]],
  ['a number that is not finite', [Infinity, 1, 1, 1]],
  ['what is no number', [NaN, 1, 1, 1]],
])('a matrix of %s is singular', (_, entries) => {
  expect(writtenOut(2)(Float64Array.from(entries), Float64Array.of(1, 1))).toBeNull();
});
