import { openStudy } from '../../document/open-study.ts';
import type { StudyDocument } from '../../document/document.ts';
import { runStudy } from '../run-study.ts';
import type { StudyResult } from '../study-result.ts';
import type { RungResult } from '../judge/method-result.ts';
import { evaluations } from './cost.ts';
import { errorChoice, isRelative } from './error-choice.ts';
import { methodSigns, runSteps } from './run-methods.ts';

const DECAY = "y' = -2*y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-2*t)";
const EULER = { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' };
const HEUN = { title: 'Heun', text: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)' };

function open(more: Partial<StudyDocument> = {}, text = DECAY) {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text },
    methods: [EULER],
    ladder: { counts: [10] },
    ...more,
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

function result(more: Partial<StudyDocument> = {}, text = DECAY): StudyResult {
  return runStudy(open(more, text));
}

function rung(more: Partial<StudyDocument> = {}, text = DECAY, place = 0): RungResult {
  return result(more, text).methods[0]!.rungs[place]!;
}

/** Euler on y' = -2 y: y_n = (1 - 2 h)^n, written out. */
function eulerErrors(steps: number): readonly number[] {
  const h = 2 / steps;
  let y = 1;
  return Array.from({ length: steps + 1 }, (_, n) => {
    if (n > 0) y += h * (-2 * y);
    return Math.abs(y - Math.exp(-2 * n * h));
  });
}

const ERRORS = eulerErrors(10);

test('the error at the end, at a time, the largest, the mean and that of one step', () => {
  expect(rung().error).toBeCloseTo(ERRORS[10]!, 15);
  expect(rung({ error: { at: { t: 1 } } }).error).toBeCloseTo(ERRORS[5]!, 15);
  expect(rung({ error: { at: 'max' } }).error).toBeCloseTo(Math.max(...ERRORS), 15);
  const mean = Math.sqrt(ERRORS.reduce((sum, e) => sum + e * e, 0) / 11);
  expect(rung({ error: { at: 'rms' } }).error).toBeCloseTo(mean, 15);
  expect(rung({ error: { at: 'local' } }).error).toBeCloseTo(ERRORS[1]!, 15);
});

test('a relative error is one of the size of the exact value, also given as digits and places', () => {
  const exact = Math.exp(-4);
  const relative = ERRORS[10]! / exact;
  expect(rung({ error: { scale: 'relative' } }).error).toBeCloseTo(relative, 13);
  expect(rung({ error: { scale: 'digits' } }).digits).toBeCloseTo(-Math.log10(relative), 12);
  // half a unit of the second place is 0.005
  expect(rung({ error: { scale: 'places' } }).places).toBe(Math.floor(-Math.log10(2 * ERRORS[10]!)));
  expect([
    isRelative(errorChoice({ scale: 'digits' })),
    isRelative(errorChoice({ scale: 'places' })),
  ]).toEqual([true, false]);
});

test('what a file leaves out of its error is at the end, of all, absolute', () => {
  expect(errorChoice(undefined)).toEqual({ at: 'end', of: 'norm', scale: 'absolute' });
  expect(errorChoice({ at: 'max' })).toEqual({ at: 'max', of: 'norm', scale: 'absolute' });
});

const TWO = "x' = -x\nz' = -3*z\nx(0) = 3\nz(0) = 4\n0 <= t <= 1\nx(t) = 3*exp(-t)\nz(t) = 4*exp(-3*t)";

test('the error of one component, and the Euclidean norm of all', () => {
  const of = (what: string): number => rung({ error: { of: what } }, TWO).error ?? NaN;
  expect(of('norm')).toBeCloseTo(Math.hypot(of('x'), of('z')), 15);
  expect(of('x')).toBeCloseTo(Math.abs(3 * 0.9 ** 10 - 3 * Math.exp(-1)), 14);
});

test('a component that is not there is reported, and no error is made up', () => {
  const made = result({ error: { of: 'w' } }, TWO);
  expect(made.problems).toEqual(['there is no component w; there are x, z']);
  expect(made.methods[0]!.rungs[0]!.error).toBeNull();
  expect(made.findings).toEqual([]);
});

test('a time outside of the interval is reported', () => {
  expect(result({ error: { at: { t: 3 } } }).problems).toEqual([
    'the error time t = 3 is outside the interval 0 <= t <= 2',
  ]);
});

test('a time between grid points: by a polynomial through more points the higher the order, else at the nearest', () => {
  const between = rung({ error: { at: { t: 0.9 } }, methods: [HEUN] });
  expect(between.taken).toMatchObject({ how: 'between', t: 0.9 });
  const rk4 = {
    title: 'RK4',
    text: 'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)',
  };
  const more = rung({ error: { at: { t: 0.93 } }, methods: [rk4], ladder: { counts: [40] } });
  expect(more.taken).toMatchObject({ how: 'between', t: 0.93 });
  // R(z)^n between grid points is R(z)^(t/h), but for a part of the order of h
  const z = -2 * 0.05;
  const growth = 1 + z + z ** 2 / 2 + z ** 3 / 6 + z ** 4 / 24;
  expect(more.error! / Math.abs(growth ** (0.93 / 0.05) - Math.exp(-1.86))).toBeCloseTo(1, 2);
  const nearest = rung({ error: { at: { t: 0.95 } }, methods: [rk4], ladder: { counts: [2] } });
  expect(nearest.taken).toMatchObject({ how: 'nearest', t: 1 });
  expect(nearest.leftOut).toEqual({ kind: 'other time' });
  expect(nearest.remark).toContain(
    't = 0.95 is not a grid point: the error is taken at t = 1, the nearest one',
  );
});

test.each([
  ['fit', 'h = 0.3 does not divide the interval: h = 0.285714, the nearest that does, is used'],
  ['shorten', 'h = 0.3 does not divide the interval: the last step is 0.2'],
  ['overrun', 'at h = 0.3 the last point is t = 2.1, not 2: the error is taken there'],
] as const)('a step that does not divide, under %s, is marked', (lastStep, remark) => {
  const made = rung({ ladder: { sizes: [0.3] }, lastStep });
  expect(made.divides).toBe(false);
  expect(made.remark).toContain(remark);
});

test('under overrun the error is at the time reached, beside the one at the end', () => {
  const made = rung({ ladder: { sizes: [0.3] }, lastStep: 'overrun' });
  let y = 1;
  for (let n = 0; n < 7; n += 1) y += 0.3 * (-2 * y);
  expect(made.t).toBeCloseTo(2.1, 14);
  expect(made.error).toBeCloseTo(Math.abs(y - Math.exp(-4.2)), 14);
  expect(made.errorAtEnd).not.toBeNull();
});

test('ratio and order of neighbouring rungs, for any ratio of step sizes', () => {
  const { rungs } = result({ ladder: { counts: [10, 30, 40] } }).methods[0]!;
  const [a, b, c] = rungs.map(({ error }) => error!);
  expect(rungs.map(({ ratio }) => ratio)).toEqual([null, a! / b!, b! / c!]);
  expect(rungs[1]!.order).toBeCloseTo(Math.log(a! / b!) / Math.log(3), 12);
  expect(rungs[2]!.order).toBeCloseTo(Math.log(b! / c!) / Math.log(4 / 3), 12);
});

test('evaluations are counted as the text makes them, those of starting steps too', () => {
  const cost = (text: string): number => evaluations(rung({ methods: [{ title: 'M', text }] }).cost);
  expect(cost(EULER.text)).toBe(10);
  expect(cost(HEUN.text)).toBe(20);
  // one step by Heun with f kept besides, nine of one evaluation
  expect(cost('start with Heun\ny[n+1] = y + h/2*(3*f[n] - f[n-1])')).toBe(12);
  expect(cost("y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)")).toBe(20);
});

test('every rung is reported when it is finished, and the parts add up', () => {
  const study = open({ methods: [EULER, HEUN], ladder: { counts: [10, 20, 40] } });
  const told: string[] = [];
  const parts: number[] = [];
  for (const { method, part, finished } of runSteps(study)) {
    parts.push(part);
    if (finished !== null) told.push(`${method}/${finished.rung}`);
  }
  expect(told).toEqual(['0/0', '0/1', '0/2', '1/0', '1/1', '1/2']);
  expect(parts).toEqual([...parts].sort((a, b) => a - b));
  expect(parts.at(-1)).toBe(1);
});

test('a study has no method beyond its last', () => {
  expect(() => methodSigns(open(), 3).next()).toThrow('this study has no method 3');
});

test('a method of another form is refused for the whole study, in words', () => {
  const made = result({
    methods: [{ title: 'Verlet', text: 'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]' }],
  });
  expect(made.methods[0]!.refused).toContain("this method is for equations x'' = a(t, x, x')");
  expect(made.findings.map(({ kind }) => kind)).toEqual(['refused']);
});
