import { boxOf, labelPlace, meets } from './label-place.ts';

const AREA = { left: 0, top: 0, right: 400, bottom: 200 };
const SIZE = { width: 70, height: 13 };
const FROM = { x: 50, y: 150 };
const TO = { x: 350, y: 50 };

test('a label stands below the middle of its line, where nothing is in the way', () => {
  expect(labelPlace([FROM, TO], SIZE, AREA, { points: [], taken: [] })).toEqual({ x: 206, y: 118 });
});

test('it lies on no point and on no other label', () => {
  const points = Array.from({ length: 9 }, (_, i) => ({ x: 50 + 37.5 * i, y: 150 - 12.5 * i }));
  const other = boxOf({ x: 190, y: 116 }, 80, 13);
  const place = labelPlace([FROM, TO], SIZE, AREA, { points, taken: [other] })!;
  const own = boxOf(place, SIZE.width, SIZE.height);
  expect(meets(own, other)).toBe(false);
  for (const { x, y } of points)
    expect(meets(own, { left: x - 5, top: y - 5, right: x + 5, bottom: y + 5 })).toBe(false);
  expect(own.right).toBeLessThanOrEqual(AREA.right);
});

test('where there is no room there is no label', () => {
  expect(labelPlace([FROM, TO], SIZE, AREA, { points: [], taken: [AREA] })).toBeNull();
  expect(labelPlace([FROM, TO], { width: 900, height: 13 }, AREA, { points: [], taken: [] })).toBeNull();
});
