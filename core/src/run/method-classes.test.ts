import { Refusal } from '../text/refusal.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { parseMethod } from '../method/parse-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { compileRun, type CompiledRun } from '../compile/compile.ts';
import type { Precision } from '../compile/precision.ts';
import { compileWithStart } from '../compile/compile-with-start.ts';
import { layGrid } from './grid.ts';
import { begin, goTo, integrate, newtonWork } from './integrate.ts';
import { rowsOf } from './rows.ts';

function compiled(
  problemText: string,
  methodText: string,
  instead: string | null = null,
  precision: Precision = 'double',
): CompiledRun {
  const problem = parseProblem(problemText);
  const method = parseMethod(methodText);
  if (!problem.ok || !method.ok) throw new Error(JSON.stringify([problem, method]));
  return compileWithStart(problem.value, method.value, { find: findInLibrary, instead, precision });
}

function end(run: CompiledRun, steps: number): number[] {
  const { values, stopped } = integrate(run, layGrid(run.problem.start, run.problem.end, { steps }));
  expect(stopped).toBeNull();
  return Array.from(values);
}

const CUBIC = "y' = -y*y*y + t\ny(0) = 1\n0 <= t <= 2";
const f = (t: number, y: number): number => -y * y * y + t;

/** Heun by hand: the starting steps of the methods below. */
function heun(t: number, y: number, h: number): number {
  const k1 = f(t, y);
  const k2 = f(t + h, y + h * k1);
  return y + (h / 2) * (k1 + k2);
}

describe('the same bits as a loop typed by hand', () => {
  const N = 40;
  const h = 2 / N;

  test('Adams-Bashforth 3 with kept right-hand sides', () => {
    const run = compiled(CUBIC, 'start with Heun\ny[n+1] = y + h/12*(23*f[n] - 16*f[n-1] + 5*f[n-2])');
    const y = [1, heun(0, 1, h)];
    y.push(heun(0 + 1 * h, y[1]!, h));
    const F = y.map((value, n) => f(0 + n * h, value));
    for (let n = 2; n < N; n += 1) {
      F[n] = f(0 + n * h, y[n]!);
      y[n + 1] = y[n]! + (h / 12) * (23 * F[n]! - 16 * F[n - 1]! + 5 * F[n - 2]!);
    }
    expect(end(run, N)).toEqual([y[N]]);
  });

  test('a predictor and corrector that uses two earlier values and times', () => {
    const run = compiled(
      CUBIC,
      'start with Heun\np = 2*y - y[n-1] + (t[n] - t[n-1])*h*f[n]\ny[n+1] = 1/2*y + 1/2*y[n-2] + h*f(t[n+1], p)*0.75 + 0.75*h*f[n]',
    );
    const y = [1, heun(0, 1, h)];
    y.push(heun(0 + 1 * h, y[1]!, h));
    const t = (n: number): number => 0 + n * h;
    for (let n = 2; n < N; n += 1) {
      const fn = f(t(n), y[n]!);
      const p = 2 * y[n]! - y[n - 1]! + (t(n) - t(n - 1)) * h * fn;
      y[n + 1] = (1 / 2) * y[n]! + (1 / 2) * y[n - 2]! + h * f(t(n + 1), p) * 0.75 + 0.75 * h * fn;
    }
    expect(end(run, N)).toEqual([y[N]]);
  });

  test('Taylor of order 3 with derivatives worked out by hand', () => {
    const run = compiled(CUBIC, "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y)");
    let y = 1;
    for (let n = 0; n < N; n += 1) {
      const t = 0 + n * h;
      const y1 = f(t, y);
      // d/dt of -y^3 + t is -3 y^2 y' + 1, and again
      const y2 = -3 * y * y * y1 + 1;
      const y3 = -6 * y * y1 * y1 - 3 * y * y * y2;
      y = y + h * y1 + ((h * h) / 2) * y2 + ((h * h * h) / 6) * y3;
    }
    // the coefficients come by another road, so the last bits may differ
    expect(Math.abs(end(run, N)[0]! / y - 1)).toBeLessThan(1e-14);
  });

  test('Taylor with derivatives typed in the problem takes these, to the last bit; in large systems too', () => {
    const typed = (y: string): string =>
      `${y}'' = -3*${y}*${y}*${y}' + 1\n${y}''' = -6*${y}*${y}'^2 - 3*${y}*${y}*${y}''`;
    const taylor = "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y) + h^3/6*f''(t, y)";
    let y = 1;
    for (let n = 0; n < N; n += 1) {
      const y1 = f(0 + n * h, y);
      const y2 = -3 * y * y * y1 + 1;
      const y3 = -6 * y * (y1 * y1) - 3 * y * y * y2;
      y = y + h * y1 + ((h * h) / 2) * y2 + ((h * h * h) / 6) * y3;
    }
    expect(end(compiled(`${CUBIC}\n${typed('y')}`, taylor), N)).toEqual([y]);
    const names = Array.from({ length: 20 }, (_, i) => `y${i}`);
    const many = names.map(
      (name) => `${name}' = -${name}*${name}*${name} + t\n${name}(0) = 1\n${typed(name)}`,
    );
    expect(new Set(end(compiled(`${many.join('\n')}\n0 <= t <= 2`, taylor), N))).toEqual(new Set([y]));
  });

  test('semi-implicit Euler, both ways round, and velocity Verlet', () => {
    const text = "x'' = -x*x*x - 0.1*x'\nx(0) = 1\nx'(0) = 0.5\n0 <= t <= 2";
    const a = (x: number, v: number): number => -x * x * x - 0.1 * v;
    let [x, v] = [1, 0.5];
    let [p, q] = [1, 0.5];
    let [r, s] = [1, 0.5];
    for (let n = 0; n < N; n += 1) {
      v = v + h * a(x, v);
      x = x + h * v;
      p = p + h * q;
      q = q + h * a(p, q);
      const half = s + (h / 2) * a(r, s);
      r = r + h * half;
      s = half + (h / 2) * a(r, half);
    }
    const run = (title: string): number[] => end(compiled(text, findInLibrary(title)!.text), N);
    expect(run('Semi-implicit Euler')).toEqual([x, v]);
    expect(run('Semi-implicit Euler, position first')).toEqual([p, q]);
    expect(run('Velocity Verlet')).toEqual([r, s]);
  });

  test('a large second-order family: a chain of masses, with kept values', () => {
    const n = 40;
    const text = `u[i]'' = u[i-1] - 2*u[i] + u[i+1] for i = 1..n\nn = ${n}\nu[0] = 0\nu[n+1] = 0\nu[i](0) = i*(n+1-i) for i = 1..n\nu[i]'(0) = 0 for i = 1..n\n0 <= t <= 2`;
    const run = compiled(
      text,
      'start with Velocity Verlet\nx[n+1] = 2*x - x[n-1] + h^2*a(t, x, v)\nv[n+1] = (x[n+1] - x)/h',
    );
    const acceleration = (u: number[]): number[] =>
      u.map((w, i) => (i > 0 ? u[i - 1]! : 0) - 2 * w + (i < n - 1 ? u[i + 1]! : 0));
    const first = Array.from({ length: n }, (_, k) => (k + 1) * (n + 1 - (k + 1)));
    const half = acceleration(first).map((w) => 0 + (h / 2) * w);
    let before = first;
    let now = first.map((w, i) => w + h * half[i]!);
    let v: number[] = [];
    for (let step = 1; step < N; step += 1) {
      const w = acceleration(now);
      const next = now.map((u, i) => 2 * u - before[i]! + h * h * w[i]!);
      v = next.map((u, i) => (u - now[i]!) / h);
      [before, now] = [now, next];
    }
    expect(end(run, N)).toEqual([...now, ...v]);
  });

  test('Adams-Bashforth 4 on a family of arrays', () => {
    const n = 30;
    const run = compiled(
      `u[i]' = u[i-1] - 2*u[i] + u[i+1] for i = 1..n\nn = ${n}\nu[0] = 1\nu[n+1] = 0\nu[i](0) = 1/i for i = 1..n\n0 <= t <= 2`,
      findInLibrary('Adams-Bashforth 4')!.text,
      'Euler',
    );
    const rhs = (u: number[]): number[] =>
      u.map((w, i) => (i > 0 ? u[i - 1]! : 1) - 2 * w + (i < n - 1 ? u[i + 1]! : 0));
    let u = Array.from({ length: n }, (_, i) => 1 / (i + 1));
    const kept: number[][] = [];
    for (let step = 0; step < N; step += 1) {
      kept.unshift(rhs(u));
      const [a, b, c, d] = kept;
      u = u.map((w, i) =>
        d === undefined || step < 3
          ? w + h * a![i]!
          : w + (h / 24) * (55 * a![i]! - 59 * b![i]! + 37 * c![i]! - 9 * d[i]!),
      );
    }
    expect(end(run, N)).toEqual(u);
  });
});

describe('closed forms on y’ = a y', () => {
  const a = -1.7;
  const N = 24;
  const z = (a * 2) / N;
  const text = `y' = a*y\na = ${a}\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(a*t)`;

  test('leapfrog by the roots of its characteristic polynomial', () => {
    const run = compiled(text, findInLibrary('Leapfrog')!.text, 'exact');
    const root = Math.sqrt(1 + z * z);
    const [r1, r2] = [z + root, z - root];
    const y1 = Math.exp(z);
    const c1 = (y1 - r2) / (r1 - r2);
    expect(end(run, N)[0]).toBeCloseTo(c1 * r1 ** N + (1 - c1) * r2 ** N, 12);
  });

  test('Adams-Bashforth 2 and BDF 2 by theirs, started with Euler', () => {
    const solved = (r1: number, r2: number, y1: number): number => {
      const c1 = (y1 - r2) / (r1 - r2);
      return c1 * r1 ** N + (1 - c1) * r2 ** N;
    };
    const roots = (b: number, c: number): [number, number] => {
      const d = Math.sqrt(b * b - 4 * c);
      return [(-b + d) / 2, (-b - d) / 2];
    };
    const ab = compiled(text, findInLibrary('Adams-Bashforth 2')!.text, 'Euler');
    expect(end(ab, N)[0]).toBeCloseTo(solved(...roots(-(1 + 1.5 * z), z / 2), 1 + z), 13);
    const bdf = compiled(text, findInLibrary('BDF 2')!.text, 'Euler');
    const lead = 1 - (2 / 3) * z;
    expect(end(bdf, N)[0]).toBeCloseTo(solved(...roots(-4 / 3 / lead, 1 / 3 / lead), 1 + z), 13);
  });

  test.each([
    ['Backward Euler', 1 / (1 - z)],
    ['Trapezoidal rule', (1 + z / 2) / (1 - z / 2)],
    ['Implicit midpoint', (1 + z / 2) / (1 - z / 2)],
    ['Gauss 2', (1 + z / 2 + (z * z) / 12) / (1 - z / 2 + (z * z) / 12)],
    ['Taylor 6', 1 + z + z ** 2 / 2 + z ** 3 / 6 + z ** 4 / 24 + z ** 5 / 120 + z ** 6 / 720],
  ])('%s by its stability function', (title, growth) => {
    expect(end(compiled(text, findInLibrary(title)!.text), N)[0]! / growth ** N).toBeCloseTo(1, 13);
  });
});

describe('implicit stages', () => {
  test('are solved to rounding: backward Euler on a cubic, each step checked', () => {
    const run = compiled("y' = -20*y^3 + t\ny(0) = 2\n0 <= t <= 1", findInLibrary('Backward Euler')!.text);
    const { rows } = rowsOf(run, layGrid(0, 1, { steps: 10 }), { from: 0, count: 11 });
    rows.slice(1).forEach((row, n) => {
      const [y, before] = [row.values[0]!, rows[n]!.values[0]!];
      expect(Math.abs(y - before - 0.1 * (-20 * y ** 3 + row.t))).toBeLessThan(2e-15);
    });
  });

  test('a solution that passes zero, or decays to nothing, converges as any other', () => {
    const back = findInLibrary('Backward Euler')!.text;
    // y - 1 + h k = 0 to the last bit after one step, and rounding makes it 1e-17 or so
    for (const rhs of ['-10*(1 + y*y/4)', '-1/0.3/0.1*0.3']) {
      const run = compiled(`y' = ${rhs}\ny(0) = 1\n0 <= t <= 0.1`, back);
      expect(integrate(run, layGrid(0, 0.1, { steps: 1 })).stopped).toBeNull();
    }
    const decay = compiled("y' = -y\ny(0) = 1\n0 <= t <= 10000", back);
    expect(end(decay, 1000)[0]).toBeLessThan(1e-300);
  });

  test('on a large family the banded solution agrees with the exact factor of each mode', () => {
    const n = 500;
    const run = compiled(
      `u[i]' = k*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..n\nk = 2000\nn = ${n}\nu[0] = 0\nu[n+1] = 0\nu[i](0) = sin(3*pi*i/(n+1)) for i = 1..n\n0 <= t <= 1`,
      findInLibrary('Gauss 2')!.text,
    );
    const z = (-4 * 2000 * Math.sin((3 * Math.PI) / (2 * (n + 1))) ** 2) / 10;
    const factor = (1 + z / 2 + (z * z) / 12) / (1 - z / 2 + (z * z) / 12);
    const values = end(run, 10);
    const expected = values.map((_, i) => Math.sin((3 * Math.PI * (i + 1)) / (n + 1)) * factor ** 10);
    values.forEach((value, i) => expect(Math.abs(value - expected[i]!)).toBeLessThan(1e-11));
  });

  test('edge values that hold unknowns are in the Jacobian: few iterations, each step to rounding', () => {
    const n = 40;
    const run = compiled(
      `u[i]' = 300*(u[i-1] - 2*u[i] + u[i+1]) - u[i]^2 for i = 1..${n}\nu[0] = u[1]\nu[${n + 1}] = u[${n}]^2\nu[i](0) = i/${n} for i = 1..${n}\n0 <= t <= 1`,
      findInLibrary('Backward Euler')!.text,
    );
    const at = begin(run, layGrid(0, 1, { steps: 10 }));
    const before = at.state.slice(0, n);
    goTo(at, 1);
    const u = (i: number): number =>
      i === 0 ? at.state[0]! : i === n + 1 ? at.state[n - 1]! ** 2 : at.state[i - 1]!;
    for (let i = 1; i <= n; i += 1)
      expect(
        Math.abs(u(i) - before[i - 1]! - 0.1 * (300 * (u(i - 1) - 2 * u(i) + u(i + 1)) - u(i) ** 2)),
      ).toBeLessThan(1e-13);
    goTo(at, 10);
    expect(at.stopped).toBeNull();
    expect(newtonWork(at).iterations).toBeLessThanOrEqual(50);
  });

  test('where Newton’s method fails the step, the line and the residual are reported', () => {
    const never = compiled(
      "y' = 1\ny(0) = 0\n0 <= t <= 1",
      'solve k = h*f(t, y) + if(t < 0.35, 0, 1)*k\ny[n+1] = y + k',
    );
    expect(integrate(never, layGrid(0, 1, { steps: 10 })).stopped).toEqual({
      step: 5,
      t: 4 * 0.1,
      stage: 'k',
      why: "Newton's method: singular Jacobian, residual 0.1",
    });
    const backward = findInLibrary('Backward Euler')!.text;
    // y = 1*(y^2 + 1) has no solution: the least that y^2 - y + 1 comes to is 3/4
    const none = compiled("y' = y^2 + 1\ny(0) = 0\n0 <= t <= 10", backward);
    expect(integrate(none, layGrid(0, 10, { steps: 10 })).stopped).toMatchObject({
      stage: 'y[n+1]',
      why: "Newton's method: singular Jacobian, residual 0.75",
    });
    // y = 0.3 - 1 is not above 0, and y = 0.3 + 1 not below
    const cycles = compiled("y' = if(y > 0, -1, 1)\ny(0) = 0.3\n0 <= t <= 10", backward);
    expect(integrate(cycles, layGrid(0, 10, { steps: 10 })).stopped).toMatchObject({
      stage: 'y[n+1]',
      why: expect.stringMatching(/^Newton's method does not converge, damped or not, residual /),
    });
  });

  /** The solution of z = 3 - 50*atan(20*(z - 1)), by halving an interval about it. */
  function steepRoot(): number {
    let [low, high] = [0, 3];
    while (low + (high - low) / 2 > low && low + (high - low) / 2 < high) {
      const z = low + (high - low) / 2;
      if (z < 3 - 50 * Math.atan(20 * (z - 1))) low = z;
      else high = z;
    }
    return high;
  }

  test.each([
    ["y' = -50*atan(20*(y - 1))\ny(0) = 3\n0 <= t <= 1", 'double'],
    ["y' = -50*atan(20*(y - 1))\ny(0) = 3\n0 <= t <= 1", 'single'],
    ["u[i]' = -50*atan(20*(u[i] - 1)) for i = 1..40\nu[i](0) = 3 for i = 1..40\n0 <= t <= 1", 'double'],
    ["u[i]' = -50*atan(20*(u[i] - 1)) for i = 1..40\nu[i](0) = 3 for i = 1..40\n0 <= t <= 1", 'single'],
  ] as const)('where Newton’s method goes to and fro it is damped: %j in %s', (text, precision) => {
    const run = compiled(text, findInLibrary('Backward Euler')!.text, null, precision);
    const at = begin(run, layGrid(0, 1, { steps: 1 }));
    goTo(at, 1);
    expect(at.stopped).toBeNull();
    for (let j = 0; j < run.shape.size; j += 1)
      expect(Math.abs(at.state[j]! - steepRoot())).toBeLessThan(precision === 'double' ? 4e-16 : 2e-7);
    expect(newtonWork(at).damped).toBe(1);
  });
});

describe('what cannot be run says why', () => {
  test.each([
    [
      'x[n+1] = x + h*v\nv[n+1] = v + h*a(t, x, v)',
      null,
      "this method is for equations x'' = a(t, x, x'), and y is of another order; write the problem with second derivatives",
    ],
    [
      'y[n+1] = y[n-1] + 2*h*f[n]',
      null,
      'this formula reaches back and names no method for its first steps; add a line such as start with RK4',
    ],
    ['start with Nobody\ny[n+1] = y[n-1] + 2*h*f[n]', null, 'there is no method Nobody to start with'],
    [
      'start with Heun\ny[n+1] = y[n-1] + 2*h*f[n]',
      'exact',
      'the first steps are to be exact, but the exact solution is not known for all components',
    ],
  ])('case %#', (text, instead, message) => {
    expect(() => compiled(CUBIC, text, instead)).toThrow(new Refusal('start', message));
  });

  test('a grid with fewer steps than the method needs', () => {
    const run = compiled(CUBIC, findInLibrary('Adams-Bashforth 4')!.text);
    expect(() => integrate(run, layGrid(0, 2, { steps: 2 }))).toThrow(
      'this method uses 3 earlier steps, and the grid has 2',
    );
    expect(() => integrate(run, layGrid(0, 2, { h: 0.3 }, 'shorten'))).toThrow('cannot be shortened');
  });
});

test('right-hand sides are evaluated as often as the text says: a counter in the generated source', () => {
  const problem = parseProblem("y' = -tan(y)\ny(0) = 1\n0 <= t <= 1");
  const method = parseMethod('k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2) + 0*h*k1');
  if (!problem.ok || !method.ok) throw new Error();
  const run = compileRun(problem.value, method.value);
  expect(run.advance.toString().match(/\btan\(/g)).toHaveLength(2);
});

const MIDPOINT = findInLibrary('Implicit midpoint')!.text;
const GAUSS = findInLibrary('Gauss 2')!.text;

test('implicit formulas come to rest with the solution, and count as solved there', () => {
  const problem = "y' = -3*(y - 0.7)\ny(0) = 0\n0 <= t <= 50";
  for (const steps of [200, 400, 5000]) {
    const h = 50 / steps;
    const [y] = end(compiled(problem, MIDPOINT), steps);
    const growth = (1 - 1.5 * h) / (1 + 1.5 * h);
    expect(y).toBeCloseTo(0.7 - 0.7 * growth ** steps, 14);
    expect(end(compiled(problem, GAUSS), steps)[0]).toBeCloseTo(0.7, 14);
  }
});

test('of the roots of a stiff step the one near the present value is found', () => {
  const problem =
    "a' = -0.04*a + 1e4*b*c\nb' = 0.04*a - 1e4*b*c - 3e7*b^2\nc' = 3e7*b^2\na(0) = 1\nb(0) = 0\nc(0) = 0\n0 <= t <= 40";
  for (const steps of [40, 200, 400, 1000, 1500, 4000]) {
    const [a, b, c] = end(compiled(problem, MIDPOINT), steps);
    // the value of the literature at t = 40 (E. Hairer, G. Wanner, Solving Ordinary Differential Equations II, IV.10)
    expect(a).toBeCloseTo(0.7158, 3);
    expect(a! + b! + c!).toBeCloseTo(1, 12);
  }
});
