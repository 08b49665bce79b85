import { isNumbered } from './chart.ts';

function numbered(from: number, to: number, room: number): readonly number[] {
  const decades = Math.log10(to / from);
  const ticks: number[] = [];
  for (let power = Math.floor(Math.log10(from)); power <= Math.ceil(Math.log10(to)); power += 1)
    for (let digit = 1; digit < 10; digit += 1) ticks.push(Number(`${digit}e${power}`));
  return ticks.filter((value) => value >= from && value <= to && isNumbered(value, decades, room));
}

test('an axis over few decades has 2 and 5 numbered, one over many only some powers of ten', () => {
  expect(numbered(0.03, 3, 12)).toEqual([0.05, 0.1, 0.2, 0.5, 1, 2]);
  expect(numbered(1e-8, 1, 20)).toHaveLength(9);
  expect(numbered(1e-8, 1, 4)).toEqual([1e-8, 1e-6, 1e-4, 1e-2, 1]);
  expect(numbered(1e-30, 1, 6).length).toBeLessThanOrEqual(7);
});

test.each([
  [0.11, 1.9, 8],
  [0.3, 4, 6],
  [1e-5, 3e-3, 7],
  [1e-12, 1, 3],
])('from %d to %d with room for %d there are at least two numbers', (from, to, room) => {
  expect(numbered(from, to, room).length).toBeGreaterThanOrEqual(2);
});
