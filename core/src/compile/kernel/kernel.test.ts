import { sin } from '../../elementary/trigonometric.ts';
import { pow } from '../../elementary/power.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { parseProblem } from '../../problem/parse-problem.ts';
import { compileRun } from '../compile.ts';
import { layGrid } from '../../run/grid.ts';
import { integrate } from '../../run/integrate.ts';
import { arrayLoop } from '../loops/array-loop.ts';
import { method, problem } from '../../test-texts.ts';
import { load } from './encode.ts';

const BODY =
  'sqrt(abs(u[i-1])) - u[i]^2 + u[i+2]^3/7 + max(u[i], 0.25, u[i+1]) - min(u[i-1], u[i]) + if(u[i] > u[i+1], floor(10*u[i]), -t*i)*k/(n + 1) - (-u[i])';

function text(n: number, body: string): string {
  return `u[i]' = ${body} for i = 1..n\nk = 0.1\nn = ${n}\nu[0] = 0.5\nu[n+1] = sin(t)\nu[n+2] = 0\nu[i](0) = 1/i for i = 1..n\n0 <= t <= 0.3`;
}

test.each([17, 18, 19, 20, 41])(
  'inner loops over %i elements give the bits of the formula in JavaScript',
  (n) => {
    const problem = parseProblem(text(n, BODY));
    const method = parseMethod('k1 = f(t, y)\ny[n+1] = y + h*k1');
    if (!problem.ok || !method.ok) throw new Error(JSON.stringify(problem));
    const run = compileRun(problem.value, method.value);
    expect(arrayLoop(problem.value, run.program, 'double').kernels!.list).toHaveLength(2);
    const h = 0.3 / 6;
    let u = Array.from({ length: n }, (_, i) => 1 / (i + 1));
    for (let step = 0; step < 6; step += 1) {
      const t = 0 + step * h;
      const at = (i: number): number => (i === 0 ? 0.5 : i === n + 1 ? sin(t) : i === n + 2 ? 0 : u[i - 1]!);
      u = u.map((y, index) => {
        const i = index + 1;
        const [a, c, d] = [at(i - 1), at(i + 1), at(i + 2)];
        const choice = y > c ? Math.floor(10 * y) : -t * i;
        const rhs =
          Math.sqrt(Math.abs(a)) -
          y * y +
          (d * d * d) / 7 +
          Math.max(y, 0.25, c) -
          Math.min(a, y) +
          (choice * 0.1) / (n + 1) -
          -y;
        return y + h * rhs;
      });
    }
    expect(Array.from(integrate(run, layGrid(0, 0.3, { steps: 6 })).values)).toEqual(u);
  },
);

test('a body with a function that has no instruction stays in JavaScript, with the same bits', () => {
  const problem = parseProblem(text(20, 'sin(u[i])*u[i-1] + u[i+2]^1.5'));
  const method = parseMethod('y[n+1] = y + h*f(t, y)');
  if (!problem.ok || !method.ok) throw new Error();
  const run = compileRun(problem.value, method.value);
  const u = Array.from({ length: 20 }, (_, i) => 1 / (i + 1));
  const at = (i: number): number => (i === 0 ? 0.5 : i > 20 ? 0 : u[i - 1]!);
  const expected = u.map((y, i) => y + 0.3 * (sin(y) * at(i) + pow(at(i + 3), 1.5)));
  expect(Array.from(integrate(run, layGrid(0, 0.3, { steps: 1 })).values)).toEqual(expected);
});

test.each([
  ['<', [2, 3, 3]],
  ['<=', [2, 2, 3]],
  ['>', [3, 3, 2]],
  ['>=', [3, 2, 2]],
  ['==', [3, 2, 3]],
  ['!=', [2, 3, 2]],
] as const)(
  '%s chooses alike below, at and above, in pairs of elements and in the one left over',
  (relation, chosen) => {
    // values 0.5, 1, 1.5 in turn, over an odd number of elements
    const n = 21;
    const problem = parseProblem(
      `u[i]' = if(u[i] ${relation} 1, 2, 3) for i = 1..${n}\nu[i](0) = 0.5 + 0.5*mod(i, 3) for i = 1..${n}\n0 <= t <= 1`,
    );
    const method = parseMethod('y[n+1] = y + h*f(t, y)');
    if (!problem.ok || !method.ok) throw new Error(JSON.stringify(problem));
    const run = compileRun(problem.value, method.value);
    // no element needs another one: the new value is made in the loop of its slope
    expect(arrayLoop(problem.value, run.program, 'double').kernels!.list).toHaveLength(1);
    const { values } = integrate(run, layGrid(0, 1, { steps: 1 }));
    const expected = Array.from({ length: n }, (_, k) => 0.5 + 0.5 * ((k + 1) % 3) + chosen[(k + 1) % 3]!);
    expect(Array.from(values)).toEqual(expected);
  },
);

test('a body with more powers than a kernel can put aside stays in JavaScript, with the same bits', () => {
  const body = Array.from({ length: 65 }, (_, k) => `(u[i] + ${k})^2`).join(' + ');
  const problem = parseProblem(`u[i]' = ${body} for i = 1..20\nu[i](0) = 1/i for i = 1..20\n0 <= t <= 1`);
  const method = parseMethod('y[n+1] = y + h*f(t, y)');
  if (!problem.ok || !method.ok) throw new Error(JSON.stringify(problem));
  const run = compileRun(problem.value, method.value);
  // the right-hand side has no kernel, the formula of the method has
  expect(arrayLoop(problem.value, run.program, 'double').kernels!.list).toHaveLength(1);
  const expected = Array.from({ length: 20 }, (_, i) => {
    const y = 1 / (i + 1);
    let sum = y * y;
    for (let k = 1; k < 65; k += 1) sum += (y + k) * (y + k);
    return y + sum;
  });
  expect(Array.from(integrate(run, layGrid(0, 1, { steps: 1 })).values)).toEqual(expected);
});

const RK4 = `k1 = f(t, y)
k2 = f(t + h/2, y + h/2*k1)
k3 = f(t + h/2, y + h/2*k2)
k4 = f(t + h, y + h*k3)
y[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)`;

test.each([17, 18, 21, 64])(
  'slopes and what is made of them are computed in one loop over %i elements, with the same bits',
  (n) => {
    const problem = parseProblem(
      `u[i]' = 0.3*(u[i-1] - 2*u[i] + u[i+2]) + u[i]*(1 - u[i]) + t*i for i = 1..n\nn = ${n}\nu[0] = 0\nu[n+1] = 0\nu[n+2] = 1\nu[i](0) = i/n for i = 1..n\n0 <= t <= 1`,
    );
    const method = parseMethod(RK4);
    if (!problem.ok || !method.ok) throw new Error(JSON.stringify(problem));
    const run = compileRun(problem.value, method.value);
    // one loop a stage; the last one makes the new values
    expect(arrayLoop(problem.value, run.program, 'double').kernels!.list).toHaveLength(4);
    const h = 0.1;
    const rhs = (t: number, u: readonly number[]): readonly number[] =>
      u.map((y, k) => {
        const [before, after] = [k === 0 ? 0 : u[k - 1]!, k + 2 < n ? u[k + 2]! : k + 2 === n ? 0 : 1];
        return 0.3 * (before - 2 * y + after) + y * (1 - y) + t * (k + 1);
      });
    let u: readonly number[] = Array.from({ length: n }, (_, k) => (k + 1) / n);
    for (let step = 0; step < 10; step += 1) {
      const t = 0 + step * h;
      const k1 = rhs(t, u);
      const k2 = rhs(
        t + h / 2,
        u.map((y, j) => y + (h / 2) * k1[j]!),
      );
      const k3 = rhs(
        t + h / 2,
        u.map((y, j) => y + (h / 2) * k2[j]!),
      );
      const k4 = rhs(
        t + h,
        u.map((y, j) => y + h * k3[j]!),
      );
      u = u.map((y, j) => y + (h / 6) * (k1[j]! + 2 * k2[j]! + 2 * k3[j]! + k4[j]!));
    }
    expect(Array.from(integrate(run, layGrid(0, 1, { steps: 10 })).values)).toEqual(u);
    // the stages of a step are shown as they were
    const out = new Float64Array(run.stageWidth);
    const state = new Float64Array(run.shape.length);
    state.set(run.problem.initial);
    run.trace(state, 0, h, 0, 1, out);
    expect(Array.from(out.subarray(0, n))).toEqual(rhs(0, run.problem.initial));
  },
);

test('a formula that writes over what a slope beside it still needs has a loop of its own', () => {
  const problem = parseProblem(text(30, 'u[i-1] + u[i+1] - 2*u[i]'));
  const method = parseMethod('y[n+1] = y + h*f(t, y)');
  if (!problem.ok || !method.ok) throw new Error();
  const run = compileRun(problem.value, method.value);
  expect(arrayLoop(problem.value, run.program, 'double').kernels!.list).toHaveLength(2);
  const u = Array.from({ length: 30 }, (_, k) => 1 / (k + 1));
  const expected = u.map(
    (y, k) => y + 0.3 * ((k === 0 ? 0.5 : u[k - 1]!) + (k === 29 ? 0 : u[k + 1]!) - 2 * y),
  );
  expect(Array.from(integrate(run, layGrid(0, 0.3, { steps: 1 })).values)).toEqual(expected);
});

test('an element is read from memory once a turn, whatever reads it', () => {
  const family = problem(
    "u[i]' = u[i-1] - 2*u[i] + u[i+1] + u[i]*(1 - u[i]) for i = 1..20\nu[0] = 0\nu[21] = 0\nu[i](0) = 1/i for i = 1..20\n0 <= t <= 1",
  );
  const run = compileRun(family, method('y[n+1] = y + h*f(t, y)'));
  const [slopes] = arrayLoop(family, run.program, 'double').kernels!.list;
  const [first = 0, second = 0] = load(true, 0);
  const reads = slopes!.code.filter((byte, i, code) => byte === first && code[i + 1] === second).length;
  // four pairs read the elements -1, 0, ..., 7 and what follows each; then one pair reads three
  expect(reads).toBe(9 + 3);
});

test('parts of a choice read the elements that its test reads', () => {
  const family = problem(
    "u[i]' = if(u[i] > 0.1, 2*u[i], u[i] + 3) for i = 1..21\nu[i](0) = 1/i for i = 1..21\n0 <= t <= 1",
  );
  const run = compileRun(family, method('y[n+1] = y + h*f(t, y)'));
  expect(arrayLoop(family, run.program, 'double').kernels!.list).toHaveLength(1);
  const u = Array.from({ length: 21 }, (_, i) => 1 / (i + 1));
  const expected = u.map((y) => y + (y > 0.1 ? 2 * y : y + 3));
  expect(Array.from(integrate(run, layGrid(0, 1, { steps: 1 })).values)).toEqual(expected);
});
