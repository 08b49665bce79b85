import { findInLibrary } from '../method/library/find-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { finish } from '../study/run-study.ts';
import { compileWithStart } from '../compile/compile-with-start.ts';
import type { CompiledRun } from '../compile/compile.ts';
import { layGrid } from './grid.ts';
import { KEPT_POINTS, keepRun, rowsAgain } from './long-run.ts';
import { rowsOf } from './rows.ts';

function compiled(text: string, title: string): CompiledRun {
  const problem = parseProblem(text);
  const method = findInLibrary(title);
  if (!problem.ok || method === null) throw new Error(title);
  return compileWithStart(problem.value, method, { find: findInLibrary, instead: null });
}

/** Quiet but for one spike a few steps wide. */
const SPIKE = "y' = 1e4*(4.00005 - t)*exp(-(1e3*(t - 4.00005))^2)*2e2\ny(0) = 0\n0 <= t <= 10";

test('a thinned trajectory of a long run keeps its spike and its ends', () => {
  const run = compiled(SPIKE, 'Euler');
  const grid = layGrid(0, 10, { steps: 300_000 });
  const longRun = finish(keepRun(run, grid));
  const [kept] = longRun.components;
  expect(kept!.t.length).toBeLessThanOrEqual(KEPT_POINTS + 2);
  let y = 0;
  let highest = -Infinity;
  for (let n = 0; n < 300_000; n += 1) {
    const t = 0 + n * grid.h;
    const x = 1e3 * (t - 4.00005);
    y = y + grid.h * (1e4 * (4.00005 - t) * Math.exp(-(x * x)) * 2e2);
    highest = Math.max(highest, y);
  }
  expect(Math.max(...kept!.values)).toBe(highest);
  expect(highest).toBeGreaterThan(0.5);
  expect([kept!.t[0], kept!.t.at(-1), kept!.values.at(-1)]).toEqual([0, 10, y]);
});

test.each([
  ['RK4', "x' = v\nv' = -sin(x)\nx(0) = 1\nv(0) = 0\n0 <= t <= 50"],
  ['Adams-Bashforth 4', "x' = v\nv' = -sin(x)\nx(0) = 1\nv(0) = 0\n0 <= t <= 50"],
  ['BDF 2', "x' = v\nv' = -sin(x)\nx(0) = 1\nv(0) = 0\n0 <= t <= 50"],
  [
    'Adams-Bashforth 3',
    "u[i]' = u[i-1] - 2*u[i] + u[i+1] for i = 1..n\nn = 30\nu[0] = 1\nu[n+1] = 0\nu[i](0) = 1/i for i = 1..n\n0 <= t <= 5",
  ],
])('a window of rows of %s, computed again from a checkpoint, has the same bits', (title, text) => {
  const run = compiled(text, title);
  const grid = layGrid(run.problem.start, run.problem.end, { steps: 20_000 });
  const longRun = finish(keepRun(run, grid));
  expect(longRun.checkpoints.length).toBeGreaterThan(100);
  for (const from of [0, 2, 777, 13_331, 19_995])
    expect(rowsAgain(longRun, from, 5)).toEqual(rowsOf(run, grid, { from, count: 5 }));
});

test('a long run that is given up midway has done only part of the work', () => {
  const work = keepRun(compiled(SPIKE, 'RK4'), layGrid(0, 10, { steps: 1e8 }));
  const first = work.next();
  expect(first.done).toBe(false);
  expect(first.value).toBeLessThan(0.05);
  work.return(finish(keepRun(compiled(SPIKE, 'Euler'), layGrid(0, 10, { steps: 10 }))));
});
