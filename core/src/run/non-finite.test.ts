import { compileWithStart } from '../compile/compile-with-start.ts';
import type { Precision } from '../compile/precision.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { parseMethod } from '../method/parse-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { layGrid } from './grid.ts';
import { integrate } from './integrate.ts';
import type { Stop } from './non-finite.ts';

function stopOf(
  problemText: string,
  methodText: string,
  steps: number,
  precision: Precision = 'double',
): Stop | null {
  const problem = parseProblem(problemText);
  const method = parseMethod(methodText);
  if (!problem.ok || !method.ok) throw new Error(JSON.stringify([problem, method]));
  const run = compileWithStart(problem.value, method.value, {
    find: findInLibrary,
    instead: null,
    precision,
  });
  const { start, end } = problem.value;
  return integrate(run, layGrid(start, end, { steps })).stopped;
}

const EULER = 'y[n+1] = y + h*f(t, y)';
const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)';

test.each<[string, string, string, number, Partial<Stop>]>([
  [
    'a root of a negative value, in the second stage',
    "level' = -4*sqrt(level)\nlevel(0) = 1\n0 <= t <= 1",
    HEUN,
    2,
    { step: 1, t: 0, stage: 'k2', why: "sqrt(-1) is not a real number in level'" },
  ],
  [
    'a division by nothing',
    "y' = 1/(t - 0.5)\ny(0) = 0\n0 <= t <= 1",
    EULER,
    4,
    { step: 3, t: 0.5, stage: 'y[n+1]', why: "1 is divided by 0 in y'" },
  ],
  [
    'a logarithm of zero',
    "y' = ln(y)\ny(0) = 0\n0 <= t <= 1",
    EULER,
    4,
    { step: 1, why: "ln(0) overflows in y'" },
  ],
  [
    'a power that grows beyond all numbers',
    "m' = m^2\nm(0) = 1e200\n0 <= t <= 1",
    EULER,
    4,
    { step: 1, why: "1e+200^2 overflows in m'" },
  ],
  [
    'a negative base',
    "m' = m^0.5\nm(0) = -1\n0 <= t <= 1",
    EULER,
    4,
    { why: "(-1)^0.5 is not a real number in m'" },
  ],
  [
    'the formula itself',
    "y' = y\ny(0) = 1\n0 <= t <= 1",
    'y[n+1] = y + h*f(t, y)/(t - 0.5)',
    4,
    { step: 3, stage: 'y[n+1]', why: '0 is divided by 0' },
  ],
  [
    'a slope at the grid point to come',
    "y' = 1/(t - 1)\ny(0) = 0\n0 <= t <= 2",
    'y[n+1] = y + h*f(t[n+1], y)',
    4,
    { step: 2, t: 0.5, why: "1 is divided by 0 in y'" },
  ],
  [
    'one component of a system, named',
    "x' = z\nz' = ln(x - t - 1)\nx(0) = 2\nz(0) = 0\n0 <= t <= 4",
    EULER,
    4,
    { step: 2, t: 1, why: "ln(0) overflows in z'" },
  ],
  [
    'one element of a family, named',
    'u[i]’ = sqrt(u[i] - i) for i = 1..20\nu[i](0) = 3 for i = 1..20\n0 <= t <= 1',
    EULER,
    4,
    { step: 1, why: "sqrt(-1) is not a real number in u[4]'" },
  ],
  [
    'a derivative of the right-hand side',
    "y' = sqrt(y)\ny(0) = 0\n0 <= t <= 1",
    "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)",
    4,
    { step: 1, why: "f' is not finite for y" },
  ],
  [
    'equations that have no solution',
    "y' = y^2\ny(0) = 1\n0 <= t <= 4",
    'solve y[n+1] = y + h*f(t + h, y[n+1])',
    4,
    { step: 1, stage: 'y[n+1]', why: expect.stringContaining("Newton's method") },
  ],
])('%s', (_, problem, method, steps, expected) => {
  expect(stopOf(problem, method, steps)).toMatchObject(expected);
});

test('a step of the starting method becomes non-finite in that method', () => {
  const stopped = stopOf(
    "level' = -4*sqrt(level)\nlevel(0) = 1\n0 <= t <= 2",
    'start with Heun\ny[n+1] = y + h/2*(3*f[n] - f[n-1])',
    4,
  );
  expect(stopped).toMatchObject({ step: 1, stage: 'k2' });
});

test('single precision overflows where doubles do not, and the interpreter finds the same operation', () => {
  const text = "m' = m*m\nm(0) = 1e20\n0 <= t <= 1";
  expect(stopOf(text, EULER, 1)).toBeNull();
  expect(stopOf(text, EULER, 1, 'single')).toMatchObject({
    step: 1,
    why: "1e+20 * 1e+20 overflows in m'",
  });
});

test('a run that stays within the numbers stops nowhere', () => {
  expect(stopOf("y' = -y\ny(0) = 1\n0 <= t <= 1", HEUN, 16)).toBeNull();
});
