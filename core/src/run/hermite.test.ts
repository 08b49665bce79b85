import { hermite } from './hermite.ts';

test.each([
  [2, (t: number): number => 2 * t ** 3 - t ** 2 + 5 * t - 7, (t: number): number => 6 * t ** 2 - 2 * t + 5],
  [3, (t: number): number => t ** 5 - 4 * t ** 2, (t: number): number => 5 * t ** 4 - 8 * t],
  [4, (t: number): number => 3 * t ** 7 - t, (t: number): number => 21 * t ** 6 - 1],
])('a polynomial through %d values and slopes is found again', (count, p, slope) => {
  const knots = [0.5, 0.7, 1.1, 1.4]
    .slice(0, count)
    .map((t) => ({ t, values: [p(t), 1], slopes: [slope(t), 0] }));
  const [value, constant] = hermite(knots, 0.63);
  expect(value).toBeCloseTo(p(0.63), 12);
  expect(constant).toBe(1);
});

test('between points of the exponential the error falls with the sixth power of their distance', () => {
  const error = (h: number): number => {
    const knots = [0, h, 2 * h].map((t) => ({ t, values: [Math.exp(t)], slopes: [Math.exp(t)] }));
    return Math.abs(hermite(knots, 1.5 * h)[0]! - Math.exp(1.5 * h));
  };
  expect(Math.log2(error(0.4) / error(0.2))).toBeCloseTo(6, 0);
});
