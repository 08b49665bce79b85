import { isDrawable, panned, type ZoomAxis, zoomed } from './zoom.ts';

const LINEAR: ZoomAxis = { from: 100, to: 300, valueAt: (pixel) => (pixel - 100) / 20 };
/** From 1 to 100 over 200 pixels, upwards on the screen. */
const LOGARITHMIC: ZoomAxis = { from: 300, to: 100, valueAt: (pixel) => 10 ** ((300 - pixel) / 100) };

test('what stands under the pointer stays there', () => {
  expect(zoomed(LINEAR, 200, 0.5)).toEqual([2.5, 7.5]);
  expect(zoomed(LINEAR, 100, 0.5)).toEqual([0, 5]);
  const [low, high] = zoomed(LOGARITHMIC, 200, 0.5);
  expect(low).toBeCloseTo(10 ** 0.5, 12);
  expect(high).toBeCloseTo(10 ** 1.5, 12);
});

test('a drag moves both ends alike, in decades on a logarithmic axis', () => {
  expect(panned(LINEAR, 40)).toEqual([-2, 8]);
  const [low, high] = panned(LOGARITHMIC, 100);
  expect([low, high]).toEqual([10, 1000]);
});

test('a zoom that has no width or becomes non-finite is not drawn', () => {
  const y = [0, 1] as const;
  expect(isDrawable({ x: [1, 2], y })).toBe(true);
  expect(isDrawable({ x: [1, 1], y })).toBe(false);
  expect(isDrawable({ x: [2, 1], y })).toBe(false);
  expect(isDrawable({ x: [0, Infinity], y })).toBe(false);
});
