import { parseMethod } from '../method/parse-method.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { LIBRARY } from '../method/library/library.ts';
import type { Method } from '../method/method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import type { Problem } from '../problem/problem.ts';
import { hermite } from './hermite.ts';
import { promisedOrder } from './promised-order.ts';
import { extrapolate } from './richardson.ts';
import { fitRoundOff } from './round-off.ts';
import { fastestDecay, realStabilityLimit } from './stability-limit.ts';

function problem(text: string): Problem {
  const reading = parseProblem(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return reading.value;
}

function method(text: string): Method {
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return reading.value;
}

const FREE = problem("x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1");

test.each(LIBRARY.map(({ title, order }) => [title, order] as const))(
  '%s promises the order %i of its source',
  (title, order) => {
    expect(promisedOrder(findInLibrary(title)!, FREE)).toEqual({ kind: 'order', order });
  },
);

test.each([
  ['a forgotten h has order 0', 'k1 = f(t, y)\ny[n+1] = y + k1/10', 0],
  [
    'a stage at the wrong place has order 1',
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\ny[n+1] = y + h/2*(k1 + k2)',
    1,
  ],
  ['weights that do not add up have order 0', 'k1 = f(t, y)\ny[n+1] = y + h/2*k1', 0],
  // the root 5 of r^2 + 4 r - 5: order 3 by its error, and every error grows
  [
    'an unstable two-step formula diverges',
    'start with Euler\ny[n+1] = -4*y + 5*y[n-1] + h*(4*f[n] + 2*f[n-1])',
    ['diverges'],
  ],
] as const)('%s', (_, text, expected) => {
  const promised = promisedOrder(method(text), FREE);
  expect(promised).toEqual(
    typeof expected === 'number' ? { kind: 'order', order: expected } : { kind: expected[0] },
  );
});

test.each([
  ['Euler', 2],
  ['Heun', 2],
  // |1 + z + z^2/2 + z^3/6| = 1 and the same with z^4/24
  ['Kutta 3', 2.5127453],
  ['RK4', 2.7852936],
  ['Adams-Bashforth 2', 1],
  ['Adams-Bashforth 3', 6 / 11],
] as const)('%s is stable on the real axis up to %f', (title, limit) => {
  expect(realStabilityLimit(findInLibrary(title)!)).toBeCloseTo(limit, 3);
});

test('methods that damp every decay have no limit', () => {
  expect(realStabilityLimit(findInLibrary('Backward Euler')!)).toBeNull();
  expect(realStabilityLimit(findInLibrary('Trapezoidal rule')!)).toBeNull();
});

test('the fastest decay is the largest eigenvalue of the Jacobian, and null where motion does not decay', () => {
  const n = 30;
  const heat = problem(
    `u[i]' = 5*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..${n}\nu[0] = 0\nu[${n + 1}] = 0\nu[i](0) = i for i = 1..${n}\n0 <= t <= 1`,
  );
  const largest = 20 * Math.sin((n * Math.PI) / (2 * (n + 1))) ** 2;
  expect(fastestDecay(heat, 0, heat.initial)! / largest).toBeCloseTo(1, 1);
  expect(fastestDecay(problem("y' = -50*(y - cos(t))\ny(0) = 0\n0 <= t <= 1"), 0.3, [0.2])).toBeCloseTo(
    50,
    4,
  );
  expect(fastestDecay(FREE, 0, [1, 0])).toBeNull();
  expect(fastestDecay(problem("y' = 3*y\ny(0) = 1\n0 <= t <= 1"), 0, [1])).toBeNull();
});

test('a cubic through values and slopes is found again', () => {
  const p = (t: number): number => 2 * t ** 3 - t ** 2 + 5 * t - 7;
  const slope = (t: number): number => 6 * t ** 2 - 2 * t + 5;
  const knot = (t: number) => ({ t, values: [p(t)], slopes: [slope(t)] });
  expect(hermite(knot(0.5), knot(2), 1.3)[0]).toBeCloseTo(p(1.3), 12);
});

test('three levels of a + b h^p give p and a, at any ratio of steps', () => {
  const level = (h: number) => ({ h, values: [7 - 3 * h ** 2.5, 9] });
  for (const [h1, h2, h3] of [
    [0.4, 0.2, 0.1],
    [0.3, 0.1, 0.05],
    [0.25, 0.2, 0.02],
  ] as const) {
    const three = extrapolate(level(h1), level(h2), level(h3), [0], 1e-15)!;
    expect(three.order).toBeCloseTo(2.5, 9);
    expect(three.values[0]).toBeCloseTo(7, 9);
    expect(three.error).toBeCloseTo(3 * h3 ** 2.5, 9);
  }
  expect(extrapolate(level(0.1), level(0.2), level(0.4), [0], 1e-15)).toBeNull();
  expect(extrapolate(level(0.4), level(0.2), level(0.1), [1], 1e-15)).toBeNull();
});

test('the model C h^p + R/h^q is found again, and its least value where its derivative vanishes', () => {
  const fit = { order: 4, constant: 2, standardError: 0, from: 0, to: 3, rungs: [], by: 'rules' as const };
  const floor = [1e-4, 5e-5, 2e-5, 1e-5].map((h) => ({ h, error: 3e-17 / h ** 0.7 }));
  const model = fitRoundOff(fit, floor, 'double')!;
  expect(model.exponent).toBeCloseTo(0.7, 10);
  expect(model.size / 3e-17).toBeCloseTo(1, 8);
  const e = (h: number): number => 2 * h ** 4 + 3e-17 / h ** 0.7;
  expect(model.best.error / e(model.best.h)).toBeCloseTo(1, 8);
  for (const off of [0.97, 1.03]) expect(e(model.best.h * off)).toBeGreaterThan(model.best.error);
  expect(model.double).toEqual(model.best);
  // single precision rounds 2^29 times as coarsely
  expect(model.single.h / model.best.h).toBeCloseTo(2 ** (29 / 4.7), 6);
});
