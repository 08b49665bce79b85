import { extrapolate } from './richardson.ts';

test('three levels of a + b h^p give p and a, at any ratio of steps', () => {
  const level = (h: number) => ({ h, values: [7 - 3 * h ** 2.5, 9] });
  for (const [h1, h2, h3] of [
    [0.4, 0.2, 0.1],
    [0.3, 0.1, 0.05],
    [0.25, 0.2, 0.02],
  ] as const) {
    const three = extrapolate([level(h1), level(h2), level(h3)], [0], 1e-15)!;
    expect(three.order).toBeCloseTo(2.5, 9);
    expect(three.values[0]).toBeCloseTo(7, 9);
    expect(three.error).toBeCloseTo(3 * h3 ** 2.5, 9);
  }
  expect(extrapolate([level(0.1), level(0.2), level(0.4)], [0], 1e-15)).toBeNull();
  expect(extrapolate([level(0.4), level(0.2), level(0.1)], [1], 1e-15)).toBeNull();
});

test('differences of the size of rounding say nothing, nor does an order outside of all methods', () => {
  const level = (h: number, order: number) => ({ h, values: [1 + h ** order] });
  const three = (order: number, unit: number) =>
    extrapolate([level(0.4, order), level(0.2, order), level(0.1, order)], [0], unit);
  // the differences are 0.2 and 0.1
  expect(three(1, 0.09)!.order).toBeCloseTo(1, 9);
  expect(three(1, 0.15)).toBeNull();
  expect(three(1, 0.25)).toBeNull();
  expect(three(0.1, 1e-15)!.order).toBeCloseTo(0.1, 9);
  expect(three(0.04, 1e-15)).toBeNull();
  const at = (h: number, value: number) => ({ h, values: [value] });
  // 2^32 between the differences
  expect(extrapolate([at(0.4, 2 ** 32), at(0.2, 1), at(0.1, 0)], [0], 1e-15)).toBeNull();
  expect(extrapolate([at(0.4, Infinity), at(0.2, 1), at(0.1, 0)], [0], 1e-15)).toBeNull();
});
