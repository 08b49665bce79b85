import { dividingSizes, labelled, placeOfSize, roundSizes, rulerScale, sizeAtPlace } from './scale.ts';

const scale = rulerScale([2, 1, 0.5, 0.03125], 10, 910);

test('fine stands left of coarse, equal ratios take equal room, and all rungs are inside', () => {
  const [a, b, c, d] = [2, 1, 0.5, 0.03125].map((h) => placeOfSize(scale, h));
  expect(a).toBeLessThan(910);
  expect(d).toBeGreaterThan(10);
  expect(a! - b!).toBeCloseTo(b! - c!, 9);
  expect(c! - d!).toBeCloseTo(4 * (b! - c!), 9);
});

test('round sizes are 1, 2 and 5 times powers of ten within the scale', () => {
  const sizes = roundSizes(scale);
  expect(sizes).toEqual(expect.arrayContaining([0.05, 0.1, 0.2, 0.5, 1, 2]));
  for (const h of sizes) expect([1, 2, 5]).toContain(Number(h.toExponential().split('e')[0]));
  // over thirty decades every third power has room
  expect(roundSizes(rulerScale([1, 1e-30], 0, 900)).length).toBeLessThan(16);
});

test('ticks of dividing sizes divide, and stop where they would run together', () => {
  const sizes = dividingSizes(scale, 8);
  expect(sizes.length).toBeGreaterThan(20);
  sizes.forEach((h, i) => {
    expect(8 / h).toBeCloseTo(Math.round(8 / h), 9);
    if (i > 0) expect(placeOfSize(scale, sizes[i - 1]!) - placeOfSize(scale, h)).toBeGreaterThanOrEqual(3);
  });
});

test('the size at a place is the one whose place that is', () => {
  for (const h of [0.05, 0.3, 1.7]) expect(sizeAtPlace(scale, placeOfSize(scale, h))).toBeCloseTo(h, 12);
});

test('labels never overprint: the first ones have the right of way', () => {
  expect(labelled([100, 110, 140, 90], [20, 20, 20, 20])).toEqual([true, false, true, false]);
  expect(labelled([100, 110], [2, 2])).toEqual([true, true]);
});
