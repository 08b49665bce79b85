import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { cos, sin, tan } from './trigonometric.ts';
import { cosh, exp, sinh, tanh } from './exponential.ts';
import { acos, asin, atan, atan2 } from './inverse.ts';
import { ln, log10, log2 } from './logarithm.ts';
import { cbrt, pow } from './power.ts';

type Elementary = (...inputs: number[]) => number;

/**
 * Bit patterns of inputs and of the correctly rounded results, computed with 80 decimal digits by a library of
 * arbitrary precision; no engine had a part in them.
 */
const KNOWN: Readonly<Record<string, readonly string[]>> = JSON.parse(
  readFileSync(join(__dirname, 'known-values.json'), 'utf8'),
);

const FUNCTIONS: Readonly<Record<string, Elementary>> = {
  sin,
  cos,
  tan,
  asin,
  acos,
  atan,
  atan2,
  sinh,
  cosh,
  tanh,
  exp,
  ln,
  log10,
  log2,
  cbrt,
  pow,
};

const view = new DataView(new ArrayBuffer(8));

function fromHex(bits: string): number {
  view.setBigUint64(0, BigInt(`0x${bits}`));
  return view.getFloat64(0);
}

/** Doubles counted from zero, so that neighbours differ by one. */
function ordinal(x: number): bigint {
  view.setFloat64(0, x);
  const bits = view.getBigInt64(0);
  return bits < 0n ? -(bits & 0x7fffffffffffffffn) : bits;
}

function apart(a: number, b: number): number {
  const distance = ordinal(a) - ordinal(b);
  return Number(distance < 0n ? -distance : distance);
}

test('every function has known values', () => {
  expect(Object.keys(KNOWN).sort()).toEqual(Object.keys(FUNCTIONS).sort());
});

test.each(Object.entries(FUNCTIONS))(
  '%s is within one unit of the last place, and mostly exact',
  (name, own) => {
    const cases = (KNOWN[name] ?? []).map((line) => line.split(' ').map(fromHex));
    expect(cases.length).toBeGreaterThanOrEqual(50);
    const off = cases.map((numbers) => apart(own(...numbers.slice(0, -1)), numbers.at(-1) ?? NaN));
    expect(Math.max(...off)).toBeLessThanOrEqual(1);
    expect(off.filter((units) => units === 0).length / off.length).toBeGreaterThan(0.7);
  },
);

const HALF_PI = 1.5707963267948966;
const QUARTER = 0.7853981633974483;

test.each<[string, Elementary, readonly number[], number]>([
  ['sin of minus zero keeps its sign', sin, [-0], -0],
  ['sin', sin, [Infinity], NaN],
  ['cos', cos, [0], 1],
  ['cos', cos, [-Infinity], NaN],
  ['tan of minus zero keeps its sign', tan, [-0], -0],
  ['tan', tan, [NaN], NaN],
  ['asin', asin, [1], HALF_PI],
  ['asin outside', asin, [1.0000000000000002], NaN],
  ['acos', acos, [1], 0],
  ['acos', acos, [-1], Math.PI],
  ['acos outside', acos, [-2], NaN],
  ['atan', atan, [Infinity], HALF_PI],
  ['atan', atan, [-Infinity], -HALF_PI],
  ['atan2 on the axes', atan2, [0, -1], Math.PI],
  ['atan2 on the axes', atan2, [-0, -1], -Math.PI],
  ['atan2 on the axes', atan2, [0, 1], 0],
  ['atan2 at infinity', atan2, [Infinity, Infinity], QUARTER],
  ['atan2', atan2, [1, 0], HALF_PI],
  ['atan2', atan2, [NaN, 1], NaN],
  ['exp', exp, [-Infinity], 0],
  ['exp', exp, [Infinity], Infinity],
  ['exp of 1', exp, [1], Math.E],
  ['exp above the largest number', exp, [709.9], Infinity],
  ['exp below the smallest number', exp, [-745.5], 0],
  ['sinh', sinh, [-0], -0],
  ['sinh', sinh, [-Infinity], -Infinity],
  ['cosh', cosh, [0], 1],
  ['cosh', cosh, [-Infinity], Infinity],
  ['tanh', tanh, [Infinity], 1],
  ['tanh', tanh, [-50], -1],
  ['ln', ln, [0], -Infinity],
  ['ln', ln, [-1], NaN],
  ['ln', ln, [1], 0],
  ['log2 of a power of two', log2, [2 ** -1074], -1074],
  ['log2', log2, [8], 3],
  ['log10', log10, [1e22], 22],
  ['log10', log10, [Infinity], Infinity],
  ['cbrt', cbrt, [-27], -3],
  ['cbrt', cbrt, [-0], -0],
  ['pow', pow, [0, 0], 1],
  ['pow', pow, [NaN, 0], 1],
  ['pow', pow, [-2, 3], -8],
  ['pow of a negative base', pow, [-2, 0.5], NaN],
  ['pow', pow, [0, -1], Infinity],
  ['pow', pow, [-0, -1], -Infinity],
  ['pow', pow, [-0, -2], Infinity],
  ['pow', pow, [2, -1074], 2 ** -1074],
  ['pow', pow, [0.5, Infinity], 0],
  ['pow above the largest number', pow, [10, 309], Infinity],
])('%s: a special value', (_, own, inputs, value) => {
  expect(own(...inputs)).toBe(value);
});

/** Numbers from a fixed sequence, so that a failure can be had again. */
function sequence(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

const random = sequence(2026);

test('very large angles: sin(x)^2 + cos(x)^2 and the doubled angle hold', () => {
  for (let i = 0; i < 2_000; i += 1) {
    let x = 1e6;
    for (let k = Math.floor(random() * 900); k > 0; k -= 1) x *= 2;
    x *= 1 + random();
    expect(Math.abs(sin(x) * sin(x) + cos(x) * cos(x) - 1)).toBeLessThan(4e-16);
    expect(Math.abs(sin(2 * x) - 2 * sin(x) * cos(x))).toBeLessThan(6e-16);
  }
});

test.each<[string, (x: number) => readonly [number, number], number]>([
  ['exp(x) exp(-x) = 1', (x) => [exp(x) * exp(-x), 1], 4e-16],
  // one unit in exp(x) is 2.2e-16 in its logarithm, however small x is
  ['ln(exp(x)) = x', (x) => [ln(exp(x)), x], 4e-15],
  // one unit in cosh(3) = 10 is 1.8e-15, times cosh + sinh = 20, twice
  ['cosh^2 - sinh^2 = 1', (x) => [(cosh(x) - sinh(x)) * (cosh(x) + sinh(x)), 1], 8e-14],
  ['tan = sin/cos', (x) => [tan(x), sin(x) / cos(x)], 1e-15],
  ['tanh = sinh/cosh', (x) => [tanh(x), sinh(x) / cosh(x)], 1e-15],
  ['cbrt(x)^3 = x', (x) => [cbrt(x) * cbrt(x) * cbrt(x), x], 1e-15],
  ['pow(x, 5) by products', (x) => [pow(x, 5), x * x * x * x * x], 1e-15],
  ['log2(x) = ln(x)/ln(2)', (x) => [log2(1 + x * x), ln(1 + x * x) / ln(2)], 2e-15],
  ['log10(x) = ln(x)/ln(10)', (x) => [log10(2 + x * x), ln(2 + x * x) / ln(10)], 1e-15],
  ['atan(tan(x)) = x', (x) => [atan(tan(x / 2)), x / 2], 1e-15],
  ['asin + acos = pi/2', (x) => [asin(x / 4) + acos(x / 4), HALF_PI], 1e-15],
])('%s', (_, sides, tolerance) => {
  for (let i = 0; i < 3_000; i += 1) {
    const [left, right] = sides((random() - 0.5) * 6);
    expect(Math.abs(left - right)).toBeLessThanOrEqual(tolerance * Math.max(Math.abs(right), 0.1));
  }
});
