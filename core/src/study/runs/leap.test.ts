import { compileWithStart } from '../../compile/compile-with-start.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import { layGrid } from '../../run/grid.ts';
import { type Leap, leapFinder } from './leap.ts';

function leap(text: string, method: string, steps: number): Leap | null {
  const problem = parseProblem(text);
  if (!problem.ok) throw new Error(JSON.stringify(problem.errors));
  const { start, end } = problem.value;
  const run = compileWithStart(problem.value, findInLibrary(method)!, {
    find: findInLibrary,
    instead: null,
    precision: 'double',
  });
  return leapFinder(run)(layGrid(start, end, { steps }));
}

const MARMOTS = "y' = y*(1 - y)\ny(0) = 0.01\n0 <= t <= 12";

test('a step of backward Euler to the other root of its equation is reported, with both roots', () => {
  // Newton's method from the present value y0 turns round where 1 - h*(1 - 2*y0) changes its sign
  const y0 = 0.01;
  const h = 1 / (1 - 2 * y0);
  // the roots of h*y^2 + (1 - h)*y - y0 = 0
  const [middle, half] = [(h - 1) / (2 * h), Math.sqrt((h - 1) ** 2 + 4 * h * y0) / (2 * h)];
  const found = leap(MARMOTS, 'Backward Euler', 5)!;
  expect(found).toMatchObject({ step: 1, t: 0, component: 'y' });
  expect(Math.abs(found.h - h)).toBeLessThan(1e-9);
  expect(Math.abs(found.from - (middle + half))).toBeLessThan(1e-9);
  expect(Math.abs(found.to - (middle - half))).toBeLessThan(1e-9);
});

test.each([
  ['small steps', MARMOTS, 'Backward Euler', 40],
  ['an explicit formula', MARMOTS, 'RK4', 5],
  ['a formula that reaches back', "y' = -y^3\ny(0) = 1\n0 <= t <= 4", 'BDF 2', 8],
  ['a steep slope', "y' = -1e6*(y - cos(t))\ny(0) = 0\n0 <= t <= 4", 'Backward Euler', 8],
  // a right-hand side that jumps takes the step with it
  [
    'a jump of the right-hand side',
    "y' = -y^3 + if(t < 0.7, 0, 40)\ny(0) = 1\n0 <= t <= 4",
    'Backward Euler',
    3,
  ],
])('none is listed %s', (_, text, method, steps) => {
  expect(leap(text, method, steps)).toBeNull();
});
