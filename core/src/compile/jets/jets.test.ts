import { parseProblem } from '../../problem/parse-problem.ts';
import { Refusal } from '../../text/refusal.ts';
import { jetFunction, MAX_JET_COMPONENTS } from './jet-function.ts';

const ORDER = 9;

/** Coefficients of the solution of y' = right-hand side through y at a time. */
function series(rhs: string, y: number, t = 0): readonly number[] {
  const reading = parseProblem(`y' = ${rhs}\ny(0) = 1\n0 <= t <= 1`);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  const out = new Float64Array(ORDER + 1);
  jetFunction(reading.value, ORDER)(t, [y], out);
  return Array.from(out);
}

function expectSeries(actual: readonly number[], expected: readonly number[]): void {
  expected.forEach((value, k) => {
    const size = Math.max(Math.abs(value), 1e-3);
    expect(Math.abs((actual[k] ?? NaN) - value) / size).toBeLessThan(2e-13);
  });
}

function factorialOf(n: number): number {
  return n < 2 ? 1 : n * factorialOf(n - 1);
}

/** Series of known functions about 0, coefficient by coefficient as tables have them. */
const powers = (f: (k: number) => number): readonly number[] =>
  Array.from({ length: ORDER + 1 }, (_, k) => f(k));

test.each<[string, number, readonly number[]]>([
  // y = exp(t)
  ['y', 1, powers((k) => 1 / factorialOf(k))],
  // y = 1/(1 - t)
  ['y^2', 1, powers(() => 1)],
  // y = 1/(1 - 2 t)^(1/2)
  ['y^3', 1, [1, 1, 1.5, 2.5, 4.375, 7.875, 14.4375, 26.8125, 50.2734375, 94.9609375]],
  // y = (1 + t/2)^2
  ['sqrt(y)', 1, [1, 1, 0.25, 0, 0, 0, 0, 0, 0, 0]],
  // y = (1 + t/3)^3
  ['cbrt(y)^2', 1, [1, 1, 1 / 3, 1 / 27, 0, 0, 0, 0, 0, 0]],
  // y = ln(1 + t)
  ['exp(-y)', 0, powers((k) => (k === 0 ? 0 : (k % 2 === 1 ? 1 : -1) / k))],
  // y = tan t
  ['1 + y^2', 0, [0, 1, 0, 1 / 3, 0, 2 / 15, 0, 17 / 315, 0, 62 / 2835]],
  // y = tanh t
  ['1 - y^2', 0, [0, 1, 0, -1 / 3, 0, 2 / 15, 0, -17 / 315, 0, 62 / 2835]],
  // y = asin t
  ['1/cos(y)', 0, [0, 1, 0, 1 / 6, 0, 3 / 40, 0, 15 / 336, 0, 105 / 3456]],
  // y = asinh t
  ['1/cosh(y)', 0, [0, 1, 0, -1 / 6, 0, 3 / 40, 0, -15 / 336, 0, 105 / 3456]],
  // y = t^2/2 + 1
  ['t', 1, [1, 0, 0.5, 0, 0, 0, 0, 0, 0, 0]],
  // y = sin t
  ['cos(t)', 0, powers((k) => (k % 2 === 0 ? 0 : (k % 4 === 1 ? 1 : -1) / factorialOf(k)))],
  // y = atan t
  ['1/(1 + t^2)', 0, powers((k) => (k % 2 === 0 ? 0 : (k % 4 === 1 ? 1 : -1) / k))],
  ['cos(y)^2', 0, powers((k) => (k % 2 === 0 ? 0 : (k % 4 === 1 ? 1 : -1) / k))],
])("the solution of y' = %s", (rhs, y, expected) => {
  expectSeries(series(rhs, y), expected);
});

/** The right-hand side written with one function, and the same one written without it. */
test.each([
  ['tan(y)', 'sin(y)/cos(y)'],
  ['tanh(y)', 'sinh(y)/cosh(y)'],
  ['sinh(y)', '(exp(y) - exp(-y))/2'],
  ['cosh(t*y)', '(exp(t*y) + exp(-t*y))/2'],
  ['log10(1 + y)', 'ln(1 + y)/ln(10)'],
  ['log2(1 + y)', 'ln(1 + y)/ln(2)'],
  ['sqrt(1 + y)', '(1 + y)^0.5'],
  ['cbrt(1 + y)', 'exp(ln(1 + y)/3)'],
  ['(1 + y)^t', 'exp(t*ln(1 + y))'],
  ['(1 + y)^5', '(1 + y)*(1 + y)*(1 + y)*(1 + y)*(1 + y)'],
  ['(1 + y)^-2', '1/((1 + y)*(1 + y))'],
  ['y^0', '1'],
  ['atan(y)', 'atan2(y, 1)'],
  ['asin(y/2)', 'pi/2 - acos(y/2)'],
  ['asin(y/2)', 'atan(y/2/sqrt(1 - y^2/4))'],
  ['abs(y - 2)', '2 - y'],
  ['max(y, 2, -1)', '2'],
  ['min(y, 2*y, 3)', 'y'],
  ['if(y < 1, y^2, 7)', 'y*y'],
  ['sign(y)*y', 'y'],
  ['floor(y + 2) + y', '2 + y'],
  ['mod(y + 3, 2)', 'y + 3 - 2'],
  ['mod(y, 1 + t)', 'y'],
  ['y - -t*y', 'y + t*y'],
  ['3/(2 + y)', '1.5/(1 + y/2)'],
])('%s has the series of %s', (one, other) => {
  expectSeries(series(one, 0.4, 0.2), series(other, 0.4, 0.2));
});

test('coupled equations of any order have their series together', () => {
  const reading = parseProblem("x'' = -x\nz' = x\nx(0) = 1\nx'(0) = 0\nz(0) = 0\n0 <= t <= 1");
  if (!reading.ok) throw new Error('a text of the test');
  const out = new Float64Array(3 * 6);
  jetFunction(reading.value, 5)(0, [1, 0, 0], out);
  const of = (component: number): readonly number[] =>
    Array.from({ length: 6 }, (_, k) => out[3 * k + component]!);
  // x = cos t, x' = -sin t, z = sin t
  expectSeries(of(0), [1, 0, -1 / 2, 0, 1 / 24, 0]);
  expectSeries(of(1), [0, -1, 0, 1 / 6, 0, -1 / 120]);
  expectSeries(of(2), [0, 1, 0, -1 / 6, 0, 1 / 120]);
});

test('a large system keeps its values in an array, with the same series', () => {
  const size = 400;
  const reading = parseProblem(
    `u[i]' = sin(u[i]) + cos(u[i])*exp(-u[i]) for i = 1..${size}\nu[i](0) = 1 for i = 1..${size}\n0 <= t <= 1`,
  );
  if (!reading.ok) throw new Error('a text of the test');
  const order = 12;
  const out = new Float64Array(size * (order + 1));
  jetFunction(reading.value, order)(
    0,
    Array.from({ length: size }, () => 0.4),
    out,
  );
  const alone = series('sin(y) + cos(y)*exp(-y)', 0.4);
  for (let k = 0; k <= ORDER; k += 1) expect(out[size * k + size - 1]).toBe(alone[k]);
});

test('systems that are too large are refused', () => {
  const n = MAX_JET_COMPONENTS + 1;
  const reading = parseProblem(`u[i]' = -u[i] for i = 1..${n}\nu[i](0) = 1 for i = 1..${n}\n0 <= t <= 1`);
  if (!reading.ok) throw new Error('a text of the test');
  const { value } = reading;
  expect(() => jetFunction(value, 3)).toThrow(Refusal);
});
