import { linearTick, powerLabel } from './tick-text.ts';

/** The ticks of an axis as they are written. */
function written(from: number, distance: number, many: number): readonly string[] {
  const ticks = Array.from({ length: many }, (_, i) => from + i * distance);
  return ticks.map((value) => linearTick(value, ticks));
}

test.each([
  [0, 2, 3, ['0', '2', '4']],
  [-1, 0.5, 4, ['-1.0', '-0.5', '0', '0.5']],
  [0, 0.25, 3, ['0', '0.25', '0.50']],
  // 3 · 0.1 is not 0.3
  [0.1, 0.1, 3, ['0.1', '0.2', '0.3']],
  [1000, 500, 3, ['1,000', '1,500', '2,000']],
  [20.001, 0.001, 2, ['20.001', '20.002']],
  [0, 2e-5, 3, ['0', '2·10⁻⁵', '4·10⁻⁵']],
  [-1e-7, 5e-8, 3, ['-10⁻⁷', '-5·10⁻⁸', '0']],
  [1e7, 5e6, 3, ['10⁷', '1.5·10⁷', '2.0·10⁷']],
  [9e9, 2.5e8, 3, ['9.00·10⁹', '9.25·10⁹', '9.50·10⁹']],
])('ticks from %d, %d apart', (from, distance, many, texts) => {
  expect(written(from, distance, many)).toEqual(texts);
});

test('a tick that is alone has the digits of its own', () => {
  expect([0.25, 40, 3e-9].map((value) => linearTick(value, [value]))).toEqual(['0.25', '40', '3·10⁻⁹']);
});

test('powers of ten have a mantissa only where it is not 1', () => {
  expect([1e-2, 2e-3, 1, -1e4].map((value) => powerLabel(value, 1))).toEqual([
    '10⁻²',
    '2·10⁻³',
    '10⁰',
    '-10⁴',
  ]);
});
