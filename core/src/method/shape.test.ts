import { evaluationsPerStep, isImplicit } from './method.ts';
import { parseMethod } from './parse-method.ts';
import { methodTex } from './tex-method.ts';
import { method } from '../test-texts.ts';

function messages(text: string): readonly string[] {
  const reading = parseMethod(text);
  return reading.ok ? [] : reading.errors.map(({ line, column, message }) => `${line}:${column} ${message}`);
}

test.each([
  [
    'y[n+1] = y + h',
    '1:14 a number cannot be added to values of the solution; is a factor such as f(t, y) or k1 missing?',
  ],
  [
    'y[n+1] = y*f(t, y)',
    '1:10 two vectors cannot be multiplied: one of these factors should be a number such as h; the derivative of f with respect to y times f is written f_y(t, y)*f(t, y), and a derivative worked out by hand goes on a line of its own, as in d2(t, y) = 2*t*y',
  ],
  ['y[n+1] = h/y', '1:12 nothing can be divided by a vector; divide by a number such as h'],
  [
    'y[n+1] = y^2',
    '1:10 a power takes a number, and this is a vector; a derivative worked out by hand goes on a line of its own, as in d2(t, y) = 2*t*y',
  ],
  [
    'y[n+1] = y + h*f(y, t)',
    '1:18 the first argument of f is a time such as t + h; the value comes second: f(t, y)',
  ],
  ['y[n+1] = y + h*f(t)', '1:16 f takes the time and the value: f(t, y)'],
  [
    'y[n+1] = y + h*f(t, h)',
    '1:21 this argument of f must be a value of the solution such as y + h*k1, not a number',
  ],
  ['y[n+1] = y + h*f', '1:16 f needs its arguments: write f(t, y), or f[n] for the stored value'],
  ['y[n+1] = y + h*k', '1:16 k is not known; define it on a line above, such as k = f(t, y)'],
  ['K = f(t, y)\ny[n+1] = y + h*k', '2:16 k is not known, but K is; names are case-sensitive'],
  [
    'k = f(t, y + h*k)\ny[n+1] = y + h*k',
    '1:16 k is used in its own line; for an implicit stage write solve k = ..., otherwise define it above',
  ],
  [
    'y[n+1] = y + h*f(t, y[n+1])',
    '1:21 y[n+1] is not known yet; define it above, or write solve y[n+1] = ... if it is defined implicitly',
  ],
  ['y[n+1] = y[n+2]', '1:10 the highest index is n+1'],
  ['y[n+1] = y[n-21]', '1:10 a method uses at most 20 earlier steps'],
  [
    'y[n+1] = y + h*f[n+1]',
    '1:16 f at the new point is written f(t + h, y[n+1]) or with another value in place of y[n+1]',
  ],
  ['y[n+1] = y[i]', '1:10 an index must be n+1, n or n minus an integer, as in y[n-1]'],
  ['y[n+1] = y + n*f(t, y)', '1:14 the step number n is allowed only in an index, as in y[n+1]'],
  ["y[n+1] = y + h*y'", "1:16 y' is written f(t, y) in a method"],
  [
    "x[n+1] = x + h*v\nv[n+1] = v + h*a'(t, x, v)",
    '2:16 only f can be differentiated; write the method for y, with f and its derivatives',
  ],
  [
    'x[n+1] = x + h*v\nv[n+1] = v + h*f(t, x)',
    '2:16 in a method for x and v the right-hand side is the acceleration: write a(t, x, v)',
  ],
  ['sin = 2\ny[n+1] = y', '1:1 sin is a function of the notation; choose another name'],
  ['y = y + h*f(t, y)\nk = f(t, y)', '1:1 the new value is written y[n+1] = ...'],
])('%s is answered with %s', (text, message) => {
  expect(messages(text)).toContain(message);
});

test.each([
  ['y[n+1] = y + h*f(t, y)', 1, false],
  ['k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)', 2, false],
  ['y[n+1] = y + h*(3/2*f[n] - 1/2*f[n-1])', 1, false],
  ['y[n+1] = y + h/2*(f[n] + f(t + h, y + h*f[n]))', 2, false],
  ["y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)", 2, false],
  ['solve k = f(t + h/2, y + h/2*k)\ny[n+1] = y + h*k', 1, true],
])('%s costs %d evaluations a step', (text, evaluations, implicit) => {
  expect(evaluationsPerStep(method(text))).toBe(evaluations);
  expect(isImplicit(method(text))).toBe(implicit);
});

test('the depth of a multistep method, and its starting method', () => {
  const { depth, startWith } = method('start with Heun\ny[n+1] = y[n-1] + h*(f[n] + f[n-2])');
  expect(depth).toBe(2);
  expect(startWith?.name).toBe('Heun');
  expect(method('y[n+1] = y + h*f(t[n], y[n])').depth).toBe(0);
});

test('a method is set as it is written; the name of a starter sets no command', () => {
  expect(methodTex(method('k1 = f(t, y)\ny[n+1] = y + h/2*k1'))).toEqual([
    'k_{1} = f(t, y)',
    'y_{n+1} = y + \\frac{h}{2} k_{1}',
  ]);
  const named = { ...method('y[n+1] = y'), startWith: { name: '\\input{x}', at: { from: 0, to: 1 } } };
  expect(methodTex(named).at(-1)).toBe('\\text{start with  input x }');
});
