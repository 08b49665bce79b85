import { inspectedText } from '../../../trust/inspected-text.ts';
import { LIBRARY } from '../../method/library/library.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { findSlips } from './find-slips.ts';
import type { Slip } from './slip.ts';

function mended(text: string, { from, to, text: made }: Slip['repairs'][number]): string {
  return text.slice(0, from) + made + text.slice(to);
}

const RK4 = (
  last: string,
  k2 = 'f(t + h/2, y + h/2*k1)',
  k3 = 'f(t + h/2, y + h/2*k2)',
  k4 = 'f(t + h, y + h*k3)',
): string => `k1 = f(t, y)\nk2 = ${k2}\nk3 = ${k3}\nk4 = ${k4}\ny[n+1] = y + ${last}`;
const RIGHT = 'h/6*(k1 + 2*k2 + 2*k3 + k4)';

test.each(LIBRARY.map(({ title }) => title))('no slip is reported in %s', (title) => {
  const { slips, nearMisses } = findSlips(findInLibrary(title)!);
  expect(slips).toEqual([]);
  expect(nearMisses).toEqual([]);
});

test.each([
  [
    'a forgotten h before a stage',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + k1/2)\ny[n+1] = y + h*k2',
    'k1 is a slope and is used without h in the argument of k2; did you mean h*k1?',
    null,
  ],
  [
    'a forgotten h in the last line',
    'k1 = f(t, y)\ny[n+1] = y + k1',
    'k1 is a slope and is used without h in y[n+1]; did you mean h*k1?',
    1,
  ],
  [
    'a forgotten h before f itself',
    'y[n+1] = y + f(t, y)',
    'f is a slope and is used without h in y[n+1]; did you mean h*f?',
    1,
  ],
  [
    'an h that is there twice',
    'k1 = h*f(t, y)\nk2 = h*f(t + h/2, y + k1/2)\ny[n+1] = y + h*k2',
    'k2 has h too many in y[n+1]: the factor h appears twice',
    2,
  ],
  [
    'a Taylor term with the wrong power',
    "y[n+1] = y + h*f(t, y) + h/2*f'(t, y)",
    "f' is missing the factor h in y[n+1]",
    2,
  ],
  [
    'a Taylor term two powers short',
    "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h/6*f''(t, y)",
    "f'' is missing the factor h^2 in y[n+1]",
    3,
  ],
  [
    'a velocity without h',
    'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + v[n+1]',
    'v is missing the factor h in x[n+1]',
    null,
  ],
] as const)('a dimension check finds %s', (_, text, message, order) => {
  const { slips, order: proof } = inspectedText(text);
  expect(proof).toBeNull();
  expect(slips.map((slip) => slip.message)).toContain(message);
  const repair = slips[0]?.repairs[0];
  if (order !== null) expect(inspectedText(mended(text, repair!)).order?.order).toBe(order);
});

test.each([
  [
    'a weight of a slope',
    RK4('h/6*(k1 + 2*k2 + k3 + k4)'),
    'the weights of the slopes sum to 5/6 and must sum to 1: a linear solution is not reproduced',
  ],
  [
    'a divisor',
    RK4('h/3*(k1 + 2*k2 + 2*k3 + k4)'),
    'the weights of the slopes sum to 2 and must sum to 1: a linear solution is not reproduced',
  ],
  [
    'a factor of an earlier value',
    'start with Heun\ny[n+1] = 4/3*y - 1/2*y[n-1] + 2/3*h*f[n]',
    'the coefficients of y, y[n-1], ... sum to 5/6 and must sum to 1: a constant solution is not reproduced',
  ],
  [
    'the time of a stage',
    RK4(RIGHT, 'f(t, y + h/2*k1)'),
    'k2 is evaluated at time t + 0, but at a value advanced by h/2',
  ],
  [
    'the time of the last stage',
    RK4(RIGHT, undefined, undefined, 'f(t + h/2, y + h*k3)'),
    'k4 is evaluated at time t + h/2, but at a value advanced by h',
  ],
  [
    'half a step of a value',
    RK4(RIGHT, undefined, 'f(t + h/2, y + h*k2)'),
    'k3 is evaluated at time t + h/2, but at a value advanced by h',
  ],
  [
    'a stage that is never used',
    'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*k1',
    'k2 is never used',
  ],
  [
    'a prediction that is not taken',
    'start with Heun\np = y + h/2*(3*f[n] - f[n-1])\ny[n+1] = y + h/2*(f[n] + f(t + h, y + h*f[n]))',
    'p is never used: the formula below does not use this predictor',
  ],
  [
    'too coarse a start',
    'start with Euler\ny[n+1] = y + h/24*(55*f[n] - 59*f[n-1] + 37*f[n-2] - 9*f[n-3])',
    'the starting method Euler has order 1; this method has order 4 and needs a starting method of order at least 3',
  ],
  [
    'a start that reaches back itself',
    'start with Adams-Bashforth 2\ny[n+1] = y + h/12*(23*f[n] - 16*f[n-1] + 5*f[n-2])',
    'Adams-Bashforth 2 is a multistep method itself and cannot be the starting method',
  ],
] as const)('a slip is found in %s', (_, text, message) => {
  expect(inspectedText(text).slips.map((slip) => slip.message)).toContain(message);
});

test.each([
  ['a forgotten 2', RK4('h/6*(k1 + 2*k2 + k3 + k4)'), '2*k3', 4],
  ['a wrong index of a stage', RK4(RIGHT, undefined, 'f(t + h/2, y + h/2*k1)'), 'k2', 4],
  ['a wrong time', RK4(RIGHT, undefined, undefined, 'f(t + h/2, y + h*k3)'), 't + h', 4],
  [
    'a wrong sign of a number',
    'start with RK4\ny[n+1] = y + h/24*(55*f[n] - 59*f[n-1] + 37*f[n-2] + 9*f[n-3])',
    '- 9*f[n-3]',
    4,
  ],
  [
    'a wrong sign of a stage',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h, y + h*k1 + 2*h*k2)\ny[n+1] = y + h/6*(k1 + 4*k2 + k3)',
    '- h*k1',
    3,
  ],
  [
    'a wrong weight',
    'k1 = f(t, y)\nk2 = f(t + h/3, y + h/3*k1)\nk3 = f(t + 2/3*h, y + 2/3*h*k2)\ny[n+1] = y + h/3*(k1 + 3*k3)',
    '4',
    3,
  ],
  [
    'a wrong fraction',
    'k1 = f(t, y)\nk2 = f(t + 2/3*h, y + 2/3*h*k1)\ny[n+1] = y + h*(1/4*k1 + 1/4*k2)',
    '3/4',
    2,
  ],
  [
    'three digits in place of a half',
    'theta = 0.501\nsolve k1 = f(t + theta*h, y + theta*h*k1)\ny[n+1] = y + h*k1',
    '1/2',
    2,
  ],
  [
    'a coefficient of Adams',
    'start with Kutta 3\ny[n+1] = y + h/12*(23*f[n] - 15*f[n-1] + 5*f[n-2])',
    '16',
    3,
  ],
  [
    'a factor of a backward difference',
    'start with Heun\nsolve y[n+1] = 4/3*y - 1/3*y[n-1] + 1/3*h*f(t + h, y[n+1])',
    '2/3',
    2,
  ],
  ['a Taylor coefficient', "y[n+1] = y + h*f(t, y) + h^2/3*f'(t, y)", '2', 2],
] as const)('a near miss tells %s', (_, text, instead, order) => {
  const { nearMisses, order: proof } = inspectedText(text);
  const miss = nearMisses.find((one) => one.instead === instead);
  expect(miss).toMatchObject({ order });
  expect(order).toBeGreaterThan(proof!.order);
  // the repair is a text that is proved to do what is said
  expect(inspectedText(mended(text, miss!.repair)).order?.order).toBe(order);
});

test('of a text with many stages no changes are tried, so that it does not take long', () => {
  const chain = Array.from({ length: 30 }, (_, i) => `k${i + 1} = f(t, y + h*k${i})`);
  const text = `k0 = f(t, y)\n${chain.join('\n')}\ny[n+1] = y + h*(k0 + k30)/2`;
  expect(inspectedText(text).nearMisses).toEqual([]);
});
