import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { compileWithStart } from '../compile/compile-with-start.ts';
import { type CompiledRun, compileRun } from '../compile/compile.ts';
import type { Precision } from '../compile/precision.ts';
import type { Rounding } from '../decimal/decimal-precision.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import type { Method } from '../method/method.ts';
import type { Problem } from '../problem/problem.ts';
import { layGrid } from './grid.ts';
import { begin, goTo, integrate } from './integrate.ts';
import { keepRun, rowsAgain } from './long-run.ts';
import { rowsOf } from './rows.ts';
import { method, problem } from '../test-texts.ts';

function decimal(digits: number, rounding: Rounding = 'half-even'): Precision {
  return { digits, rounding, rounded: 'operations' };
}

function run(of: Problem, how: Method, precision: Precision): CompiledRun {
  return compileWithStart(of, how, { find: findInLibrary, instead: null, precision });
}

/** All digits of the values at every grid point. */
function allDigits(of: CompiledRun, steps: number): readonly (readonly string[])[] {
  const grid = layGrid(of.problem.start, of.problem.end, { steps });
  return rowsOf(of, grid, { from: 0, count: steps + 1 }).rows.map(({ digits }) => digits?.values ?? []);
}

/** A number as an integer and a power of ten, without zeros at its end. */
function canonical(text: string): string {
  const [mantissa = '', power = '0'] = text.toLowerCase().split('e');
  const [whole = '', decimals = ''] = mantissa.split('.');
  const sign = whole.startsWith('-') ? '-' : '';
  const digits = `${whole}${decimals}`.replace(/^-?0*/, '');
  const kept = digits.replace(/0+$/, '');
  return kept === ''
    ? '0e0'
    : `${sign}${kept}e${Number(power) - decimals.length + digits.length - kept.length}`;
}

/** As in decimal-loops.py. */
const PROBLEMS: Readonly<Record<string, string>> = {
  sluice: "y' = -0.35*sqrt(y)\ny(0) = 4\n0 <= t <= 8",
  frost: "y' = 0.6 - 1.7*y*y\ny(0) = 0.125\n0 <= t <= 2",
  thermistor: "y' = -0.8*(y - 12.5) + 3.1/(1 + t)\ny(0) = 31.7\n0 <= t <= 3",
  quotient: "y' = (t^2 + 1)/(y + 0.3)\ny(0) = 1.1\n0 <= t <= 1",
  pair: "x' = 1.1*x - 0.4*x*z\nz' = 0.1*x*z - 0.4*z\nx(0) = 9.5\nz(0) = 4.25\n0 <= t <= 2",
  sway: "x' = v\nv' = -x - v/5\nx(0) = 1\nv(0) = 0.5\n0 <= t <= 3",
};
const METHODS: Readonly<Record<string, string>> = {
  Euler: 'y[n+1] = y + h*f(t, y)',
  Heun: 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)',
  midpoint: 'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\ny[n+1] = y + h*k2',
  'Kutta 3':
    'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h, y - h*k1 + 2*h*k2)\ny[n+1] = y + h/6*(k1 + 4*k2 + k3)',
  RK4: 'k1 = f(t, y)\nk2 = f(t + h/2, y + h/2*k1)\nk3 = f(t + h/2, y + h/2*k2)\nk4 = f(t + h, y + h*k3)\ny[n+1] = y + h/6*(k1 + 2*k2 + 2*k3 + k4)',
};

test('30 pairs of problem and method, 4 to 50 digits, three roundings: digit by digit the decimal module', () => {
  const steps = 7;
  const lines = execFileSync('python3', [join(__dirname, 'decimal-loops.py'), String(steps)], {
    encoding: 'utf8',
  })
    .trim()
    .split('\n');
  expect(lines).toHaveLength(30 * 4 * 3);
  const off = lines.flatMap((line) => {
    const [name = '', how = '', digits = '', rounding = '', rows = ''] = line.split('|');
    const mode = (['half-even', 'half-up', 'chop'] as const).find((one) => one === rounding) ?? 'half-even';
    const own = run(problem(PROBLEMS[name]!), method(METHODS[how]!), decimal(Number(digits), mode));
    const found = allDigits(own, steps)
      .slice(1)
      .map((values) => values.map(canonical).join(' '))
      .join(';');
    return found === rows ? [] : [`${name}, ${how}, ${digits}, ${rounding}: ${found}, not ${rows}`];
  });
  expect(off).toEqual([]);
});

const DECAY = problem("y' = -y + t\ny(0) = 1\n0 <= t <= 2\ny(t) = 2*exp(-t) + t - 1");
const HEUN = method(METHODS['Heun']!);

test.each([
  ['explicit', 'RK4'],
  ['of several steps', 'Adams-Bashforth 4'],
  ['implicit', 'Trapezoidal rule'],
  ['Taylor', 'Taylor 4'],
])('with 17 digits a run %s is that of doubles, to its rounding', (_, name) => {
  const how = findInLibrary(name)!;
  const grid = layGrid(0, 2, { steps: 20 });
  const doubles = integrate(run(DECAY, how, 'double'), grid).values;
  const decimals = integrate(run(DECAY, how, decimal(17)), grid).values;
  expect(Math.abs(decimals[0]! - doubles[0]!)).toBeLessThan(1e-14);
});

test('a system of second order and a family in decimals are those of doubles, to their rounding', () => {
  const sway = problem("x'' = -x - x'/5\nx(0) = 1\nx'(0) = 1/3\n0 <= t <= 2");
  const chain = problem(
    "u[i]' = u[i-1] - 2*u[i] + u[i+1] for i = 1..6\nu[0] = 0\nu[7] = 1\nu[i](0) = i/7 for i = 1..6\n0 <= t <= 1",
  );
  for (const [of, name] of [
    [sway, 'RK4'],
    [sway, 'Velocity Verlet'],
    [chain, 'RK4'],
    [chain, 'Backward Euler'],
  ] as const) {
    const how = findInLibrary(name)!;
    const grid = layGrid(of.start, of.end, { steps: 12 });
    const doubles = integrate(run(of, how, 'double'), grid).values;
    const decimals = integrate(run(of, how, decimal(25)), grid).values;
    decimals.forEach((value, j) => expect(Math.abs(value - doubles[j]!)).toBeLessThan(1e-13));
  }
});

test('numbers of a problem are computed from their formulas, not from doubles', () => {
  const thirds = problem("y' = c\nc = 1/3\ny(0) = 2/3\n0 <= t <= 1/7");
  const [first, last] = allDigits(run(thirds, method(METHODS['Euler']!), decimal(20)), 1);
  expect(first).toEqual(['0.66666666666666666667']);
  // h*c = 0.14285714285714285714 * 0.33333333333333333333 = 0.047619047619047619046..., to 20 digits
  expect(last).toEqual(['0.71428571428571428572']);
});

test('a sum of tenths is exact in decimals: the literal 0.1 is 0.1', () => {
  const tenths = problem("y' = 0.1\ny(0) = 0\n0 <= t <= 10");
  expect(allDigits(run(tenths, method(METHODS['Euler']!), decimal(6)), 10).at(-1)).toEqual(['1']);
  const long = problem("y' = 0.1234567890123456789012345\ny(0) = 0\n0 <= t <= 1");
  expect(allDigits(run(long, method(METHODS['Euler']!), decimal(30)), 1).at(-1)).toEqual([
    '0.1234567890123456789012345',
  ]);
});

test('stored values alone are rounded: the student keeps three digits of each line', () => {
  const of = problem("y' = -y/3\ny(0) = 1\n0 <= t <= 1");
  const how = compileRun(of, HEUN, {
    precision: { digits: 3, rounding: 'half-even', rounded: 'stored' },
  });
  const grid = layGrid(0, 1, { steps: 1 });
  const { digits } = rowsOf(how, grid, { from: 0, count: 2 }).rows[0]!;
  // k1 = -1/3, k2 = -(1 - 0.333)/3 = -0.222333...
  expect(digits?.stages).toEqual([['-0.333'], ['-0.222']]);
  // 1 + 1/2*(-0.333 - 0.222) = 0.7225, a tie that goes to the even digit
  expect(rowsOf(how, grid, { from: 1, count: 1 }).rows[0]?.digits?.values).toEqual(['0.722']);
});

test('exact starting values and a starting method are in the arithmetic of the run', () => {
  const ab2 = method('start with exact\ny[n+1] = y + h/2*(3*f[n] - f[n-1])');
  const own = allDigits(run(DECAY, ab2, decimal(30)), 10);
  // 2 exp(-0.2) + 0.2 - 1, by the decimal module with 45 digits
  expect(own[1]).toEqual(['0.83746150615596371733987101724']);
  const withHeun = method(`start with Heun\ny[n+1] = y + h/2*(3*f[n] - f[n-1])`);
  expect(allDigits(run(DECAY, withHeun, decimal(30)), 10)[1]).toEqual(
    allDigits(run(DECAY, HEUN, decimal(30)), 10)[1],
  );
});

test('a run is the same from a checkpoint, and its stages are those of the step', () => {
  const own = run(DECAY, HEUN, decimal(40));
  const grid = layGrid(0, 2, { steps: 50 });
  const work = keepRun(own, grid);
  let next = work.next();
  while (next.done !== true) next = work.next();
  const again = rowsAgain(next.value, 37, 3);
  expect(again.rows).toEqual(rowsOf(own, grid, { from: 37, count: 3 }).rows);
  expect(again.rows[0]?.digits?.values).toEqual(allDigits(own, 50)[37]);
});

test('the last step is shortened to the end, to all digits', () => {
  const grid = layGrid(0, 2, { h: 0.3 }, 'shorten');
  const own = run(DECAY, method(METHODS['Euler']!), decimal(20));
  const { rows } = rowsOf(own, grid, { from: 0, count: 8 });
  expect(rows.map(({ digits }) => digits?.t)).toEqual(['0', '0.3', '0.6', '0.9', '1.2', '1.5', '1.8', '2']);
});

test('a run stops where a value has none, with the operation and its numbers', () => {
  const of = problem("y' = -1/y\ny(0) = 1\n0 <= t <= 2");
  const own = run(of, method(METHODS['Euler']!), decimal(4));
  const at = begin(own, layGrid(0, 2, { steps: 2 }));
  goTo(at, 2);
  // 1 - 1*1/1 = 0, which a calculator divides by in the next step
  expect(at.stopped).toEqual({ step: 2, t: 1, stage: 'y[n+1]', why: "-1 is divided by 0 in y'" });
  expect(at.decimals?.values.map(String)).toEqual(['0']);
});

test('limits have sentences of their own', () => {
  const many = problem("u[i]' = -u[i] for i = 1..101\nu[i](0) = 1 for i = 1..101\n0 <= t <= 1");
  expect(() => run(many, HEUN, decimal(34))).toThrow(
    'a run with 34 digits takes up to 100 components, and this problem has 101; take fewer of them, or double precision',
  );
  expect(() => begin(run(DECAY, HEUN, decimal(34)), layGrid(0, 2, { steps: 1e8 }))).toThrow(
    /^a run with 34 digits takes at most [\d,]+ steps of this method on this problem, and the grid has 100,000,000/,
  );
});
