import { compileWithStart } from '../compile/compile-with-start.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { parseMethod } from '../method/parse-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { type GridRequest, layGrid, type LastStep } from './grid.ts';
import { begin, fillRows, goTo, roomForRows } from './integrate.ts';

const PAIR = "m' = m*(1.1 - 0.4*l)\nl' = l*(0.1*m - 0.4)\nm(0) = 10\nl(0) = 5\n0 <= t <= 12";
const FAMILY =
  "u[i]' = 0.3*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..40\nu[0] = 0\nu[41] = 0\nu[i](0) = i for i = 1..40\n0 <= t <= 1";
/** Overflows shortly after t = 1. */
const OVERFLOWS = "y' = y^2\ny(0) = 1\n0 <= t <= 2";
const AB4 = 'start with RK4\ny[n+1] = y + h/24*(55*f[n] - 59*f[n-1] + 37*f[n-2] - 9*f[n-3])';
const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)';

function ready(problemText: string, methodText: string, request: GridRequest, lastStep: LastStep = 'fit') {
  const problem = parseProblem(problemText);
  const method = parseMethod(methodText);
  if (!problem.ok || !method.ok) throw new Error('cannot be read');
  const run = compileWithStart(problem.value, method.value, { find: findInLibrary, instead: null });
  return { run, grid: layGrid(problem.value.start, problem.value.end, request, lastStep) };
}

test.each<[string, ReturnType<typeof ready>]>([
  ['a pair', ready(PAIR, HEUN, { steps: 20_000 })],
  ['a multistep method', ready(PAIR, AB4, { steps: 9_001 })],
  ['a shorter last step', ready(PAIR, HEUN, { h: 0.7 }, 'shorten')],
  ['a family', ready(FAMILY, HEUN, { steps: 50 })],
  ['a run that overflows', ready(OVERFLOWS, HEUN, { steps: 500 })],
])('rows filled at once are those of single steps: %s', (_, { run, grid }) => {
  const single = begin(run, grid);
  const at = begin(run, grid);
  const rows = roomForRows(run);
  const { size } = run.shape;
  let longest = 0;
  while (at.n < grid.steps && at.stopped === null) {
    const count = fillRows(at, grid.steps, rows);
    longest = Math.max(longest, count);
    for (let r = 0; r < count; r += 1) {
      goTo(single, single.n + 1);
      expect(rows.subarray(r * size, (r + 1) * size)).toEqual(single.state.subarray(0, size));
    }
  }
  if (single.n < grid.steps) goTo(single, single.n + 1);
  expect(at.n).toBe(single.n);
  expect(at.stopped).toEqual(single.stopped);
  expect(at.state).toEqual(single.state);
  // all but the family are done by blocks, up to where they overflow
  expect(longest > 1).toBe(run.rows !== null);
});
