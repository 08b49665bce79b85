import { parseMethod } from '../method/parse-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { layGrid } from '../run/grid.ts';
import { integrate } from '../run/integrate.ts';
import { compileRun, generateLoop } from './compile.ts';

const RATES = "level' = -k*sqrt(level)/d + w*sin(t)\nout' = k*level^2 - c*out";

function problem(k: string, d: string) {
  const read = parseProblem(
    `${RATES}\nk = ${k}\nd = ${d}\nw = 0.1\nc = 0.25\nlevel(0) = 4\nout(0) = 0\n0 <= t <= 2`,
  );
  if (!read.ok) throw new Error(read.errors[0]!.message);
  return read.value;
}

function method(text: string) {
  const read = parseMethod(text);
  if (!read.ok) throw new Error(read.errors[0]!.message);
  return read.value;
}

const HEUN = method('k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)');
const BACKWARD = method('solve y[n+1] = y + h*f(t + h, y[n+1])');
const TAYLOR = method("y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)");
const AB2 = 'y[n+1] = y + h/2*(3*f[n] - f[n-1])';

test.each([
  ['Heun', HEUN],
  ['backward Euler', BACKWARD],
  ['Taylor 2', TAYLOR],
])(
  '%s: the code is the same for other values of parameters, the numbers are those of the values',
  (_, of) => {
    const one = generateLoop(problem('0.35', '1.3'), of, 'double').loop;
    const other = generateLoop(problem('0.36', '1.7'), of, 'double').loop;
    expect(other.advance).toBe(one.advance);
    expect(other.parameters).not.toEqual(one.parameters);
    // both are made before either is run: they must not share values
    const runs = [problem('0.35', '1.3'), problem('0.36', '1.7')].map((own) => compileRun(own, of));
    const grid = layGrid(0, 2, { steps: 20 });
    const [first, second] = runs.map((run) => [...integrate(run, grid).values]);
    expect(second).not.toEqual(first);
    const typed = RATES.replaceAll('k*', '0.36*')
      .replace('/d', '/1.7')
      .replace('w*', '0.1*')
      .replace('c*', '0.25*');
    const read = parseProblem(`${typed}\nlevel(0) = 4\nout(0) = 0\n0 <= t <= 2`);
    if (!read.ok) throw new Error(read.errors[0]!.message);
    expect(second).toEqual([...integrate(compileRun(read.value, of), grid).values]);
  },
);

test('single precision rounds the values of parameters', () => {
  const run = compileRun(problem('0.35', '1.3'), HEUN, { precision: 'single' });
  const rounded = problem(String(Math.fround(0.35)), String(Math.fround(1.3)));
  const grid = layGrid(0, 2, { steps: 20 });
  expect(integrate(run, grid).values).toEqual(
    integrate(compileRun(rounded, HEUN, { precision: 'single' }), grid).values,
  );
});

test('what was compiled for a problem and a method is used again, but not for another starting method', () => {
  const own = problem('0.35', '1.3');
  const multistep = method(AB2);
  const started = (start: typeof HEUN) =>
    ({ start: { kind: 'method', run: compileRun(own, start) } }) as const;
  expect(compileRun(own, HEUN)).toBe(compileRun(own, HEUN));
  expect(compileRun(own, HEUN)).not.toBe(compileRun(own, HEUN, { precision: 'single' }));
  expect(compileRun(own, HEUN)).not.toBe(compileRun(problem('0.35', '1.3'), HEUN));
  const one = compileRun(own, multistep, started(HEUN));
  expect(compileRun(own, multistep, started(HEUN))).toBe(one);
  expect(compileRun(own, multistep, started(TAYLOR))).not.toBe(one);
});

test('runs are kept within limits', () => {
  const own = problem('0.35', '1.3');
  const first = compileRun(own, HEUN);
  // a hundred others are compiled, and the first one goes
  for (let i = 0; i < 100; i += 1) compileRun(problem('0.35', `1.${i + 1}`), HEUN);
  expect(compileRun(own, HEUN)).not.toBe(first);
  // so do others where one is large
  const second = compileRun(own, HEUN);
  const text = (n: number): string =>
    `u[i]' = -u[i] for i = 1..${n}\nu[i](0) = 1 for i = 1..${n}\n0 <= t <= 1`;
  for (let i = 0; i < 7; i += 1) {
    const large = parseProblem(text(20_000 - i));
    if (!large.ok) throw new Error(large.errors[0]!.message);
    compileRun(large.value, HEUN);
  }
  expect(compileRun(own, HEUN)).not.toBe(second);
});

test('two runs of one compiled loop do not disturb each other', () => {
  const text =
    "u[i]' = c*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..40\nc = 0.3\nu[0] = 0\nu[41] = 0\nu[i](0) = i for i = 1..40\n0 <= t <= 1";
  const read = parseProblem(text);
  if (!read.ok) throw new Error(read.errors[0]!.message);
  const run = compileRun(read.value, HEUN);
  const state = () => Float64Array.from({ length: run.shape.length }, (_, j) => (j < 40 ? j + 1 : 0));
  const [alone, one, other] = [state(), state(), state()];
  run.advance(alone, 0, 0.05, 0, 10);
  for (let n = 0; n < 10; n += 1) {
    run.advance(one, 0, 0.05, n, 1);
    run.advance(other, 0, 0.1, n, 1);
  }
  expect(one).toEqual(alone);
  expect(other).not.toEqual(alone);
});
