import { parseMethod } from '../method/parse-method.ts';
import { LIBRARY } from '../method/library/library.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import { compileRun, type CompiledRun } from '../compile/compile.ts';
import { layGrid } from './grid.ts';
import { integrate } from './integrate.ts';

function compiled(
  problemText: string,
  methodText: string,
  precision: 'double' | 'single' = 'double',
): CompiledRun {
  const problem = parseProblem(problemText);
  const method = parseMethod(methodText);
  if (!problem.ok || !method.ok) throw new Error(JSON.stringify([problem, method]));
  return compileRun(problem.value, method.value, { precision });
}

function textOf(title: string): string {
  return LIBRARY.find((m) => m.title === title)?.text ?? '';
}

function end(run: CompiledRun, steps: number): Float64Array {
  return integrate(run, layGrid(run.problem.start, run.problem.end, { steps })).values;
}

describe('the growth factor of a method on y’ = a y', () => {
  const polynomials: Readonly<Record<string, (z: number) => number>> = {
    Euler: (z) => 1 + z,
    Heun: (z) => 1 + z + z ** 2 / 2,
    Midpoint: (z) => 1 + z + z ** 2 / 2,
    'Kutta 3': (z) => 1 + z + z ** 2 / 2 + z ** 3 / 6,
    RK4: (z) => 1 + z + z ** 2 / 2 + z ** 3 / 6 + z ** 4 / 24,
  };
  for (const [title, growth] of Object.entries(polynomials))
    test.each([7, 40, 333])(`${title}, %i steps`, (steps) => {
      const run = compiled('m’ = a*m\na = -1.3\nm(0) = 2.5\n0 <= t <= 2', textOf(title));
      const expected = 2.5 * growth((-1.3 * 2) / steps) ** steps;
      expect(Math.abs(end(run, steps)[0]! / expected - 1)).toBeLessThan(1e-12);
    });
});

describe('the same bits as a loop typed by hand', () => {
  test('RK4 on two algebraic components', () => {
    const run = compiled(
      'm’ = m*(a - b*l)\nl’ = l*(c*m - d)\na = 1.1\nb = 0.4\nc = 0.1\nd = 0.4\nm(0) = 10\nl(0) = 5\n0 <= t <= 12',
      textOf('RK4'),
    );
    const steps = 1000;
    const h = 12 / steps;
    const fm = (m: number, l: number): number => m * (1.1 - 0.4 * l);
    const fl = (m: number, l: number): number => l * (0.1 * m - 0.4);
    let m = 10;
    let l = 5;
    for (let n = 0; n < steps; n += 1) {
      const m1 = fm(m, l);
      const l1 = fl(m, l);
      const m2 = fm(m + (h / 2) * m1, l + (h / 2) * l1);
      const l2 = fl(m + (h / 2) * m1, l + (h / 2) * l1);
      const m3 = fm(m + (h / 2) * m2, l + (h / 2) * l2);
      const l3 = fl(m + (h / 2) * m2, l + (h / 2) * l2);
      const m4 = fm(m + h * m3, l + h * l3);
      const l4 = fl(m + h * m3, l + h * l3);
      m = m + (h / 6) * (m1 + 2 * m2 + 2 * m3 + m4);
      l = l + (h / 6) * (l1 + 2 * l2 + 2 * l3 + l4);
    }
    expect(Array.from(end(run, steps))).toEqual([m, l]);
  });

  test('powers, a leading minus, conditions and the grid, in the order of the text', () => {
    const run = compiled(
      'y’ = -(y + t)^2/3 + if(t < 0.5, y^3, -y^3) - 2^-y*y^1.5\ny(0) = 1/3\n0 <= t <= 1',
      textOf('Heun'),
    );
    const steps = 37;
    const h = 1 / steps;
    const f = (t: number, y: number): number => {
      const sum = y + t;
      return -(sum * sum) / 3 + (t < 0.5 ? y * y * y : -(y * y * y)) - Math.pow(2, -y) * Math.pow(y, 1.5);
    };
    let y = 1 / 3;
    for (let n = 0; n < steps; n += 1) {
      const t = 0 + n * h;
      const k1 = f(t, y);
      const k2 = f(t + h, y + h * k1);
      y = y + (h / 2) * (k1 + k2);
    }
    expect(end(run, steps)[0]).toBe(y);
  });

  test('single precision rounds every operation', () => {
    const run = compiled('y’ = -0.3*y + t\ny(0) = 1\n0 <= t <= 1', textOf('Euler'), 'single');
    const F = Math.fround;
    const h = F(1 / 50);
    let y = F(1);
    for (let n = 0; n < 50; n += 1) {
      const t = F(F(0) + F(n * h));
      y = F(y + F(h * F(F(-F(0.3) * y) + t)));
    }
    expect(end(run, 50)[0]).toBe(y);
  });
});

describe('grids', () => {
  test.each([
    [0.1, 0, 1, 10],
    [0.3, 0, 6, 20],
    [0.7, 0, 2.1, 3],
    [1 / 3, 0, 2, 6],
    [Math.PI / 7, 0, Math.PI, 7],
    [0.05, -1, 1, 40],
  ])('%f divides %f..%f into %i', (h, start, stop, steps) => {
    expect(layGrid(start, stop, { h })).toMatchObject({ h, steps, divides: true });
  });

  test('a step that does not divide: fit, shorten, overrun', () => {
    expect(layGrid(0, 2, { h: 0.35 })).toMatchObject({ h: 2 / 6, steps: 6, divides: false });
    expect(layGrid(0, 2, { h: 0.35 }, 'overrun')).toMatchObject({ h: 0.35, steps: 6, divides: false });
    const run = compiled('y’ = 1 + 2*t\ny(0) = 0\n0 <= t <= 2', textOf('Midpoint'));
    const shorter = integrate(run, layGrid(0, 2, { h: 0.35 }, 'shorten'));
    expect(shorter.t).toBeCloseTo(2, 14);
    expect(shorter.values[0]).toBeCloseTo(2 + 4, 13);
    expect(integrate(run, layGrid(0, 2, { h: 0.35 }, 'overrun')).t).toBeCloseTo(2.1, 14);
  });
});

describe('a run that becomes non-finite is a result', () => {
  test('a root of a negative number: step, time, stage and operation', () => {
    const run = compiled('level’ = -k*sqrt(level)\nk = 1\nlevel(0) = 1\n0 <= t <= 4', textOf('Heun'));
    const { stopped, steps, values } = integrate(run, layGrid(0, 4, { h: 1 }));
    expect(stopped).toEqual({
      step: 2,
      t: 1,
      stage: 'k2',
      why: expect.stringMatching(/^sqrt\(-0\.\d+\) is not a real number in level'$/),
    });
    expect(steps).toBe(1);
    expect(values[0]).toBe(0.5);
  });

  test('an overflow is found in the step where it happens', () => {
    const run = compiled('m’ = m^2\nm(0) = 1\n0 <= t <= 10', textOf('Euler'));
    const { stopped } = integrate(run, layGrid(0, 10, { steps: 1000 }));
    let m = 1;
    let step = 0;
    while (Number.isFinite(m)) {
      m = m + 0.01 * (m * m);
      step += 1;
    }
    expect(stopped?.step).toBe(step);
    expect(stopped?.why).toMatch(/\^2 overflows in m'|overflows/);
  });
});
