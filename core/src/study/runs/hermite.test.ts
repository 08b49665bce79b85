import { hermite } from './hermite.ts';

test('a cubic through values and slopes is found again', () => {
  const p = (t: number): number => 2 * t ** 3 - t ** 2 + 5 * t - 7;
  const slope = (t: number): number => 6 * t ** 2 - 2 * t + 5;
  const knot = (t: number) => ({ t, values: [p(t)], slopes: [slope(t)] });
  expect(hermite(knot(0.5), knot(2), 1.3)[0]).toBeCloseTo(p(1.3), 12);
});
