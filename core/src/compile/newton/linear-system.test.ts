import { solveBanded, solveDense } from './linear-system.ts';

/** Numbers from a fixed sequence. */
let state = 7;
const random = (): number => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 2 ** 31 - 1;
};

test.each([1, 2, 5, 16])('a dense system of %i unknowns is solved, rows out of order included', (n) => {
  const m = Float64Array.from({ length: n * n }, random);
  // zeros on the diagonal make row exchanges necessary
  for (let i = 0; i < n && n > 1; i += 1) m[i * n + i] = 0;
  const x = Float64Array.from({ length: n }, random);
  const r = x.map((_, i) => x.reduce((sum, value, j) => sum + m[i * n + j]! * value, 0));
  expect(solveDense(m.slice(), r, n)).toBe(true);
  r.forEach((value, i) => expect(value).toBeCloseTo(x[i]!, 9));
});

test.each([
  [12, 1],
  [40, 2],
  [25, 5],
])('a banded system of %i unknowns and band %i agrees with the dense solution', (n, band) => {
  const stride = 3 * band + 1;
  const banded = new Float64Array(stride * n);
  const dense = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1)
    for (let j = Math.max(0, i - band); j <= Math.min(n - 1, i + band); j += 1) {
      const value = i === j ? 0.01 * random() : random();
      banded[i * stride + j - i + band] = value;
      dense[i * n + j] = value;
    }
  const a = Float64Array.from({ length: n }, random);
  const b = a.slice();
  expect([solveBanded(banded, a, n, band), solveDense(dense, b, n)]).toEqual([true, true]);
  a.forEach((value, i) => expect(Math.abs(value - b[i]!)).toBeLessThan(1e-8 * Math.max(1, Math.abs(b[i]!))));
});

test('singular systems are reported', () => {
  expect(solveDense(Float64Array.of(1, 2, 2, 4), Float64Array.of(1, 1), 2)).toBe(false);
  expect(solveDense(Float64Array.of(NaN), Float64Array.of(1), 1)).toBe(false);
  expect(solveBanded(new Float64Array(4 * 3), Float64Array.of(1, 1, 1), 3, 1)).toBe(false);
});
