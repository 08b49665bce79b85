import { compileWithStart } from '../../compile/compile-with-start.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { LIBRARY } from '../../method/library/library.ts';
import { parseMethod } from '../../method/parse-method.ts';
import type { Method } from '../../method/method.ts';
import type { Problem } from '../../problem/problem.ts';
import { exactSolution } from '../../run/exact-solution.ts';
import { layGrid } from '../../run/grid.ts';
import { integrate } from '../../run/integrate.ts';
import { inspectMethod } from '../inspect-method.ts';
import { leadingAt, type LeadingError, leadingError } from './leading-error.ts';
import { problem } from '../../test-texts.ts';

function leading(p: Problem, method: Method): LeadingError | null {
  const { linear, order } = inspectMethod(method);
  if (linear === null || order === null) return null;
  const exact = exactSolution(p);
  const solution = (t: number, out: Float64Array): void => {
    for (let j = 0; j < p.size; j += 1) out[j] = exact.value(j, t);
  };
  return leadingError(linear, order, { problem: p, solution, end: p.end });
}

const DECAY = problem("y' = a*y\na = -0.7\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(a*t)");

test.each([
  // e(T) = -C a^(p+1) T exp(a T), with C the error constant of the formula
  ['Euler', 1, 1 / 2],
  ['Heun', 2, 1 / 6],
  ['RK4', 4, 1 / 120],
  ['Taylor 5', 5, 1 / 720],
  ['Adams-Bashforth 2', 2, 5 / 12],
  ['Adams-Bashforth 4', 4, 251 / 720],
  ['Backward Euler', 1, -1 / 2],
  ['Trapezoidal rule', 2, -1 / 12],
  ['BDF 2', 2, -1 / 3],
  ['Leapfrog', 2, 1 / 6],
] as const)("the leading error of %s on y' = a y is -C a^(p+1) T exp(a T)", (title, order, constant) => {
  const found = leading(DECAY, findInLibrary(title)!);
  expect(found?.order).toBe(order);
  for (const t of [0.5, 1, 2]) {
    const closed = -constant * (-0.7) ** (order + 1) * t * Math.exp(-0.7 * t);
    expect(leadingAt(found!, 0, t) / closed).toBeCloseTo(1, 3);
  }
});

const GROWTH = problem("y' = a*y\na = 2.5\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(a*t)");
const THREE: readonly (readonly [name: string, problem: Problem])[] = [
  ['growth', GROWTH],
  [
    'a right-hand side with time and powers',
    problem(
      "u' = 4*cos(4*t) + (u^2 - (2 + sin(4*t))^2)/3 - t*(u - 2 - sin(4*t))/2 - (u^3 - (2 + sin(4*t))^3)/10\nu(0) = 2\n0 <= t <= 1.8\nu(t) = 2 + sin(4*t)",
    ),
  ],
  [
    'a system of second order',
    problem(
      "x'' = -9*x - 0.6*(x' - 3*cos(3*t))*x + 2*(x^2 - sin(3*t)^2)\nx(0) = 0\nx'(0) = 3\n0 <= t <= 2.3\nx(t) = sin(3*t)",
    ),
  ],
];
const COUNTS = [4, 6, 8, 12, 16, 24, 32, 48, 64, 96, 128, 192, 256, 384, 512, 768, 1024, 2048].reverse();
/** Errors nearer to rounding than that say nothing. */
const CLEAR = 1e-12;

test.each(THREE.flatMap(([name, p]) => LIBRARY.map(({ title }) => [title, name, p] as const)))(
  'the errors of %s over the leading term tend to 1: %s',
  (title, _, p) => {
    const method = findInLibrary(title)!;
    if (method.form === 'second order' && p.size === 1) return;
    const found = leading(p, method)!;
    const compiled = compileWithStart(p, method, { find: findInLibrary, instead: null });
    const exact = exactSolution(p);
    const predicted = leadingAt(found, 0, p.end);
    const part = (steps: number): number | null => {
      if (steps <= method.depth) return null;
      const { values } = integrate(compiled, layGrid(p.start, p.end, { steps }));
      const error = values[0]! - exact.value(0, p.end);
      const h = (p.end - p.start) / steps;
      const isClear = Math.abs(error) > CLEAR * Math.max(1, Math.abs(exact.value(0, p.end)));
      return isClear ? error / (predicted * h ** found.order) : null;
    };
    // 1 + c h + d h^2 + ...: the first two powers of h are taken off, at the finest h that are clear of rounding
    const limits: number[] = [];
    for (const steps of COUNTS) {
      if (limits.length === 4) break;
      const c = part(4 * steps);
      if (c === null) continue;
      const [a, b] = [part(steps), part(2 * steps)];
      if (a !== null && b !== null) limits.push((4 * (2 * c - b) - (2 * b - a)) / 3);
    }
    expect(Math.min(...limits.map((limit) => Math.abs(limit - 1)))).toBeLessThan(0.01);
  },
);

test('between its points the leading error is that of a smooth curve', () => {
  const p = problem("y' = cos(w*t)\nw = 9\ny(0) = 0\n0 <= t <= 2\ny(t) = sin(w*t)/w");
  const euler = leading(p, findInLibrary('Euler')!)!;
  // e' = -y''/2, so that e = (1 - cos w t)/2
  for (const t of [0.001, 0.3333, 1.0101, 1.9995])
    expect(leadingAt(euler, 0, t)).toBeCloseTo((1 - Math.cos(9 * t)) / 2, 3);
});

test('a fast layer at the start is followed', () => {
  const p = problem(
    "p' = -50*(p - cos(t))\np(0) = 0\n0 <= t <= 1.2\np(t) = (2500*cos(t) + 50*sin(t) - 2500*exp(-50*t))/2501",
  );
  const euler = leading(p, findInLibrary('Euler')!)!;
  // e(T) is the integral of exp(-50 (T - s)) (-p''(s)/2), here by Simpson's rule with 20,000 parts
  const second = (t: number): number =>
    (-2500 * Math.cos(t) - 50 * Math.sin(t) - 2500 ** 2 * Math.exp(-50 * t)) / 2501;
  const integral = (end: number): number => {
    const width = end / 20_000;
    let sum = 0;
    for (let i = 0; i <= 20_000; i += 1) {
      const weight = i === 0 || i === 20_000 ? 1 : i % 2 === 1 ? 4 : 2;
      sum += weight * Math.exp(-50 * (end - i * width)) * (-second(i * width) / 2);
    }
    return (sum * width) / 3;
  };
  for (const t of [0.05, 0.6, 1.2]) expect(leadingAt(euler, 0, t) / integral(t)).toBeCloseTo(1, 2);
});

test('where the leading term is zero, the next one is reported with its order', () => {
  // the midpoint rule is of order 2, and its h^3 term is zero where y''' and f_y are
  const p = problem("y' = 3*t^2\ny(0) = 0\n0 <= t <= 2\ny(t) = t^3");
  const trapezoid = leading(p, findInLibrary('Trapezoidal rule')!);
  // h^2/12 (y'(T) - y'(0)) = h^2/12 * 12
  expect(trapezoid).toMatchObject({ order: 2 });
  expect(leadingAt(trapezoid!, 0, 2)).toBeCloseTo(1, 6);
  const cubic = leading(problem("y' = t^3\ny(0) = 0\n0 <= t <= 2\ny(t) = t^4/4"), findInLibrary('Kutta 3')!);
  // Simpson's rule is exact for it: no error to any power that is looked at
  expect(cubic).toBeNull();
  const quartic = leading(
    problem("y' = t^4\ny(0) = 0\n0 <= t <= 1\ny(t) = t^5/5"),
    findInLibrary('Kutta 3')!,
  );
  // Simpson's error h^4/2880 (g'''(1) - g'''(0)), g = t^4
  expect(quartic).toMatchObject({ order: 4 });
  expect(leadingAt(quartic!, 0, 1)).toBeCloseTo(24 / 2880, 8);
});

test('an error that swings a hundred times within the interval is followed from few places on', () => {
  const p = problem("y' = 40*cos(40*t)*y\ny(0) = 1\n0 <= t <= 16\ny(t) = exp(sin(40*t))");
  const euler = leading(p, findInLibrary('Euler')!)!;
  // e = w y with w' = -y''/(2 y) = 800 sin 40t - 800 cos^2 40t
  for (const t of [0.31, 7.7, 16]) {
    const w = 20 * (1 - Math.cos(40 * t)) - 400 * t - 5 * Math.sin(80 * t);
    expect(leadingAt(euler, 0, t) / (w * Math.exp(Math.sin(40 * t)))).toBeCloseTo(1, 3);
  }
});

test('what rounding leaves of terms that cancel is given up at the first look', () => {
  // a parabola: the terms of a formula of order 4 vanish but for rounding
  const p = problem("y' = -0.351*sqrt(y)\ny(0) = 4\n0 <= t <= 6\ny(t) = (2 - 0.351*t/2)^2");
  const { linear, order } = inspectMethod(findInLibrary('Adams-Bashforth 4')!);
  const exact = exactSolution(p);
  let looks = 0;
  const solution = (t: number, out: Float64Array): void => {
    looks += 1;
    out[0] = exact.value(0, t);
  };
  expect(leadingError(linear!, order!, { problem: p, solution, end: p.end })).toBeNull();
  expect(looks).toBe(2 * 65);
});

test('nothing is claimed of a formula that is unstable, has no order, or is looked at where series end', () => {
  const read = (text: string): Method => {
    const reading = parseMethod(text);
    if (!reading.ok) throw new Error('text');
    return reading.value;
  };
  expect(leading(DECAY, read('start with RK4\ny[n+1] = -4*y + 5*y[n-1] + h*(4*f[n] + 2*f[n-1])'))).toBeNull();
  expect(leading(DECAY, read('y[n+1] = y + h/2*f(t, y)'))).toBeNull();
  const singular = problem(
    "y' = 1.5*sqrt(abs(t - 1))*sign(t - 1)\ny(0) = 1\n0 <= t <= 2\ny(t) = abs(t - 1)^1.5",
  );
  expect(leading(singular, findInLibrary('RK4')!)).toBeNull();
});
