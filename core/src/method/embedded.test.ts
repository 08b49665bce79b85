import { compileRun } from '../compile/compile.ts';
import { amountText } from '../inspect/form/amount.ts';
import { tableauText } from '../inspect/form/grid-text.ts';
import { inspectMethod } from '../inspect/inspect-method.ts';
import { findSlips } from '../inspect/slips/find-slips.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { layGrid } from '../run/grid.ts';
import { integrate } from '../run/integrate.ts';
import { rowsOf } from '../run/rows.ts';
import { localErrors } from '../study/local-errors.ts';
import { evaluationsPerStep, type Method } from './method.ts';
import { parseMethod } from './parse-method.ts';
import { methodTex } from './tex-method.ts';

function read(text: string): Method {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return reading.value;
}

const HEUN_EULER = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*k1\nyhat[n+1] = y + h/2*(k1 + k2)';
/** P. Bogacki, L. F. Shampine, Appl. Math. Lett. 2 (1989) 321-325. */
const THREE_TWO = `k1 = f(t, y)
k2 = f(t + h/2, y + h/2*k1)
k3 = f(t + 3/4*h, y + 3/4*h*k2)
y[n+1] = y + h*(2/9*k1 + 1/3*k2 + 4/9*k3)
k4 = f(t + h, y[n+1])
yhat[n+1] = y + h*(7/24*k1 + 1/4*k2 + 1/3*k3 + 1/8*k4)`;
/** Hairer, Norsett, Wanner I, table II.5.1 (E. Fehlberg). */
const FOUR_FIVE = `k1 = f(t, y)
k2 = f(t + h/4, y + h/4*k1)
k3 = f(t + 3/8*h, y + h*(3/32*k1 + 9/32*k2))
k4 = f(t + 12/13*h, y + h*(1932/2197*k1 - 7200/2197*k2 + 7296/2197*k3))
k5 = f(t + h, y + h*(439/216*k1 - 8*k2 + 3680/513*k3 - 845/4104*k4))
k6 = f(t + h/2, y + h*(-8/27*k1 + 2*k2 - 3544/2565*k3 + 1859/4104*k4 - 11/40*k5))
y[n+1] = y + h*(25/216*k1 + 1408/2565*k3 + 2197/4104*k4 - 1/5*k5)
yhat[n+1] = y + h*(16/135*k1 + 6656/12825*k3 + 28561/56430*k4 - 9/50*k5 + 2/55*k6)`;
/** Hairer, Norsett, Wanner I, table II.5.2 (J. R. Dormand, P. J. Prince). */
const FIVE_FOUR = `k1 = f(t, y)
k2 = f(t + h/5, y + h/5*k1)
k3 = f(t + 3/10*h, y + h*(3/40*k1 + 9/40*k2))
k4 = f(t + 4/5*h, y + h*(44/45*k1 - 56/15*k2 + 32/9*k3))
k5 = f(t + 8/9*h, y + h*(19372/6561*k1 - 25360/2187*k2 + 64448/6561*k3 - 212/729*k4))
k6 = f(t + h, y + h*(9017/3168*k1 - 355/33*k2 + 46732/5247*k3 + 49/176*k4 - 5103/18656*k5))
y[n+1] = y + h*(35/384*k1 + 500/1113*k3 + 125/192*k4 - 2187/6784*k5 + 11/84*k6)
k7 = f(t + h, y[n+1])
yhat[n+1] = y + h*(5179/57600*k1 + 7571/16695*k3 + 393/640*k4 - 92097/339200*k5 + 187/2100*k6 + 1/40*k7)`;

test.each([
  [HEUN_EULER, 1, 2],
  [THREE_TWO, 3, 2],
  [FOUR_FIVE, 4, 5],
  [FIVE_FOUR, 5, 4],
])('the pair\n%s\nhas orders %i and %i, and no slip', (text, order, second) => {
  const method = read(text);
  const inspection = inspectMethod(method);
  expect(inspection.order).toMatchObject({ order, atLeast: false });
  expect(inspection.embedded?.order).toMatchObject({ order: second, atLeast: false });
  expect(findSlips(method)).toEqual({ slips: [], nearMisses: [] });
});

test('both rows of weights are in one tableau, whose text is a pair again', () => {
  const { tableau } = inspectMethod(read(THREE_TWO)).embedded!;
  expect(tableau!.b.map(amountText)).toEqual(['2/9', '1/3', '4/9', '0']);
  expect(tableau!.embedded.map(amountText)).toEqual(['7/24', '1/4', '1/3', '1/8']);
  const again = inspectMethod(read(tableauText(tableau!, tableau!.embedded)));
  expect(again.embedded?.tableau?.embedded.map(amountText)).toEqual(['7/24', '1/4', '1/3', '1/8']);
  expect([again.order?.order, again.embedded?.order?.order]).toEqual([3, 2]);
});

test('a run goes on with y[n+1] alone, and does not compute what the embedded formula alone needs', () => {
  const problem = parseProblem("y' = -y^2 + t\ny(0) = 1\n0 <= t <= 2");
  if (!problem.ok) throw new Error('no problem');
  const without = read(THREE_TWO.split('\n').slice(0, 4).join('\n'));
  const grid = layGrid(0, 2, { steps: 10 });
  const end = (method: Method): readonly number[] =>
    Array.from(integrate(compileRun(problem.value, method), grid).values);
  expect(end(read(THREE_TWO))).toEqual(end(without));
  expect(evaluationsPerStep(read(THREE_TWO))).toBe(3);
});

test('the errors of single steps are estimated, and known', () => {
  const problem = parseProblem("y' = -2*y\ny(0) = 1\n0 <= t <= 1");
  if (!problem.ok) throw new Error('no problem');
  const method = read(HEUN_EULER);
  const [run, second] = [method, method.embedded!.method].map((one) => compileRun(problem.value, one));
  const grid = layGrid(0, 1, { steps: 10 });
  const { rows } = rowsOf(run!, grid, { from: 0, count: 11 });
  const found = localErrors(run!, second!, grid, rows);
  expect(found).toHaveLength(11);
  expect(found[10]).toBeNull();
  rows.slice(0, 10).forEach(({ values }, n) => {
    const [y = NaN] = values;
    // one step of Euler minus one of Heun, and minus the solution through the same point
    expect(found[n]!.estimate[0]).toBeCloseTo(-(y * 0.2 ** 2) / 2, 14);
    expect(found[n]!.error?.[0]).toBeCloseTo(y * (0.8 - Math.exp(-0.2)), 14);
  });
});

test.each([
  [
    'k1 = f(t_n, w_n)\nw_{n+1} = w_n + h k1\nk2 = f(t_n + h, w_{n+1})\nwhat_{n+1} = w_n + h/2 (k1 + k2)',
    '\\hat{w}_{n+1} = ',
  ],
  [HEUN_EULER, '\\hat{y}_{n+1} = y + '],
])('the pair\n%s\nis typeset with a hat', (text, start) => {
  expect(methodTex(read(text)).at(-1)?.startsWith(start)).toBe(true);
});

test('a text that holds the name y_next keeps it', () => {
  const method = read(
    'y_next = f(t, y)\ny[n+1] = y + h*y_next\nyhat[n+1] = y + h/2*(y_next + f(t + h, y[n+1]))',
  );
  expect(inspectMethod(method).embedded?.order?.order).toBe(2);
});

test.each([
  [
    'yhat[n+1] = y + h*f(t, y)\ny[n+1] = y + h*f(t, y)',
    1,
    'yhat[n+1] is the last line, behind that of y[n+1]',
  ],
  ['y[n+1] = y + h*f(t, y)\nyhat[n+1] = h', 2, 'yhat[n+1] must depend on values of the solution'],
  ['y[n+1] = y + h*f(t, y)\nzhat[n+1] = y', 2, 'the embedded formula of y[n+1] is written yhat[n+1] = ...'],
  ['y[n+1] = y + h*f(t, y)\nk2 = f(t, y)', 2, 'no line may follow the new value'],
  [
    'start with Heun\ny[n+1] = y + h/2*(3*f[n] - f[n-1])\nyhat[n+1] = y + h*f[n]',
    3,
    'yhat[n+1] belongs to a one-step method',
  ],
  ['y[n+1] = y + h*f(t, y)\nyhat[n+1] = y + h*(k1', 2, 'this bracket is not closed: a ) is missing'],
])('%s\nis refused in line %i: %s', (text, line, message) => {
  const reading = parseMethod(text);
  expect(reading.ok ? [] : reading.errors).toMatchObject([{ line, message }]);
});
