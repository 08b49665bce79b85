import { Parser } from './parse.ts';
import { tokenize } from '../text/token.ts';
import { runningError } from './running-error.ts';

function errorOf(text: string, values: Readonly<Record<string, number>>, off = 0): number {
  const report = (_: unknown, message: string): never => {
    throw new Error(message);
  };
  const tokens = tokenize(text, { from: 0, to: text.length }, report);
  const parser = new Parser(
    tokens,
    { from: text.length, to: text.length + 1 },
    {
      calls: () => true,
      multiplies: () => false,
      refuseCall: () => null,
      report,
    },
  );
  return runningError(parser.whole(), (node) => ({
    value: node.kind === 'name' ? (values[node.name] ?? NaN) : NaN,
    error: off,
  })).error;
}

const UNIT = 2 ** -53;

test('a sum that cancels keeps the rounding of its largest term', () => {
  expect(errorOf('x + 1000000 - 1000000', { x: 0.3 }) / (UNIT * 1e6)).toBeCloseTo(1, 5);
  // the other way round nothing large is rounded
  expect(errorOf('x + (1000000 - 1000000)', { x: 0.3 })).toBeLessThan(UNIT);
});

test.each([
  // one rounding of a product, and of a quotient
  ['x*y', 1 * 0.3 * 7],
  ['x/y', (1 * 0.3) / 7],
  ['-(x - y)', 6.7],
  // the inner rounding times the slope, and its own
  ['exp(x*y)', Math.exp(2.1) * (2.1 + 1)],
  ['(x*y)^3', 2.1 ** 3 * (3 + 1)],
  ['if(x < y, x*y, 1/0)', 2.1],
])('%s', (text, roundings) => {
  expect(errorOf(text, { x: 0.3, y: 7 }) / (UNIT * roundings)).toBeCloseTo(1, 1);
});

test('what the values are off by themselves comes on top', () => {
  // 0.3 and 7 are off by 1e-9 each: 7e-9 + 0.3e-9 for their product
  expect(errorOf('x*y', { x: 0.3, y: 7 }, 1e-9)).toBeCloseTo(7.3e-9, 14);
  expect(errorOf('exp(x)', { x: 0.3 }, 1e-9)).toBeCloseTo(1e-9 * Math.exp(0.3), 14);
});

test('no rounding of a run is larger than the bound', () => {
  // 0.1 is 3602879701896397 and 0.2 7205759403792794 times 2^-55, and their sum in double 10808639105689192 times it
  expect((0.1 + 0.2) * 2 ** 55).toBe(10808639105689192);
  const off = Number(10808639105689192n - 3602879701896397n - 7205759403792794n) * 2 ** -55;
  expect(Math.abs(off)).toBeLessThanOrEqual(errorOf('x + y', { x: 0.1, y: 0.2 }));
});
