import { parseMethod } from './parse-method.ts';
import { evaluationsPerStep } from './method.ts';
import { methodTex } from './tex-method.ts';

function errors(text: string): readonly string[] {
  const reading = parseMethod(text);
  return reading.ok ? [] : reading.errors.map((e) => `${e.line}:${e.column}+${e.length} ${e.message}`);
}

test('a method with constants, intermediate values and nested calls', () => {
  const reading = parseMethod(
    'theta = 1/2  # weight\nhalf = y[n] + theta*h*f(t[n], y)\ny[n+1] = y + h*f(t + theta*h, half)',
  );
  if (!reading.ok) throw new Error(reading.errors[0]?.message);
  expect(evaluationsPerStep(reading.value)).toBe(2);
  expect(methodTex(reading.value)[2]).toBe('y_{n+1} = y + h\\,f(t + \\theta h, \\mathit{half})');
});

test.each([
  ['y[n+1] = y + k1', '1:14+2 k1 is not known; define it on a line above, such as k1 = f(t, y)'],
  [
    'k1 = f(t, y + h*k2)\nk2 = f(t, y + h*k1)\ny[n+1] = y + h*k1',
    '1:17+2 k2 is defined below; move its line above this one',
  ],
  [
    'k1 = f(t, y + h*k1)\ny[n+1] = y + h*k1',
    '1:17+2 k1 is used in its own line; for an implicit stage write solve k1 = ..., otherwise define it above',
  ],
  [
    'y[n+1] = y + h',
    '1:14+1 a number cannot be added to values of the solution; is a factor such as f(t, y) or k1 missing?',
  ],
  [
    'y[n+1] = y + h*f(y, t)',
    '1:18+1 the first argument of f is a time such as t + h; the value comes second: f(t, y)',
  ],
  ['y[n+1] = y + h*f(t)', '1:16+4 f takes the time and the value: f(t, y)'],
  ['k1 = f(t, y)', '1:13+1 the new value is missing; add a line y[n+1] = ...'],
  [
    'y[n+1] = y*f(t, y)',
    '1:10+9 two vectors cannot be multiplied: one of these factors should be a number such as h; the derivative of f with respect to y times f is written f_y(t, y)*f(t, y), and a derivative worked out by hand goes on a line of its own, as in d2(t, y) = 2*t*y',
  ],
  [
    "solve k = f(t, y + h*k) + h*f'(t, y)\ny[n+1] = y + h*k",
    '1:29+8 derivatives of f are not allowed inside solve; define them on a line above',
  ],
  ['f = 3\ny[n+1] = y', '1:1+1 f is reserved in a method; choose another name'],
])('%s', (text, expected) => {
  expect(errors(text)).toContain(expected);
});

test('a formula is typeset in the names of its text', () => {
  const text = 'k1 = f(x_n, u_n)\nu_{k+1} = u_k + h*k1 + h^2/2*(f_x(x, u) + f_u(x, u)*k1)';
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  const tex = methodTex(reading.value).join('\n');
  expect(tex).toContain('f(x_{n}, u_{n})');
  expect(tex).toContain('u_{n+1} =');
  expect(tex).toContain('f_{x}(x, u) + f_{u}(x, u)');
  expect(tex).not.toMatch(/[ty]/);
});
