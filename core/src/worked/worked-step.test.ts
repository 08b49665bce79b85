import { compileWithStart } from '../compile/compile-with-start.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { LIBRARY } from '../method/library/library.ts';
import type { Problem } from '../problem/problem.ts';
import { layGrid } from '../run/grid.ts';
import { rowsOf } from '../run/rows.ts';
import { workedStep, type WorkedStep } from './worked-step.ts';
import { method, problem } from '../test-texts.ts';

function worked(of: Problem, text: string, steps: number, n: number, component = 0): WorkedStep {
  const read = method(text);
  const run = compileWithStart(of, read, { find: findInLibrary, instead: null });
  return workedStep(run, layGrid(of.start, of.end, { steps }), n, component);
}

const SLUICE = problem(
  "level' = -k*sqrt(level)\nk = 0.35\nlevel(0) = 4\n0 <= t <= 8\nlevel(t) = (2 - k*t/2)^2",
);
const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)';

test('Heun, step 9 to 10 at h = 0.5: formula, numbers, value', () => {
  const f = (level: number): number => -0.35 * Math.sqrt(level);
  let y = 4;
  for (let n = 0; n < 9; n += 1) y += 0.25 * (f(y) + f(y + 0.5 * f(y)));
  const k1 = f(y);
  const place = y + 0.5 * k1;
  const k2 = f(place);
  const next = y + (0.5 / 2) * (k1 + k2);
  const step = worked(SLUICE, HEUN, 16, 9);
  expect(step.lines.map(({ gives, value }) => [gives, value])).toEqual([
    ['k1', k1],
    [null, place],
    ['k2', k2],
    ['y[n+1]', next],
  ]);
  const seven = (x: number): string => String(Number(x.toPrecision(7)));
  expect(step.lines.map(({ tex }) => tex)).toEqual([
    ['k_{1}', 'f(t, y)', `-0.35 \\sqrt{${seven(y)}}`, seven(k1)],
    ['y + h k_{1}', `${seven(y)} + 0.5 (${seven(k1)})`, seven(place)],
    ['k_{2}', 'f(t + h, y + h k_{1})', `-0.35 \\sqrt{${seven(place)}}`, seven(k2)],
    [
      'y_{10}',
      'y + \\frac{h}{2}\\,(k_{1} + k_{2})',
      `${seven(y)} + \\frac{0.5}{2}\\,(${seven(k1)} ${seven(k2).replace('-', '- ')})`,
      seven(next),
    ],
  ]);
  expect(step.slopes).toEqual([
    { label: 'k1', t: 4.5, value: y, slope: k1 },
    { label: 'k2', t: 5, value: place, slope: k2 },
  ]);
  expect([step.from, step.to]).toEqual([y, next]);
  expect(step.exact[1]).toBeCloseTo((2 - (0.35 * 5) / 2) ** 2, 14);
});

test('indices of a formula carry the number of the step', () => {
  const step = worked(SLUICE, 'start with RK4\ny[n+1] = y[n] + h/2*(3*f[n] - f[n-1])', 16, 9);
  expect(step.lines[0]?.tex.slice(0, 2)).toEqual(['y_{10}', 'y_{9} + \\frac{h}{2}\\,(3 f_{9} - f_{8})']);
  expect(worked(SLUICE, 'start with RK4\ny[n+1] = y[n] + h/2*(3*f[n] - f[n-1])', 16, 0)).toMatchObject({
    byStarter: true,
    lines: [],
  });
});

const SWAY = problem("x'' = -x - x'/5 + cos(t)/9\nx(0) = 1\nx'(0) = 0.5\n0 <= t <= 2");

test.each(LIBRARY.map(({ title, text }) => [title, text] as const))(
  '%s: every line is what its formula gives, and the last one is the next row',
  (_, text) => {
    for (const component of [0, 1]) {
      const isSecond = method(text).form === 'second order';
      if (isSecond && component === 1) continue;
      const read = method(text);
      const run = compileWithStart(SWAY, read, { find: findInLibrary, instead: null });
      const grid = layGrid(0, 2, { steps: 20 });
      const step = workedStep(run, grid, 12, component);
      const { rows } = rowsOf(run, grid, { from: 12, count: 2 });
      expect(step.to).toBe(rows[1]?.values[component]);
      expect(step.lines.length).toBeGreaterThan(0);
      for (const line of step.lines) {
        expect(line.residual).not.toBeNull();
        expect(line.residual).toBeLessThan(1e-13);
        expect(line.tex.length).toBeGreaterThanOrEqual(3);
        expect(line.tex.join(' ')).not.toContain('NaN');
      }
    }
  },
);

test('partial and typed derivatives have their numbers', () => {
  const of = problem("y' = t^2 + y^2\ny(0) = 0.5\n0 <= t <= 1");
  const step = worked(
    of,
    'd2(t, y) = 2*t + 2*y*(t^2 + y^2)\ny[n+1] = y + h*f(t, y) + h^2/2*d2(t, y) + 0*h*f_y(t, y)',
    2,
    0,
  );
  // f = 0.25, d2 = 2*0.5*0.25
  expect(step.lines[0]?.tex[2]).toBe(
    '0.5 + 0.5 \\cdot 0.25 + \\frac{0.5^{2}}{2} \\cdot 0.25 + 0 \\cdot 0.5 \\cdot 1',
  );
});

test('a step that there is none of is refused, and one in which the run left the numbers', () => {
  expect(() => worked(SLUICE, HEUN, 16, 16)).toThrow('there is no step from 16 to 17');
  const avalanche = problem("m' = m^2\nm(0) = 1\n0 <= t <= 20");
  expect(() => worked(avalanche, HEUN, 20, 12)).toThrow(/the run stops in step \d+/);
});

test('the residual of a line is the distance of its value from its formula', () => {
  const read = method(HEUN);
  const run = compileWithStart(SLUICE, read, { find: findInLibrary, instead: null });
  const off: typeof run = {
    ...run,
    trace: (state, origin, h, first, count, out) => {
      run.trace(state, origin, h, first, count, out);
      out[0]! += 1e-3;
    },
  };
  const { lines } = workedStep(off, layGrid(0, 8, { steps: 16 }), 3, 0);
  expect(lines.find(({ gives }) => gives === 'k1')?.residual).toBeCloseTo(1e-3, 12);
  expect(lines.find(({ gives }) => gives === 'k2')?.residual).toBe(0);
});

test('a Jacobian applied to a vector has its number, for systems too', () => {
  const pair = problem("u' = w\nw' = -4*u\nu(0) = 1\nw(0) = 0.5\n0 <= t <= 1");
  const step = worked(pair, 'k = f(t, y)\ny[n+1] = y + h*k + h^2/2*(f_t(t, y) + f_y(t, y)*k)', 2, 0);
  // f = (0.5, -4), and J f = (-4, -2)
  expect(step.lines.at(-1)?.tex[2]).toBe('1 + 0.5 \\cdot 0.5 + \\frac{0.5^{2}}{2}\\,(0 - 4)');
});

test('a step is written in the names of its method', () => {
  const of = problem("w' = x - w\nw(0) = 1\n0 <= x <= 2");
  const { lines } = worked(of, 'k1 = f(x_n, u_n)\nu_{k+1} = u_k + h*k1', 4, 1);
  expect(lines.at(0)?.tex.slice(0, 2)).toEqual(['k_{1}', 'f(x_{1}, u_{1})']);
  expect(lines.at(-1)?.tex.slice(0, 2)).toEqual(['u_{2}', 'u_{1} + h k_{1}']);
});
