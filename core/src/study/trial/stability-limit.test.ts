import { findInLibrary } from '../../method/library/find-method.ts';
import { fastestDecay } from '../judge/fastest-decay.ts';
import { realStabilityLimit } from './stability-limit.ts';
import { problem } from '../../test-texts.ts';

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
  expect(fastestDecay(problem("x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1"), 0, [1, 0])).toBeNull();
  expect(fastestDecay(problem("y' = 3*y\ny(0) = 1\n0 <= t <= 1"), 0, [1])).toBeNull();
});
