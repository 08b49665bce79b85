import { FUNCTIONS } from '../formula/functions.ts';
import { parseMethod } from '../method/parse-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import type { Hint } from './hint.ts';
import { methodHints } from './method-hints.ts';
import { problemHints } from './problem-hints.ts';

function says(hints: readonly Hint[], text: string): string | undefined {
  return hints.find((hint) => hint.text === text)?.says;
}

test('every function of the notation is listed', () => {
  for (const name of FUNCTIONS.keys()) expect(says(problemHints(null), name)).toBeDefined();
});

test('names of a problem say what they stand for', () => {
  const reading = parseProblem(
    "k = 0.35/2\nlevel' = -k*sqrt(level)\nlevel(0) = 4\nu[i]' = u[i-1] for i = 1..9\nu[0] = 0\nu[i](0) = 1 for i = 1..9\n0 <= t <= 6\nconserved E = level^2",
  );
  const hints = problemHints(reading.ok ? reading.value : null);
  expect(says(hints, 'k')).toBe('a parameter: 0.175');
  expect(says(hints, 't')).toBe('the independent variable, from 0 to 6');
  expect(says(hints, 'level')).toBe("an unknown: level' = -k*sqrt(level)");
  expect(says(hints, 'u')).toBe("a family of 9 unknowns: u[i]' = u[i - 1]");
  expect(says(hints, 'E')).toBe('conserved: level^2');
});

test('names of a method say their formulas, and its own form comes first', () => {
  const heun = parseMethod('k1 = f(t, y)\nd2(t, y) = 2*t\nsolve z = f(t, z)\ny[n+1] = y + h*k1');
  const hints = methodHints(heun.ok ? heun.value : null);
  expect(says(hints, 'k1')).toBe('k1 = f(t, y)');
  expect(says(hints, 'd2')).toBe('d2(t, y) = 2*t');
  expect(says(hints, 'z')).toBe('z = f(t, z)');
  const verlet = parseMethod('v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]');
  const words = methodHints(verlet.ok ? verlet.value : null).filter(({ kind }) => kind === 'word');
  expect(words[0]?.text).toBe('x');
});

test('the examples can be read: each as a line of a text', () => {
  const statements = (hints: readonly Hint[]): readonly string[] =>
    hints.filter(({ kind }) => kind === 'statement').map(({ text }) => text);
  const around: Readonly<Record<string, string>> = {
    "y'' = -2*y'": "y' = -2*y\ny(0) = 1\n0 <= t <= 1",
    "x'' = -x": "x(0) = 1\nx'(0) = 0\n0 <= t <= 1",
    'conserved E = x^2 + v^2': "x' = v\nv' = -x\nx(0) = 1\nv(0) = 0\n0 <= t <= 1",
    "u[i]' = u[i-1] - 2*u[i] + u[i+1] for i = 1..n":
      'n = 5\nu[0] = 0\nu[n+1] = 0\nu[i](0) = 1 for i = 1..n\n0 <= t <= 1',
  };
  for (const text of statements(problemHints(null))) {
    const rest =
      around[text] ?? ["y' = t - 2*y", 'y(0) = 1', '0 <= t <= 2'].filter((s) => s !== text).join('\n');
    expect([text, parseProblem(`${text}\n${rest}`).ok]).toEqual([text, true]);
  }
  for (const text of statements(methodHints(null))) {
    const isSecond = /^[xv]\[/.test(text);
    const rest = isSecond
      ? ['v[n+1] = v + h*a(t, x, v)', 'x[n+1] = x + h*v[n+1]']
      : ['k1 = f(t, y)', ...(/y\[n\+1\] =/.test(text) ? [] : ['y[n+1] = y + h*k1'])];
    const at = rest.indexOf(text);
    const lines =
      at >= 0
        ? rest
        : /^y\[|^solve y/.test(text) || text.startsWith('k2')
          ? [rest[0], text, ...rest.slice(1)]
          : [text, ...rest];
    expect([text, parseMethod(lines.join('\n')).ok]).toEqual([text, true]);
  }
});
