import { openStudy } from '../document/open-study.ts';
import type { StudyDocument } from '../document/document.ts';
import { runStudy } from './run-study.ts';
import type { StudyResult } from './study-result.ts';

function study(more: Partial<StudyDocument>): StudyResult {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text: "y' = a*y\na = -2\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(a*t)" },
    methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
    ladder: { counts: [10, 30, 70, 200] },
    ...more,
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return runStudy(opened.study);
}

test('errors and orders on a ladder of mixed ratios follow the closed form', () => {
  const rungs = study({}).methods[0]!.rungs;
  const error = (n: number): number => Math.abs((1 - 2 / n) ** n - Math.exp(-2));
  const counts = [10, 30, 70, 200];
  rungs.forEach((rung, i) => {
    expect(Math.abs(rung.error! / error(counts[i]!) - 1)).toBeLessThan(1e-11);
    if (i === 0) {
      expect(rung.order).toBeNull();
      return;
    }
    const [n1, n2] = [counts[i - 1]!, counts[i]!];
    expect(rung.ratio).toBeCloseTo(error(n1) / error(n2), 9);
    expect(rung.order).toBeCloseTo(Math.log(error(n1) / error(n2)) / Math.log(n2 / n1), 9);
  });
});

test('a ladder of counts begins at one step and takes whole numbers alone', () => {
  const [once] = study({ ladder: { counts: [1, 2] } }).methods[0]!.rungs;
  // one Euler step over the whole interval: 1 - 2
  expect(once!.error).toBeCloseTo(1 + Math.exp(-2), 14);
  const [none, half] = study({ ladder: { counts: [0, 1.5] } }).problems;
  expect(none).toMatch('the number of steps must be a positive integer, not 0');
  expect(half).toMatch('the number of steps must be a positive integer, not 1.5');
});

test('the error of a system is the Euclidean norm, or that of one component', () => {
  const problem = {
    title: 'Sway',
    text: "x' = v\nv' = -x\nx(0) = 1\nv(0) = 0\n0 <= t <= 1\nx(t) = cos(t)\nv(t) = -sin(t)",
  };
  const whole = study({ problem }).methods[0]!.rungs[0]!;
  const first = study({ problem, error: { at: 'end', of: 'x', scale: 'absolute' } }).methods[0]!.rungs[0]!;
  // Euler on the circle multiplies x + iv by (1 - ih): modulus (1 + h^2)^(N/2), angle -N*atan(h).
  const r = (1 + 0.01) ** 5;
  const angle = 10 * Math.atan(0.1);
  const dx = r * Math.cos(angle) - Math.cos(1);
  const dv = -r * Math.sin(angle) + Math.sin(1);
  expect(whole.error).toBeCloseTo(Math.hypot(dx, dv), 13);
  expect(first.error).toBeCloseTo(Math.abs(dx), 13);
});

test('maximum and root mean square run over the grid', () => {
  const errors = Array.from({ length: 11 }, (_, n) => Math.abs((1 - 0.2) ** n - Math.exp(-0.2 * n)));
  const ladder = { counts: [10] };
  const max = study({ ladder, error: { at: 'max', of: 'norm', scale: 'absolute' } }).methods[0]!.rungs[0]!;
  const rms = study({ ladder, error: { at: 'rms', of: 'norm', scale: 'absolute' } }).methods[0]!.rungs[0]!;
  expect(max.error).toBeCloseTo(Math.max(...errors), 14);
  expect(rms.error).toBeCloseTo(Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / 11), 14);
});

test('a rung that stops and a rung that cannot be laid do not spoil the others', () => {
  const result = study({
    problem: { title: 'Avalanche', text: "m' = m^2\nm(0) = 1\n0 <= t <= 0.9\nm(t) = 1/(1 - t)" },
    methods: [{ title: 'Forgot h', text: 'y[n+1] = y + 400*h*f(t, y)' }],
    ladder: { sizes: [0.09, 1e-12, 0.3] },
  });
  expect(result.methods[0]!.rungs.map((r) => r.stopped === null)).toEqual([false, true]);
  expect(result.methods[0]!.rungs[0]!.error).toBeNull();
  expect(result.problems).toEqual([expect.stringContaining('at most 100,000,000')]);
});

const EULER = { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' };
const KUTTA = {
  title: 'Kutta 3',
  text: 'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h, y - h*k1 + 2*h*k2)\ny[n+1] = y + h/6*(k1 + 4*k2 + k3)',
};
const RK4 = {
  title: 'RK4',
  text: 'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)',
};

test('past the end the error is taken where the run ends, and the table says what that does', () => {
  const { methods, findings } = study({
    problem: { title: 'P', text: "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)" },
    ladder: { sizes: [0.5, 0.35, 0.25, 0.125] },
    lastStep: 'overrun',
  });
  const rung = methods[0]!.rungs[1]!;
  const error = Math.abs(0.65 ** 6 - Math.exp(-0.35 * 6));
  // the same five steps, and a sixth that is made to end at 2
  const atEnd = Math.abs(0.65 ** 5 * (1 - (2 - 5 * 0.35)) - Math.exp(-2));
  expect(rung.error).toBeCloseTo(error, 14);
  expect(rung.errorAtEnd).toBeCloseTo(atEnd, 14);
  expect(rung.leftOut).toEqual({ kind: 'other time' });
  const times = (error / atEnd).toPrecision(3);
  const sentence = `at h = 0.35 the last point is t = 2.1, not 2: the error is taken there, ${times} times the one at 2`;
  expect(rung.remark).toBe(sentence);
  expect(findings).toContainEqual(
    expect.objectContaining({ kind: 'last step', method: 0, rungs: [1], sentence: `A${sentence.slice(1)}.` }),
  );
  expect(methods[0]!.fit!.rungs).toEqual([0, 2, 3]);
});

test('an error between grid points keeps the order of the method', () => {
  const { methods } = study({
    methods: [KUTTA, RK4],
    ladder: { counts: [11, 21, 41, 81, 161, 321] },
    error: { at: { t: 0.5 }, of: 'norm', scale: 'absolute' },
  });
  methods.forEach(({ rungs, order }, i) => {
    expect(rungs[1]!.taken).toMatchObject({ t: 0.5, how: 'between' });
    expect(order!.low).toBeLessThan(3 + i);
    expect(order!.high).toBeGreaterThan(3 + i);
    expect(order!.high - order!.low).toBeLessThan(0.3);
  });
});

test('a local error is that of one step from exact values: order p + 1, for formulas that reach back as well', () => {
  const { methods, findings } = study({
    methods: [EULER, { title: 'AB2', text: 'start with Euler\ny[n+1] = y + h*(3/2*f[n] - 1/2*f[n-1])' }],
    ladder: { counts: [20, 40, 80, 160, 320] },
    error: { at: 'local', of: 'norm', scale: 'absolute' },
  });
  methods[0]!.rungs.forEach(({ h, error }) =>
    expect(error).toBeCloseTo(Math.abs(1 - 2 * h - Math.exp(-2 * h)), 15),
  );
  methods[1]!.rungs.forEach(({ h, error, t }) => {
    expect(t).toBeCloseTo(2 * h, 15);
    const y = [1, Math.exp(-2 * h)];
    const next = y[1]! + h * (1.5 * -2 * y[1]! - 0.5 * -2 * y[0]!);
    expect(error).toBeCloseTo(Math.abs(next - Math.exp(-4 * h)), 14);
  });
  expect(methods.map(({ promised }) => promised)).toEqual([
    { kind: 'order', order: 2, by: 'proof' },
    { kind: 'order', order: 3, by: 'proof' },
  ]);
  expect(findings.filter(({ kind }) => kind === 'as promised').map(({ method }) => method)).toEqual([0, 1]);
});

test('digits that agree and correct decimal places', () => {
  const problem = { title: 'P', text: "y' = -y\ny(0) = 1000\n0 <= t <= 1\ny(t) = 1000*exp(-t)" };
  const { error, digits, places } = study({ problem, ladder: { counts: [100_000] } }).methods[0]!.rungs[0]!;
  const expected = Math.abs(1000 * (1 - 1e-5) ** 100_000 - 1000 / Math.E);
  expect(digits).toBeCloseTo(-Math.log10(expected / (1000 / Math.E)), 5);
  // 1.84e-3 is at most half a unit of the second decimal place, and not of the third
  expect(error).toBeGreaterThan(0.5e-3);
  expect(places).toBe(2);
});

test('without an exact solution errors are against a reference, and three rungs give order and value without one', () => {
  const given = study({ ladder: { counts: [20, 60, 100, 300] } }).methods[0]!;
  const bare = study({
    problem: { title: 'P', text: "y' = a*y\na = -2\ny(0) = 1\n0 <= t <= 1" },
    ladder: { counts: [20, 60, 100, 300] },
  });
  expect(bare.truth).toMatchObject({ kind: 'taylor' });
  expect(bare.truth!.error).toBeLessThan(1e-13);
  bare.methods[0]!.rungs.forEach(({ error }, i) =>
    expect(Math.abs(error! - given.rungs[i]!.error!)).toBeLessThan(1e-14),
  );
  const three = bare.methods[0]!.rungs[3]!.extrapolated!;
  expect(three.order).toBeCloseTo(1, 1);
  const value = (1 - 2 / 300) ** 300;
  // what Richardson takes off is most of the error
  expect(Math.abs(three.values[0]! - Math.exp(-2))).toBeLessThan(0.03 * Math.abs(value - Math.exp(-2)));
  expect(three.error / Math.abs(value - Math.exp(-2))).toBeCloseTo(1, 1);
});

test('costs count every evaluation, those of starting steps and of Newton’s method included', () => {
  const { methods } = study({
    methods: [
      RK4,
      { title: 'AB2', text: 'start with RK4\ny[n+1] = y + h*(3/2*f[n] - 1/2*f[n-1])' },
      { title: 'Taylor 2', text: "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)" },
      { title: 'Backward', text: 'solve y[n+1] = y + h*f(t + h, y[n+1])' },
    ],
    ladder: { counts: [10] },
  });
  const costs = methods.map(({ rungs }) => rungs[0]!.cost);
  expect(costs[0]).toMatchObject({ f: 40, derivatives: [], newton: 0 });
  // four for the first step, and one each for the ten grid points before the last
  expect(costs[1]).toMatchObject({ f: 14, newton: 0 });
  expect(costs[2]).toMatchObject({ f: 10, derivatives: [10] });
  // a linear equation: the second iteration finds nothing more to do
  expect(costs[3]!.newton).toBeGreaterThanOrEqual(10);
  expect(costs[3]!.newton).toBeLessThanOrEqual(30);
  expect(costs[3]!.f).toBe(costs[3]!.newton);
});

test('methods are compared between their rungs, never beyond them', () => {
  const { comparison } = study({
    methods: [EULER, RK4],
    ladder: { counts: [10, 100, 1000] },
    wished: 1e-3,
  });
  // Euler: e = 2 exp(-2)/N to first order, so N near 271; RK4 is below 1e-3 with 10 steps already
  expect(comparison!.needs.map(({ method }) => method)).toEqual([1, 0]);
  expect(comparison!.needs[0]).toMatchObject({ steps: 10, evaluations: 40 });
  expect(Math.abs(comparison!.needs[1]!.steps - 271)).toBeLessThan(8);
  expect(
    study({ methods: [EULER, RK4], ladder: { counts: [10, 100] }, wished: 1e-7 }).comparison,
  ).toMatchObject({
    needs: [{ method: 1 }],
    short: [0],
  });
});
