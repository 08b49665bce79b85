import { parseMethod } from '../method/parse-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import type { Reading } from '../text/place.ts';

const PLACES: ReadonlySet<string> = new Set(['at', 'nameAt', 'text']);

/** What a text says, without its places. */
function meaning(
  reading: Reading<{ readonly statements: readonly unknown[]; readonly depth?: number }>,
): unknown {
  if (!reading.ok) return reading.errors.map(({ line, column, message }) => `${line}:${column} ${message}`);
  const { statements, depth } = reading.value;
  return JSON.parse(
    JSON.stringify({ statements, depth }, (key, value) => (PLACES.has(key) ? undefined : value)),
  );
}

const method = (text: string): unknown => meaning(parseMethod(text));
const problem = (text: string): unknown => meaning(parseProblem(text));

const EULER = 'y[n+1] = y[n] + h*f(t[n], y[n])';

describe('methods, as they are written', () => {
  test.each<[string, string]>([
    ['y_{n+1} = y_n + h f(t_n, y_n)', EULER],
    ['y_{n+1} = y_{n} + h f(t_{n}, y_{n})', EULER],
    ['y(n+1) = y(n) + h*f(t(n), y(n))', EULER],
    ['y[n+1]=y[n]+h f(t[n],y[n])', EULER],
    ['y_{i+1} = y_i + h f(t_i, y_i)', EULER],
    ['y[k+1] = y[k] + h*f(t[k], y[k])', EULER],
    ['y(j+1) = y(j) + h*f(t(j), y(j))', EULER],
    ['u_{k+1} = u_k + h f(t_k, u_k)', EULER],
    ['u[k+1] = u[k] + h*f(t[k], u[k])', EULER],
    ['w(i+1) = w(i) + h*f(t(i), w(i))', EULER],
    ['y_{n+1} = y_n + h f(x_n, y_n)', 'y[n+1] = y[n] + h*f(t[n], y[n])'],
    ['y[n+1] = y + h*f(x, y)', 'y[n+1] = y + h*f(t, y)'],
    ['y[n+1] = y + h f(t, y);', 'y[n+1] = y + h*f(t, y)'],
    ['y[n+1] = y + h·f(t, y)', 'y[n+1] = y + h*f(t, y)'],
    ['y[n+1] = y + h × f(t, y)', 'y[n+1] = y + h*f(t, y)'],
    ['y[n+1] = y − h f(t, y)', 'y[n+1] = y - h*f(t, y)'],
    ['$y_{n+1} = y_n + h f(t_n, y_n)$', EULER],
    ['y_{n+1} = y_n + h\\,f(t_n, y_n)', EULER],
    ['y_{n+1} = y_n + h \\cdot f\\left(t_n, y_n\\right)', EULER],
    ['y_{n+1} = y_n + h\\;f\\!\\left( t_n , y_n \\right)', EULER],
    [
      'k1 = f(t, y); k2 = f(t + h, y + h k1); y[n+1] = y + h/2 (k1 + k2)',
      'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)',
    ],
    ['k1 = f(t, y),\ny[n+1] = y + h k1,', 'k1 = f(t, y)\ny[n+1] = y + h*k1'],
    ['k_1 = f(t_n, y_n)\ny_{n+1} = y_n + h k_1', 'k_1 = f(t[n], y[n])\ny[n+1] = y[n] + h*k_1'],
    ['k_{1} = f(t, y)\ny[n+1] = y + h k_{1}', 'k_1 = f(t, y)\ny[n+1] = y + h*k_1'],
    ['k1 = f(t, y)\ny[n+1] = y + \\frac{h}{6} k1', 'k1 = f(t, y)\ny[n+1] = y + h/6*k1'],
    ['k1 = f(t, y)\ny[n+1] = y + \\frac{1}{2} h k1', 'k1 = f(t, y)\ny[n+1] = y + 1/2*h*k1'],
    ['k1 = f(t, y)\ny[n+1] = y + ½ h k1', 'k1 = f(t, y)\ny[n+1] = y + 0.5*h*k1'],
    ['k1 = f(t, y)\ny[n+1] = y + (h/2) k1', 'k1 = f(t, y)\ny[n+1] = y + (h/2)*k1'],
    ['k1 = f(t, y)\ny[n+1] = y + 1/2 h k1', 'k1 = f(t, y)\ny[n+1] = y + 1/2*h*k1'],
    ['k1 = f(t, y)\ny[n+1] = y + h (k1)', 'k1 = f(t, y)\ny[n+1] = y + h*(k1)'],
    ['k1 = f(t, y)\ny[n+1] = y + h^{2} k1', 'k1 = f(t, y)\ny[n+1] = y + h^2*k1'],
    ['k1 = f(t, y)\ny[n+1] = y + h² k1', 'k1 = f(t, y)\ny[n+1] = y + h^2*k1'],
    ['k1 = f(t, y)\ny[n+1] = y + \\sqrt{h} k1', 'k1 = f(t, y)\ny[n+1] = y + sqrt(h)*k1'],
    ['\\alpha = 1/3\ny[n+1] = y + \\alpha h f(t, y)', 'alpha = 1/3\ny[n+1] = y + alpha*h*f(t, y)'],
    [
      'start with RK4\ny_{n+1} = y_n + h/2 (3 f_n - f_{n-1})',
      'start with RK4\ny[n+1] = y[n] + h/2*(3 f[n] - f[n-1])',
    ],
    [
      'start with RK4\ny(n+1) = y(n) + h/2*(3*f(n) - f(n-1))',
      'start with RK4\ny[n+1] = y[n] + h/2*(3*f[n] - f[n-1])',
    ],
    ['start with RK4\ny_{n+1} = y_{n-1} + 2h f_n', 'start with RK4\ny[n+1] = y[n-1] + 2h*f[n]'],
    [
      'start with RK4\ny_{k+1} = y_{k-1} + 2h f(t_k, y_k)',
      'start with RK4\ny[n+1] = y[n-1] + 2h*f(t[n], y[n])',
    ],
    [
      'solve k1 = f(t + h/2, y + h/2 k1)\ny_{n+1} = y_n + h k1',
      'solve k1 = f(t + h/2, y + h/2*k1)\ny[n+1] = y[n] + h*k1',
    ],
    [
      'x_{n+1} = x_n + h v_n\nv_{n+1} = v_n + h a(t_n, x_n, v_n)',
      'x[n+1] = x[n] + h*v[n]\nv[n+1] = v[n] + h*a(t[n], x[n], v[n])',
    ],
    // what a text gives itself is its own
    ['y_n = y + h*f(t, y)\ny[n+1] = y_n', 'y_n = y + h*f(t, y)\ny[n+1] = y_n'],
  ])('%s', (written, plain) => {
    expect(parseMethod(plain).ok).toBe(true);
    expect(method(written)).toEqual(method(plain));
  });

  test.each<[string, string]>([
    ['y_n+1 = y_n + h*f(t, y)', '1:1 y_n+1 is ambiguous: write y[n+1] or y[n] + 1'],
    ['yn+1 = yn + h*f(t, y)', '1:1 yn+1 is ambiguous: write y[n+1] or y[n] + 1'],
    ['y[n+1] = y_n-1 + h*f(t, y)', '1:10 y_n-1 is ambiguous: write y[n-1] or y[n] - 1'],
    ['k1 = f(t, y)\ny[n+1] = y + hk1', '2:14 hk1 is not known; to multiply write h*k1'],
    [
      'k1 = f(t, y)\ny[n+1] = y + 1/h k1',
      '2:18 a product written with a space after a quotient is ambiguous: 1/(h*k1) or (1/h)*k1',
    ],
    ['y[n+1] = y + 0,5*h*f(t, y)', '1:14 use a decimal point, not a comma: write 0.5'],
    [
      'y[n+1] = y + \\foo h*f(t, y)',
      '1:14 the character \\ is not allowed in a formula; formulas are plain text here, not TeX',
    ],
  ])('%s is answered once: %s', (written, message) => {
    expect(method(written)).toEqual([message]);
  });

  test('places are those of the text as it was typed', () => {
    const reading = parseMethod('k1 = f(t, y)\ny_{n+1} = y_n + \\frac{h}{2} k9');
    expect(reading.ok ? [] : reading.errors).toMatchObject([{ line: 2, column: 29, length: 2 }]);
  });
});

describe('problems, as they are written', () => {
  const REST = '\ny(0) = 1\n0 <= t <= 2';
  test.each<[string, string]>([
    ["y'(t) = -y(t)", "y' = -y"],
    ["y'(t) = t - 2 y(t)", "y' = t - 2 y"],
    ['dy/dt = -y', "y' = -y"],
    ['dy / dt = t y', "y' = t*y"],
    ['\\frac{dy}{dt} = -y', "y' = -y"],
    ['\\frac{d y}{d t} = -y', "y' = -y"],
    ['\\dot{y} = -y', "y' = -y"],
    ['f(t, y) = t - 2y', "y' = t - 2y"],
    ["k = 2\ny' = -k y", "k = 2\ny' = -k*y"],
    ["lambda = 2\ny' = -lambda y", "lambda = 2\ny' = -lambda*y"],
    ["\\lambda = 2\ny' = -\\lambda y", "lambda = 2\ny' = -lambda*y"],
    ["λ = 2\ny' = -λ y", "λ = 2\ny' = -λ*y"],
    ["y' = t sin(t)", "y' = t*sin(t)"],
    ["y' = t \\sin t", "y' = t*sin(t)"],
    ["y' = \\cos(t) y", "y' = cos(t)*y"],
    ["y' = \\exp{-t}", "y' = exp(-t)"],
    ["y' = y²", "y' = y^2"],
    ["y' = y^{2}", "y' = y^2"],
    ["y' = t³ − ½ y", "y' = t^3 - 0.5*y"],
    ["y' = \\sqrt{y}", "y' = sqrt(y)"],
    ["y' = \\frac{t}{1 + t^2}", "y' = t/(1 + t^2)"],
    ["y' = (1 + t) (1 - t)", "y' = (1 + t)*(1 - t)"],
    ["y' = (1 + t) y", "y' = (1 + t)*y"],
    ["y' = -y;", "y' = -y"],
    ["y' = -y,", "y' = -y"],
    ["g = 9.81; L = 2; y' = -(g/L) sin(y)", "g = 9.81\nL = 2\ny' = -(g/L)*sin(y)"],
  ])('%s', (written, plain) => {
    expect(parseProblem(plain + REST).ok).toBe(true);
    expect(problem(written + REST)).toEqual(problem(plain + REST));
  });

  test.each<[string, string]>([
    ["y' = -y\ny(0) = 1\nt in [0, 3]", "y' = -y\ny(0) = 1\n0 <= t <= 3"],
    ["y' = -y\ny(0) = 1\nt from 0 to 3", "y' = -y\ny(0) = 1\n0 <= t <= 3"],
    ["y' = -y\ny(0) = 1\n0 \\le t \\leq 3", "y' = -y\ny(0) = 1\n0 <= t <= 3"],
    ["y' = -y; y(0) = 1; t in [0, 2 pi]", "y' = -y\ny(0) = 1\n0 <= t <= 2 pi"],
    ['dy/dx = x + y\ny(0) = 1\n0 <= x <= 1', "y' = x + y\ny(0) = 1\n0 <= x <= 1"],
    ["y'(x) = -y(x)\ny(0) = 1\nx in [0, 1]", "y' = -y\ny(0) = 1\n0 <= x <= 1"],
    ['f(x, y) = x - y\ny(0) = 1\n0 <= x <= 1', "y' = x - y\ny(0) = 1\n0 <= x <= 1"],
    ["d^2x/dt^2 = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1", "x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1"],
    ["d²x/dt² = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1", "x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1"],
    [
      "\\frac{d^2x}{dt^2} = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1",
      "x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1",
    ],
    ['\\ddot{x} = -x\nx(0) = 1\n\\dot{x}(0) = 0\n0 <= t <= 1', "x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1"],
    ["x''(t) = -x(t)\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1", "x'' = -x\nx(0) = 1\nx'(0) = 0\n0 <= t <= 1"],
    [
      "u_{i}' = u_{i-1} - u_{i} for i = 1..3\nu_{0} = 0\nu_{i}(0) = 1 for i = 1..3\n0 <= t <= 1",
      "u[i]' = u[i-1] - u[i] for i = 1..3\nu[0] = 0\nu[i](0) = 1 for i = 1..3\n0 <= t <= 1",
    ],
    // an exact derivative stays what it is
    [
      "x'' = -x\nx(0) = 1\nx'(0) = 0\nx(t) = cos(t)\nx'(t) = -sin(t)\n0 <= t <= 1",
      "x'' = -x\nx(0) = 1\nx'(0) = 0\nx(t) = (cos(t))\nx'(t) = -sin(t)\n0 <= t <= 1",
    ],
  ])('%s', (written, plain) => {
    expect(parseProblem(plain).ok).toBe(true);
    expect(problem(written)).toEqual(problem(plain));
  });

  test.each<[string, string]>([
    ["y' = ty", '1:6 ty is not known; to multiply write t*y'],
    ["y' = 1,5*y", '1:6 use a decimal point, not a comma: write 1.5'],
    [
      "k = 2\ny' = 1/k y",
      '2:10 a product written with a space after a quotient is ambiguous: 1/(k*y) or (1/k)*y',
    ],
    ["y' = a y", '1:6 a is not known; give it a value on a line of its own, such as a = 1'],
  ])('%s is answered with %s', (written, message) => {
    expect(problem(written + REST)).toContain(message);
  });
});
