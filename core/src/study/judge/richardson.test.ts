import { extrapolate } from './richardson.ts';

test('three levels of a + b h^p give p and a, at any ratio of steps', () => {
  const level = (h: number) => ({ h, values: [7 - 3 * h ** 2.5, 9] });
  for (const [h1, h2, h3] of [
    [0.4, 0.2, 0.1],
    [0.3, 0.1, 0.05],
    [0.25, 0.2, 0.02],
  ] as const) {
    const three = extrapolate(level(h1), level(h2), level(h3), [0], 1e-15)!;
    expect(three.order).toBeCloseTo(2.5, 9);
    expect(three.values[0]).toBeCloseTo(7, 9);
    expect(three.error).toBeCloseTo(3 * h3 ** 2.5, 9);
  }
  expect(extrapolate(level(0.1), level(0.2), level(0.4), [0], 1e-15)).toBeNull();
  expect(extrapolate(level(0.4), level(0.2), level(0.1), [1], 1e-15)).toBeNull();
});
