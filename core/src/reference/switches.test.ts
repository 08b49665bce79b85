import type { Problem } from '../problem/problem.ts';
import { portrait } from './portrait.ts';
import { drawnSolution, estimatedReference } from './reference-solution.ts';
import { branchesOf } from './switches.ts';
import { problem } from '../test-texts.ts';

function rhs(text: string): Problem {
  return problem(`y' = ${text}\ny(0) = 1\n0 <= t <= 2`);
}

test.each<[string, readonly [number, number], readonly [number, number]]>([
  ['if(t < 1, y, 2)', [0.9, 1], [1.1, 1]],
  ['abs(y - 3)', [0, 2], [0, 4]],
  ['max(y, t)', [0, 1], [2, 1]],
  ['floor(3*t)', [0.3, 1], [0.34, 1]],
  ['mod(t, 0.5)', [0.49, 1], [0.51, 1]],
  ['min(1, if(y > 2, 1, 0))', [0, 1], [0, 3]],
])('%s changes its branch', (text, before, after) => {
  const branches = branchesOf(rhs(text));
  expect(branches?.(before[0], [before[1]])).not.toEqual(branches?.(after[0], [after[1]]));
  expect(branches?.(before[0], [before[1]])).toEqual(branches?.(before[0] + 1e-9, [before[1]]));
});

test('a smooth right-hand side has no branches', () => {
  expect(branchesOf(rhs('sin(t)*y^2/(1 + y)'))).toBeNull();
});

test('a reference is broken at the kink and goes on behind it', () => {
  const of = problem("y' = if(t < 0.7, 1, -2)\ny(0) = 0\n0 <= t <= 2");
  const { solution, kind } = drawnSolution(of);
  const out = new Float64Array(1);
  const at = (t: number): number => {
    solution.at(t, out);
    return out[0]!;
  };
  expect(kind).toBe('taylor');
  expect(solution.switches).toEqual([expect.closeTo(0.7, 12)]);
  for (const t of [0.2, 0.65, 0.7]) expect(at(t)).toBeCloseTo(t, 12);
  for (const t of [0.8, 1.4, 2]) expect(at(t)).toBeCloseTo(0.7 - 2 * (t - 0.7), 11);
});

test('a reference says how exact it is, and it is', () => {
  const of = problem("q'' = -9*q\nq(0) = 1\nq'(0) = 0\n0 <= t <= 10");
  const { solution, error } = estimatedReference(of);
  const out = new Float64Array(2);
  let worst = 0;
  for (let i = 0; i <= 100; i += 1) {
    solution.at(i / 10, out);
    worst = Math.max(worst, Math.abs(out[0]! - Math.cos((3 * i) / 10)));
  }
  expect(worst).toBeLessThan(5e-14);
  expect(error).toBeLessThan(1e-13);
});

test('a solution that becomes non-finite is followed up to there', () => {
  const { solution } = drawnSolution(problem("m' = m^2\nm(0) = 1\n0 <= t <= 3"));
  expect(solution.reached).toBeGreaterThan(0.99);
  expect(solution.reached).toBeLessThanOrEqual(1);
});

test('a portrait shows the exact solution where it is given, with the field of one component', () => {
  const made = portrait(problem("y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)"));
  expect(made.kind).toBe('exact');
  expect(made.t).toHaveLength(401);
  expect(made.values[0]?.at(-1)).toBeCloseTo(Math.exp(-2), 14);
  for (const { y, dx, dy } of made.field) expect([dx, dy]).toEqual([1, -y]);
});

test('of two components the field stands in their plane, of more there is none', () => {
  const two = portrait(problem("x' = z\nz' = -x\nx(0) = 1\nz(0) = 0\n0 <= t <= 1"));
  expect(two.kind).toBe('taylor');
  for (const { x, y, dx, dy } of two.field) {
    expect(dx).toBe(y);
    expect(dy === -x).toBe(true);
  }
  const three = portrait(problem("x' = z\nz' = -x\nw' = x\nx(0) = 1\nz(0) = 0\nw(0) = 0\n0 <= t <= 1"));
  expect(three.field).toEqual([]);
});

test.each([-10, -1000, -1e5])("underflow is no kink: y' = %d y is followed to zero", (rate) => {
  const { solution, error } = estimatedReference(problem(`y' = ${rate}*y\ny(0) = 1\n0 <= t <= 1`));
  expect([solution.ending, solution.switches]).toEqual([null, []]);
  expect(error).toBeLessThan(1e-14);
  const out = new Float64Array(1);
  for (const t of [0.001, 0.01, 0.1, 0.5, 1]) {
    solution.at(t, out);
    const exact = Math.exp(rate * t);
    expect(Math.abs(out[0]! - exact)).toBeLessThanOrEqual(1e-11 * exact + 1e-290);
  }
});

test.each([
  // the right-hand side changes its sign at every passage through zero, ever faster
  "y' = if(y > 0, -1, 1)\ny(0) = 0\n0 <= t <= 1",
  "y' = -1e6*sqrt(y) + cos(t)\ny(0) = 2\n0 <= t <= 1",
])('right-hand sides that switch to and fro without end are given up soon: %s', (text) => {
  const { solution } = estimatedReference(problem(text));
  expect(solution.ending).not.toBeNull();
  expect(solution.steps).toBeLessThan(6_000);
});

test('a picture of a solution takes a moment, whatever the right-hand side', () => {
  // some 9e15 oscillations
  const fast = portrait(problem("y' = sin(9007199254740993*t)\ny(0) = 0\n0 <= t <= 1"));
  expect(fast.ends).not.toBeNull();
  const whole = portrait(problem("y' = -y\ny(0) = 1\n0 <= t <= 1"));
  expect(whole.ends).toBeNull();
});
