import { cos, sin, tan } from './circular.ts';
import { cosh, exp, sinh, tanh } from './exponential.ts';
import { acos, asin, atan, atan2 } from './inverse.ts';
import { ln, log10, log2 } from './logarithm.ts';
import { cbrt, pow } from './power.ts';

/** Numbers from a fixed sequence, so that a failure can be had again. */
function sequence(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    const high = state / 2 ** 32;
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return high + state / 2 ** 64;
  };
}

const random = sequence(2026);
const wide = (): number => (random() < 0.5 ? -1 : 1) * 2 ** (random() * 60 - 30) * (1 + random());
const within = (reach: number) => () => (random() - 0.5) * 2 * reach;
const positive = (): number => Math.abs(wide());

/** Node's own functions are another port of the same algorithms: they must agree to the last bit. */
test.each<[string, (...x: number[]) => number, (...x: number[]) => number, () => number[]]>([
  ['sin', sin, Math.sin, () => [within(800_000)()]],
  ['cos', cos, Math.cos, () => [within(800_000)()]],
  ['tan', tan, Math.tan, () => [within(800_000)()]],
  ['sin near zero', sin, Math.sin, () => [within(2)()]],
  ['cos near zero', cos, Math.cos, () => [within(2)()]],
  ['tan near zero', tan, Math.tan, () => [within(2)()]],
  ['atan', atan, Math.atan, () => [wide()]],
  ['atan2', atan2, Math.atan2, () => [wide(), wide()]],
  ['asin', asin, Math.asin, () => [within(1)()]],
  ['acos', acos, Math.acos, () => [within(1)()]],
  ['exp', exp, Math.exp, () => [within(750)()]],
  ['exp near zero', exp, Math.exp, () => [within(1)()]],
  ['sinh', sinh, Math.sinh, () => [within(715)()]],
  ['sinh near zero', sinh, Math.sinh, () => [within(2)()]],
  ['cosh', cosh, Math.cosh, () => [within(30)()]],
  ['tanh', tanh, Math.tanh, () => [within(3)()]],
  ['ln', ln, Math.log, () => [positive()]],
  ['ln near one', ln, Math.log, () => [1 + within(0.2)()]],
  ['log2', log2, Math.log2, () => [positive()]],
  ['log10', log10, Math.log10, () => [positive()]],
  ['cbrt', cbrt, Math.cbrt, () => [wide()]],
  ['pow', pow, Math.pow, () => [positive(), within(10)()]],
  ['pow of whole exponents', pow, Math.pow, () => [wide(), Math.round(within(12)())]],
])('%s', (_, own, node, inputs) => {
  for (let i = 0; i < 20_000; i += 1) {
    const x = inputs();
    const [a, b] = [own(...x), node(...x)];
    if (!Object.is(a, b)) throw new Error(`of ${x.join(', ')}: ${a}, not ${b}`);
  }
});

const SPECIAL = [
  0,
  -0,
  1,
  -1,
  0.5,
  -0.5,
  2,
  -2,
  3,
  1e-310,
  5e-324,
  -5e-324,
  1e308,
  Infinity,
  -Infinity,
  NaN,
  709.9,
  -745.5,
  1e22,
];

test('special values', () => {
  const pairs: readonly [string, (x: number) => number, (x: number) => number][] = [
    ['tan', tan, Math.tan],
    ['atan', atan, Math.atan],
    ['asin', asin, Math.asin],
    ['acos', acos, Math.acos],
    ['exp', exp, Math.exp],
    ['sinh', sinh, Math.sinh],
    ['cosh', cosh, Math.cosh],
    ['tanh', tanh, Math.tanh],
    ['ln', ln, Math.log],
    ['log2', log2, Math.log2],
    ['log10', log10, Math.log10],
    ['cbrt', cbrt, Math.cbrt],
    ['sin', sin, Math.sin],
    ['cos', cos, Math.cos],
  ];
  for (const [name, own, node] of pairs)
    for (const x of SPECIAL) expect([name, x, own(x)]).toEqual([name, x, node(x)]);
  for (const x of SPECIAL)
    for (const y of SPECIAL) {
      expect(['pow', x, y, pow(x, y)]).toEqual(['pow', x, y, Math.pow(x, y)]);
      expect(['atan2', y, x, atan2(y, x)]).toEqual(['atan2', y, x, Math.atan2(y, x)]);
    }
});

test('very large angles: sin(x)^2 + cos(x)^2 and the doubled angle hold', () => {
  for (let i = 0; i < 2_000; i += 1) {
    const x = 1e6 * 2 ** (random() * 900);
    expect(Math.abs(sin(x) ** 2 + cos(x) ** 2 - 1)).toBeLessThan(4e-16);
    expect(Math.abs(sin(2 * x) - 2 * sin(x) * cos(x))).toBeLessThan(6e-16);
  }
});
