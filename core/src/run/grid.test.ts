import { Refusal } from '../text/refusal.ts';
import { layGrid, MAX_STEPS, stepSizeAt, timeAt } from './grid.ts';

test.each([
  // written so that no binary number is exact, and still meant to divide
  [0, 1, 0.1, 10],
  [0, 3, 0.3, 10],
  [1, 2, 1 / 3, 3],
  [0, 1e6, 0.1, 1e7],
  [-1, 1, 0.002, 1000],
])('[%f, %f] is divided by %f into %d steps', (start, end, h, steps) => {
  for (const lastStep of ['fit', 'shorten', 'overrun'] as const) {
    const grid = layGrid(start, end, { h }, lastStep);
    expect(grid).toEqual({ start, h, steps, shorter: null, wished: h, divides: true });
  }
});

test.each([
  // an interval that misses a whole number of steps by a part in 10^9 is not divided
  [1, 0.1 * (1 + 1e-9)],
  [1, 0.3],
  [1, 0.7],
  [2, 1.9999],
])('an interval of length %f is not divided by %f', (length, h) => {
  const fit = layGrid(0, length, { h });
  expect(fit.divides).toBe(false);
  expect(fit.h).toBe(length / fit.steps);
  expect(fit.wished).toBe(h);
  const short = layGrid(0, length, { h }, 'shorten');
  expect(short.h).toBe(h);
  expect(short.shorter).toBeGreaterThan(0);
  expect(short.shorter).toBeLessThan(h);
  expect(timeAt(short, short.steps)).toBeCloseTo(length, 12);
  const over = layGrid(0, length, { h }, 'overrun');
  expect(over.shorter).toBeNull();
  expect(timeAt(over, over.steps)).toBeGreaterThan(length);
  expect(timeAt(over, over.steps - 1)).toBeLessThan(length);
});

test('the size of a last step that is shorter, and of the others', () => {
  const grid = layGrid(0, 1, { h: 0.3 }, 'shorten');
  expect([0, 2, 3].map((n) => stepSizeAt(grid, n))).toEqual([0.3, 0.3, grid.shorter]);
  expect(stepSizeAt(layGrid(0, 1, { h: 0.3 }, 'overrun'), 3)).toBe(0.3);
});

test('times are products, never running sums', () => {
  const grid = layGrid(0, 1, { steps: 10 });
  expect([1, 3, 7].map((n) => timeAt(grid, n))).toEqual([0.1, 3 * 0.1, 7 * 0.1]);
});

test.each([
  [{ h: 0 }, 'the step size must be a positive number, not 0'],
  [{ h: NaN }, 'the step size must be a positive number, not NaN'],
  [{ h: Infinity }, 'the step size must be a positive number, not Infinity'],
  [{ steps: 0 }, 'the number of steps must be a positive integer, not 0'],
  [{ steps: 2.5 }, 'the number of steps must be a positive integer, not 2.5'],
  [{ steps: MAX_STEPS + 1 }, 'this step size needs 100,000,001 steps; at most 100,000,000 are allowed'],
  [{ h: 1e-9 }, 'this step size needs 1,000,000,000 steps; at most 100,000,000 are allowed'],
])('%j is refused: %s', (gridRequest, message) => {
  expect(() => layGrid(0, 1, gridRequest)).toThrow(new Refusal('grid', message));
});

test.each([
  // of 1 and 0.5 the second is nearer to 0.7
  [0, 1, 0.7, 2],
  [1, 2, 0.7, 2],
  [-1, 1, Math.PI / 7, 5],
  [0, 1, 0.41, 3],
  // as near to both: the smaller step
  [0, 1, 0.75, 2],
])('on [%d, %d] the step size nearest to %d that divides makes %d steps', (start, end, h, steps) => {
  const grid = layGrid(start, end, { h }, 'fit');
  expect(grid).toMatchObject({ steps, divides: false });
  const off = (n: number): number => Math.abs((end - start) / n - h);
  for (const other of [steps - 1, steps + 1].filter((n) => n > 0))
    expect(off(other)).toBeGreaterThanOrEqual(off(steps));
});

test('far from zero a step divides up to the rounding of the ends', () => {
  expect(layGrid(1000000.1, 1000000.4, { h: 0.1 }, 'overrun')).toMatchObject({ divides: true, steps: 3 });
  expect(layGrid(1000000.1, 1000000.4, { h: 0.11 }, 'overrun').divides).toBe(false);
});
