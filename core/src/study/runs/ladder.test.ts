import { Refusal } from '../../text/refusal.ts';
import { amountValue, layLadder } from './ladder.ts';

test.each([
  ['pi/8', Math.PI / 8],
  ['1/3', 1 / 3],
  ['2^-5', 2 ** -5],
  ['sqrt(2)/10', Math.SQRT2 / 10],
  ['2 pi/100', (2 * Math.PI) / 100],
  [0.7, 0.7],
])('%s is a step size', (amount, value) => {
  expect(amountValue(amount)).toBe(value);
});

test.each(['', 'h', 'pi/', '1,5', '(1', 'log(2)', "x'", '1;2', 'constructor'])(
  '%s is refused in plain words',
  (text) => {
    expect(() => amountValue(text)).toThrow(Refusal);
  },
);

test('regular ladders, lists of h and lists of N lay the same grids', () => {
  const sizes = (ladder: Parameters<typeof layLadder>[0]): unknown[] =>
    layLadder(ladder, 0, 3, 'fit').map((rung) =>
      rung.ok ? [rung.grid.h, rung.grid.steps, rung.grid.divides] : rung.message,
    );
  const expected = [
    [0.75, 4, true],
    [0.25, 12, true],
    [0.75 / 9, 36, true],
  ];
  expect(sizes({ first: '3/4', factor: 3, rungs: 3 })).toEqual(expected);
  expect(sizes({ sizes: [0.75, '1/4', 0.75 / 9] })).toEqual(expected);
  expect(sizes({ counts: [4, 12, 36] })).toEqual(expected.map(([, n]) => [3 / Number(n), n, true]));
  expect(sizes({ sizes: [0.7, 1e-9, '0'] })).toEqual([
    [0.75, 4, false],
    'this step size needs 3,000,000,000 steps; at most 100,000,000 are allowed',
    'the step size must be a positive number, not 0',
  ]);
});
