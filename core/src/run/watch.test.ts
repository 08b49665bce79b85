import { compileWithStart } from '../compile/compile-with-start.ts';
import type { CompiledRun } from '../compile/compile.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { Refusal } from '../text/refusal.ts';
import { conservedQuantities, drift } from './conserved.ts';
import { exactSolution } from './exact-solution.ts';
import { layGrid } from './grid.ts';
import { begin, copyOf, goTo, integrate, newtonWork, type RunState, watchTo } from './integrate.ts';
import { norm } from './norm.ts';
import { rowsOf } from './rows.ts';
import { problem } from '../test-texts.ts';

function compiled(text: string, title: string): CompiledRun {
  const method = findInLibrary(title);
  if (method === null) throw new Error(title);
  return compileWithStart(problem(text), method, { find: findInLibrary, instead: null });
}

const SWAY = "q'' = -9*q\nq(0) = 1\nq'(0) = 0\n0 <= t <= 4\nconserved E = q'^2/2 + 9*q^2/2";

/** Every value on the way, one step after another. */
function allValues(at: RunState, until: number, component: number): readonly { n: number; value: number }[] {
  const list: { n: number; value: number }[] = [];
  while (at.n < until) {
    goTo(at, at.n + 1);
    list.push({ n: at.n, value: at.state[component]! });
  }
  return list;
}

test.each([
  ['RK4', 0, 50],
  ['RK4', 7, 71],
  ['Heun', 0, 200],
  ['Adams-Bashforth 2', 0, 90],
])('%s from %d to %d: the extremes on the way, each with its own grid point', (title, from, until) => {
  const run = compiled(SWAY, title);
  const grid = layGrid(0, 4, { steps: 200 });
  for (const component of [0, 1]) {
    const at = begin(run, grid);
    goTo(at, from);
    const all = allValues(copyOf(at), until, component);
    const low = all.reduce((least, one) => (one.value < least.value ? one : least));
    const high = all.reduce((most, one) => (one.value > most.value ? one : most));
    const expected = low.n < high.n ? [low, high] : [high, low];
    expect(watchTo(at, until, 2)[component]).toEqual(expected);
    expect(at.n).toBe(until);
  }
});

test('a value that never changes is one sample, of the first grid point that has it', () => {
  const run = compiled("y' = 0\ny(0) = 3\n0 <= t <= 1", 'Euler');
  expect(watchTo(begin(run, layGrid(0, 1, { steps: 40 })), 40, 1)).toEqual([[{ n: 1, value: 3 }]]);
});

test('a watch ends where the run becomes non-finite, with what it had seen', () => {
  const run = compiled("m' = m^2\nm(0) = 1\n0 <= t <= 3", 'Euler');
  const at = begin(run, layGrid(0, 3, { steps: 300 }));
  const [samples] = watchTo(at, 300, 1);
  expect(at.stopped?.step).toBe(at.n + 1);
  expect(samples?.at(-1)?.n).toBe(at.n);
  expect(samples?.[0]).toMatchObject({ n: 1 });
});

test('a copy of a run goes on by itself, its starter too', () => {
  const run = compiled(SWAY, 'Adams-Bashforth 4');
  const at = begin(run, layGrid(0, 4, { steps: 50 }));
  goTo(at, 2);
  const copy = copyOf(at);
  goTo(copy, 50);
  expect(at.n).toBe(2);
  goTo(at, 50);
  expect(at.state).toEqual(copy.state);
});

test('what a run keeps is not told as its values', () => {
  const run = compiled(SWAY, 'Adams-Bashforth 4');
  expect(integrate(run, layGrid(0, 4, { steps: 50 })).values).toHaveLength(2);
});

test.each([
  ['too few steps', { steps: 2 }, 'fit', 'this method uses 3 earlier steps, and the grid has 2'],
  [
    'a shorter last step',
    { h: 0.3 },
    'shorten',
    'a multistep method needs a constant step size; the last step cannot be shortened',
  ],
] as const)('a multistep formula refuses %s', (_, gridRequest, lastStep, message) => {
  const run = compiled(SWAY, 'Adams-Bashforth 4');
  expect(() => begin(run, layGrid(0, 4, gridRequest, lastStep))).toThrow(new Refusal('grid', message));
});

test('iterations of Newton’s method are counted, and an explicit method needs none', () => {
  const decay = "y' = -y^3\ny(0) = 1\n0 <= t <= 1";
  const of = (title: string): number => {
    const at = begin(compiled(decay, title), layGrid(0, 1, { steps: 10 }));
    goTo(at, 10);
    return newtonWork(at).iterations;
  };
  expect(of('RK4')).toBe(0);
  expect(of('Implicit midpoint')).toBeGreaterThanOrEqual(20);
});

test('conserved quantities drift from their value at the start', () => {
  const of = problem(SWAY);
  const quantities = conservedQuantities(of);
  expect(quantities.map(({ name, at }) => [name, at(0, [1, 0]), at(0, [0, 2])])).toEqual([['E', 4.5, 2]]);
  expect(drift(of, quantities, 0, [0, 2])).toEqual({ E: -2.5 });
});

test('the exact solution by component, and where it is not known', () => {
  const of = exactSolution(problem("x' = -z\nz' = x\nx(0) = 1\nz(0) = 0\n0 <= t <= 1\nx(t) = cos(t)"));
  expect([of.known(0), of.known(1), of.known(2)]).toEqual([true, false, false]);
  expect(of.value(0, 0)).toBe(1);
  expect(of.value(1, 0)).toBeNaN();
  const family = exactSolution(
    problem(
      'u[i]’ = -i*u[i] for i = 1..3\nu[i](0) = i for i = 1..3\n0 <= t <= 1\nu[i](t) = i*exp(-i*t) for i = 1..3',
    ),
  );
  expect([0, 1, 2].map((place) => family.value(place, 0))).toEqual([1, 2, 3]);
});

test('rows have the slope at every point, and the stages of the step that starts there', () => {
  const run = compiled("y' = -2*y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-2*t)", 'Heun');
  const { rows } = rowsOf(run, layGrid(0, 1, { steps: 4 }), { from: 0, count: 10 });
  expect(rows.map(({ n, t }) => [n, t])).toEqual([0, 1, 2, 3, 4].map((n) => [n, n / 4]));
  for (const { values, slopes } of rows) expect(slopes[0]).toBe(-2 * values[0]!);
  // k1 = -2 y, k2 = -2 (y + k1/4)
  expect(rows[0]?.stages).toEqual([[-2], [-1]]);
  expect(rows.at(-1)?.stages).toBeNull();
  expect(rows[2]?.exact[0]).toBeCloseTo(Math.exp(-1), 15);
});

test('a window of rows is what the whole table has there', () => {
  const run = compiled(SWAY, 'RK4');
  const grid = layGrid(0, 4, { steps: 30 });
  const all = rowsOf(run, grid, { from: 0, count: 31 }).rows;
  expect(rowsOf(run, grid, { from: 11, count: 4 }).rows).toEqual(all.slice(11, 15));
  expect(rowsOf(run, grid, { from: 29, count: 10 }).rows).toEqual(all.slice(29));
});

test('the Euclidean norm', () => {
  expect(norm([3, 4])).toBe(5);
  expect(norm([])).toBe(0);
});
