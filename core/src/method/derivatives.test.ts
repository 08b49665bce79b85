import { compileRun } from '../compile/compile.ts';
import type { Problem } from '../problem/problem.ts';
import { integrate } from '../run/integrate.ts';
import { layGrid } from '../run/grid.ts';
import { evaluationsPerStep, partialOf } from './method.ts';
import { parseMethod } from './parse-method.ts';
import { methodTex } from './tex-method.ts';
import { method, problem } from '../test-texts.ts';

function errors(text: string): readonly string[] {
  const reading = parseMethod(text);
  return reading.ok ? [] : reading.errors.map(({ line, message }) => `${line}: ${message}`);
}

function after(
  of: Problem,
  text: string,
  steps: number,
  precision: 'double' | 'single' = 'double',
): readonly number[] {
  const run = compileRun(of, method(text), { precision });
  return [...integrate(run, layGrid(of.start, of.end, { steps })).values];
}

const RICCATI = problem("y' = t^2 + y^2\ny(0) = 0.5\n0 <= t <= 1");
const SWAY = problem("u' = -u*w + t\nw' = u^2 - w*t\nu(0) = 1\nw(0) = 0.5\n0 <= t <= 1");

test.each([
  ['f_t', { times: 1, values: 0 }],
  ['f_ty', { times: 1, values: 1 }],
  ['f_yt', { times: 1, values: 1 }],
  ['f_yyy', { times: 0, values: 3 }],
  ['f_x', null],
  ['f_', null],
  ['f', null],
] as const)('%s', (name, expected) => {
  expect(partialOf(name)).toEqual(expected);
});

describe('one equation', () => {
  // y' = t^2 + y^2: f_t = 2 t, f_y = 2 y, f_yy = 2, all others of second order 0
  test.each<[string, string, (t: number, y: number, h: number) => number]>([
    [
      'Taylor of order 2 by partial derivatives',
      'y[n+1] = y + h*f(t, y) + h^2/2*(f_t(t, y) + f_y(t, y)*f(t, y))',
      (t, y, h) => y + h * (t * t + y * y) + ((h * h) / 2) * (2 * t + 2 * y * (t * t + y * y)),
    ],
    [
      'Taylor of order 2 typed out',
      'd2(t, y) = 2*t + 2*y*(t^2 + y^2)\ny[n+1] = y + h*f(t, y) + h^2/2*d2(t, y)',
      (t, y, h) => y + h * (t * t + y * y) + ((h * h) / 2) * (2 * t + 2 * y * (t * t + y * y)),
    ],
    [
      'typed out, with other names for its inputs and f in it',
      'd2(s, w) = 2*s + 2*w*f(s, w)\ny[n+1] = y + h*f(t, y) + h^2/2*d2(t, y)',
      (t, y, h) => y + h * (t * t + y * y) + ((h * h) / 2) * (2 * t + 2 * y * (t * t + y * y)),
    ],
    [
      'one on another',
      'c = 2\nd2(t, y) = c*t + 2*y*(t^2 + y^2)\nd3(t, y) = 2 + d2(t, y)\nk = d3(t + h, y + h*f(t, y))\ny[n+1] = y + h*k',
      (t, y, h) => {
        const [s, w] = [t + h, y + h * (t * t + y * y)];
        return y + h * (2 + (2 * s + 2 * w * (s * s + w * w)));
      },
    ],
    [
      'order 3 by partial derivatives up to f_yy',
      'k = f(t, y)\nd = f_t(t, y) + f_y(t, y)*k\ny[n+1] = y + h*k + h^2/2*d + h^3/6*(f_tt(t, y) + 2*f_ty(t, y)*k + f_yy(t, y)*k^2 + f_y(t, y)*d)',
      (t, y, h) => {
        const k = t * t + y * y;
        const d = 2 * t + 2 * y * k;
        return y + h * k + ((h * h) / 2) * d + ((h * h * h) / 6) * (2 + 2 * 0 * k + 2 * (k * k) + 2 * y * d);
      },
    ],
    [
      'divided by 1 less a derivative',
      'y[n+1] = y + h*f(t, y)/(1 - h*f_y(t, y))',
      (t, y, h) => y + (h * (t * t + y * y)) / (1 - h * (2 * y)),
    ],
    [
      'in the order of the text',
      'J = f_y(t, y)\ny[n+1] = y + (h*J)*f(t, y)',
      (t, y, h) => y + h * (2 * y) * (t * t + y * y),
    ],
  ])('%s', (_, text, step) => {
    for (const steps of [2, 7]) {
      const h = 1 / steps;
      let y = 0.5;
      for (let n = 0; n < steps; n += 1) y = step(n * h, y, h);
      expect(after(RICCATI, text, steps)).toEqual([y]);
    }
  });

  test('partial derivatives make what the program makes along the solution', () => {
    const whole = after(RICCATI, "y[n+1] = y + h*f(t, y) + h^2/2*f'(t, y)", 10)[0]!;
    const parts = after(RICCATI, 'y[n+1] = y + h*f(t, y) + h^2/2*(f_t(t, y) + f_y(t, y)*f(t, y))', 10)[0]!;
    expect(parts / whole).toBeCloseTo(1, 14);
  });

  test('in single precision every operation is rounded', () => {
    const F = Math.fround;
    const h = F(0.25);
    let y = F(0.5);
    for (let n = 0; n < 4; n += 1) {
      const t = F(n * 0.25);
      y = F(y + F(F(h * F(2 * y)) * F(F(t * t) + F(y * y))));
    }
    expect(after(RICCATI, 'y[n+1] = y + h*f_y(t, y)*f(t, y)', 4, 'single')).toEqual([y]);
  });

  test('a typed derivative that divides by zero is reported with its line', () => {
    const singular = "y' = -y\ny(0) = 0\n0 <= t <= 1";
    const run = compileRun(problem(singular), method('d2(t, y) = 1/y\ny[n+1] = y + h*d2(t, y)'));
    expect(integrate(run, layGrid(0, 1, { steps: 2 })).stopped).toMatchObject({
      step: 1,
      stage: 'd2',
      why: '1 is divided by 0',
    });
  });

  test('such a method is refused for a system, with what would do', () => {
    expect(() => compileRun(SWAY, method('d2(t, y) = y\ny[n+1] = y + h*d2(t, y)'))).toThrow(
      "this method multiplies values or types derivatives out, which is for one equation of first order, and the problem has 2 components; f'(t, y) and f_y(t, y)*f(t, y) are for systems, too",
    );
  });
});

describe('systems', () => {
  const TAYLOR = 'k = f(t, y)\ny[n+1] = y + h*k + h^2/2*(f_t(t, y) + f_y(t, y)*k)';

  test('f_t is a vector and f_y the Jacobian, applied to a vector', () => {
    const h = 0.25;
    let [u, w] = [1, 0.5];
    for (let n = 0; n < 4; n += 1) {
      const t = n * h;
      const k = [-u * w + t, u * u - w * t] as const;
      const moved = [-(k[0] * w + u * k[1]), 2 * u * k[0] - k[1] * t] as const;
      const by = [1, -w] as const;
      [u, w] = [
        u + h * k[0] + ((h * h) / 2) * (by[0] + moved[0]),
        w + h * k[1] + ((h * h) / 2) * (by[1] + moved[1]),
      ];
    }
    const found = after(SWAY, TAYLOR, 4);
    expect(found[0]! / u).toBeCloseTo(1, 14);
    expect(found[1]! / w).toBeCloseTo(1, 14);
  });

  test.each([
    ['a name for the Jacobian', 'k = f(t, y)\nJ = f_y(t, y)\ny[n+1] = y + h*k + h^2/2*(f_t(t, y) + J*k)'],
    ['scaled first', 'k = f(t, y)\ny[n+1] = y + h*k + (h^2/2*f_y(t, y))*k + h^2/2*f_t(t, y)'],
    ['added up', 'k = f(t, y)\ny[n+1] = y + h*k + h^2/2*((3*f_y(t, y) - 2*f_y(t, y))*k + f_t(t, y))'],
    ['with a minus', 'k = f(t, y)\ny[n+1] = y + h*k - (-f_y(t, y))/2*(h^2*k) + h^2/2*f_t(t, y)'],
  ])('%s', (_, text) => {
    const [a, b] = [after(SWAY, TAYLOR, 5), after(SWAY, text, 5)];
    a.forEach((value, j) => expect(b[j]! / value).toBeCloseTo(1, 13));
  });

  test('a family of 400 and its 20 components written out agree with their derivative along the solution', () => {
    for (const n of [20, 400]) {
      const family = problem(
        `u[i]' = u[i-1] - 2*u[i]^2 + u[i+1]*t + i/${n} for i = 1..${n}\nu[0] = sin(t)\nu[${n + 1}] = 0\nu[i](0) = i/${n} for i = 1..${n}\n0 <= t <= 0.5`,
      );
      const parts = after(family, TAYLOR, 8);
      const whole = after(family, "k = f(t, y)\ny[n+1] = y + h*k + h^2/2*f'(t, y)", 8);
      parts.forEach((value, j) => expect(value / whole[j]!).toBeCloseTo(1, 11));
    }
  });

  test('f_yy is for one equation', () => {
    const text = 'y[n+1] = y + h*f_yy(t, y)*f(t, y)';
    expect(method(text).oneEquation).toBe(true);
    expect(method(TAYLOR).oneEquation).toBe(false);
  });
});

test.each([
  [
    'y[n+1] = y + h*f(t, y)*f(t, y)',
    [
      '1: two vectors cannot be multiplied: one of these factors should be a number such as h; the derivative of f with respect to y times f is written f_y(t, y)*f(t, y), and a derivative worked out by hand goes on a line of its own, as in d2(t, y) = 2*t*y',
    ],
  ],
  [
    'd2(t, y) = -k*y\ny[n+1] = y + h*d2(t, y)',
    [
      '1: k is not known in d2(t, y), which may contain t, y and numbers defined above, such as k = 1; parameters of the problem are not available here',
    ],
  ],
  [
    'd2(t, y) = h*y\ny[n+1] = y + h*d2(t)',
    [
      '1: h is not known in d2(t, y), which may contain t, y and numbers defined above, such as h = 1; parameters of the problem are not available here',
      '2: d2 takes the time and the value: d2(t, y)',
    ],
  ],
  [
    'f(t, y) = -y\ny[n+1] = y + h*f(t, y)',
    [
      '1: f is the right-hand side of the problem and is typed there; a typed derivative needs another name, as in d2(t, y) = ...',
    ],
  ],
  ['d2(t, y) = y\nd2(t, y) = t\ny[n+1] = y + h*d2(t, y)', ['2: d2 is given twice']],
  ['y[n+1] = y + h*f_y(t, y)', []],
  ['y[n+1] = y + h*f_yyyyyyy(t, y)', ['1: partial derivatives are supported up to order 6']],
  [
    'solve y[n+1] = y + h*f_y(t, y)*y[n+1]',
    ['1: derivatives of f are not allowed inside solve; define them on a line above'],
  ],
  ['d2(t, y) = 2*t*y', ['1: the new value is missing; add a line y[n+1] = ...']],
  ['y[n+1] = y + h*d2(t)\nd2(t, y) = y', ['1: d2 takes the time and the value: d2(t, y)']],
] as const)('%s', (text, expected) => {
  expect(errors(text)).toEqual(expected);
});

test('as books write them', () => {
  const plain = 'y[n+1] = y[n] + h*f(t[n], y[n]) + h^2/2*(f_t(t[n], y[n]) + f_y(t[n], y[n])*f(t[n], y[n]))';
  for (const text of [
    'y_{n+1} = y_n + h f(t_n, y_n) + h^2/2 (f_t(t_n, y_n) + f_y(t_n, y_n) f(t_n, y_n))',
    'y_{n+1} = y_n + h f(x_n, y_n) + \\frac{h^2}{2} (f_{x}(x_n, y_n) + f_{y}(x_n, y_n) f(x_n, y_n))',
    'u_{k+1} = u_k + h f(t_k, u_k) + h²/2 (f_t(t_k, u_k) + f_u(t_k, u_k) f(t_k, u_k))',
  ])
    expect(after(RICCATI, text, 3)).toEqual(after(RICCATI, plain, 3));
});

test('they are typeset and counted', () => {
  const text = 'd2(t, y) = 2*t + 2*y*f(t, y)\ny[n+1] = y + h*f(t, y) + h^2/2*(f_ty(t, y) + d2(t, y))';
  expect(methodTex(method(text))).toEqual([
    'd_{2}(t, y) = 2 t + 2 y f(t, y)',
    'y_{n+1} = y + h f(t, y) + \\frac{h^{2}}{2}\\,(f_{ty}(t, y) + d_{2}(t, y))',
  ]);
  // f, f_ty, d2 and the f in it
  expect(evaluationsPerStep(method(text))).toBe(4);
});
