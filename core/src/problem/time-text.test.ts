import { atTime, timeText, timeTexts } from './time-text.ts';

const axis = (start: number, end: number): { independent: string; start: number; end: number } => ({
  independent: 't',
  start,
  end,
});

test.each([
  [2024.5, 2024, 2026, '2024.5'],
  [2027.141592, 2024, 2027.2, '2027.142'],
  [1 / 3, 0, 1, '0.333'],
  [2, 0, 8, '2'],
  [Math.PI, 0, 3.3, '3.142'],
  // never beyond the ends
  [Math.PI, 0, Math.PI, '3.141'],
  [Math.E, Math.E, 4, '2.719'],
  [1.23456e-7, 0, 1e-6, '1.23e-7'],
  [1234.5678, 0, 1e6, '1235'],
  [-0.0004, -1, 1, '0'],
])('%d in [%d, %d] is written %s', (t, start, end, text) => {
  expect(timeText(t, axis(start, end))).toBe(text);
  expect(atTime(t, axis(start, end))).toBe(`t = ${text}`);
  // the unit of the last digit is at most a thousandth of the interval
  expect(Math.abs(Number(text) - t)).toBeLessThanOrEqual((end - start) / 1000);
});

test('times that differ are told apart, and those that a reader takes for one are one', () => {
  expect(timeTexts([1990.5, 1991.5], axis(1990, 1992))).toEqual(['1990.5', '1991.5']);
  expect(timeTexts([0.50004, 0.5], axis(0, 1))).toEqual(['0.5', '0.50004']);
  expect(timeTexts([0.5, 0.5 + 1e-9], axis(0, 1))).toEqual(['0.5']);
  expect(timeTexts([], axis(0, 1))).toEqual([]);
});
