import { name } from '../formula/expression.ts';
import { checkExact, exactCheckSentence } from './check-exact.ts';
import { manufacture } from './manufacture.ts';
import { Meanings } from './meaning.ts';
import { parseProblem } from './parse-problem.ts';
import { componentName, componentNames, hasExact, isSecondOrder } from './problem.ts';
import { aligned, problemTex, systemTex, systemText } from './tex-problem.ts';
import { writeParameters } from './write-parameters.ts';
import { problem } from '../test-texts.ts';

function messages(text: string): readonly string[] {
  const reading = parseProblem(text);
  return reading.ok ? [] : reading.errors.map(({ line, column, message }) => `${line}:${column} ${message}`);
}

const SLUICE = "level' = -k*sqrt(level)\nk = 0.35\nlevel(0) = 4\n0 <= t <= 6\n";
const SOIL = `u[i]' = c*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..n
n = 3
c = 2
u[0] = sin(t)
u[n+1] = 0
u[i](0) = 0.1*i for i = 1..n
0 <= t <= 1`;
const SWAY = "q'' = -4*q - 0.2*q'\nq(0) = 1\nq'(0) = 0\n0 <= t <= 5";

test('what the names of a problem mean', () => {
  const meanings = new Meanings(problem(SLUICE));
  expect(meanings.of(name('t'), null)).toEqual({ kind: 'time' });
  expect(meanings.of(name('k'), null)).toEqual({ kind: 'constant', name: 'k', value: 0.35 });
  expect(meanings.of(name('level'), null)).toEqual({ kind: 'component', place: 0 });
  expect(meanings.of(name('pi'), null)).toEqual({ kind: 'constant', name: 'pi', value: Math.PI });
  expect(() => meanings.of(name('Level'), null)).toThrow(
    'Level is not known, but level is; names are case-sensitive',
  );
  expect(() => meanings.of(name('kt'), null)).toThrow('kt is not known; to multiply write k*t');
  expect(() => meanings.of(name('level', 1), null)).toThrow(
    "only derivatives below the highest one, level', are allowed here",
  );
});

test('the names of components, in one order everywhere', () => {
  const soil = problem(SOIL);
  expect(componentNames(soil)).toEqual(['u[1]', 'u[2]', 'u[3]']);
  expect([0, 2, 3].map((place) => componentName(soil, place))).toEqual(['u[1]', 'u[3]', '']);
  expect(componentNames(problem(SWAY))).toEqual(['q', "q'"]);
  expect(componentName(problem(SWAY), 1)).toBe("q'");
  expect([isSecondOrder(problem(SWAY)), isSecondOrder(soil), hasExact(soil)]).toEqual([true, false, false]);
});

test.each([
  [`${SLUICE}level(t) = 1\nlevel(t) = 2`, '6:1 the exact solution of level is given twice'],
  [`${SLUICE}k = 1`, '5:1 k is given twice'],
  [
    `${SLUICE}level = 2`,
    "5:1 level is an unknown: its value at the start is written level(0) = ..., its equation level' = ...",
  ],
  [`${SLUICE}0 <= t <= 2`, '5:1 the interval is given twice'],
  [
    "y' = -y\ny(0) = 1\n1 <= t <= 0",
    '3:1 the start of the interval must be less than its end; 1 is not less than 0',
  ],
  ["y' = -y\n0 <= t <= 1", '2:12 the initial value of y is missing; add a line y(0) = ...'],
  ["y' = y''\ny(0) = 1\n0 <= t <= 1", "the initial value of y' is missing; add a line y'(0) = ..."],
  ["y' = z'\nz' = y'\ny(0) = 1\nz(0) = 1\n0 <= t <= 1", 'the equations for'],
  ["y'^2 = 1\ny(0) = 1\n0 <= t <= 1", 'linear'],
  [
    SOIL.replace('u[0] = sin(t)\n', ''),
    'u[0] lies outside the family and has no value; add a line u[0] = ...',
  ],
  [SOIL.replace('1..n\nn = 3', '1..n\nn = 2.5'), 'a range needs integers, and this is 2.5'],
])('%s is answered', (text, message) => {
  expect(messages(text).join('\n')).toContain(message);
});

test('the reduced system as text and in TeX', () => {
  expect(systemText(problem(SWAY))).toEqual(["d/dt q = q'", "d/dt q' = -4*q - 0.2*q'"]);
  expect(systemText(problem(SOIL))[0]).toBe("u[i]' = c*(u[i - 1] - 2*u[i] + u[i + 1]) for i = 1..3");
  expect(systemTex(problem(SWAY))[0]).toBe("\\frac{d}{dt}\\,q = q'");
  expect(aligned(['a &= b', 'c &= d = e'])).toBe(
    '\\begin{aligned} a &= b \\\\[3pt] c &= d = e \\end{aligned}',
  );
});

test('a problem in TeX, statement by statement as it was written', () => {
  const tex = problemTex(problem(`${SLUICE}level(t) = (2 - k*t/2)^2\nconserved E = level`));
  expect(tex.initial).toEqual(['\\mathit{level}(0) = 4']);
  expect(tex.interval).toBe('0 \\le t \\le 6');
  expect(tex.parameters).toEqual(['k = 0.35']);
  expect(tex.exact).toHaveLength(1);
  expect(tex.conserved[0]).toContain('\\text{const}');
});

test('an exact solution is put into the equations and the initial values', () => {
  const right = problem(`${SLUICE}level(t) = (2 - k*t/2)^2`);
  const check = checkExact(right);
  expect(check?.satisfied).toBe(true);
  expect(check && exactCheckSentence({ ...right, equations: right.unknowns.length }, check)).toMatch(
    /^exact solution satisfies the equation \(largest residual .*\) and the initial values$/,
  );
  expect(checkExact(problem(SLUICE))).toBeNull();
});

test.each([
  // a solution with 0.36 for 0.35: the residual is of the size of the difference
  ['level(t) = (2 - 0.36*t/2)^2', "exact solution does not satisfy the equation for level': residual"],
  ['level(t) = (3 - k*t/2)^2', 'does not match the initial values: level is 9 at the start, not 4'],
])('a wrong one, %s, is reported', (line, sentence) => {
  const wrong = problem(SLUICE + line);
  const check = checkExact(wrong);
  expect(check?.satisfied).toBe(false);
  expect(check && exactCheckSentence({ ...wrong, equations: wrong.unknowns.length }, check)).toContain(
    sentence,
  );
});

test.each([
  // the residual is measured by the terms of the equation, however small they are beside what they are made of
  ['a quotient', "y' = -y/1e9\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t/5e8)"],
  ['a product', "y' = -1e-13*y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-2e-13*t)"],
  ['the second half of the interval', "y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t) + max(0, t - 0.75)^2"],
])('a solution that is wrong in %s is found', (_, text) => {
  expect(checkExact(problem(text))?.satisfied).toBe(false);
});

test('an exact solution that misses a component leaves its equation unchecked, and says so', () => {
  const two = problem("x' = -z\nz' = x\nx(0) = 1\nz(0) = 0\n0 <= t <= 1\nx(t) = cos(t)");
  const check = checkExact(two);
  expect(check?.unchecked).toEqual(["x'", "z'"]);
  expect(check && exactCheckSentence({ ...two, equations: two.unknowns.length }, check)).toContain(
    'not checked for',
  );
});

test('a manufactured solution is made exact by a term in every right-hand side', () => {
  const made = manufacture(problem(SLUICE), [{ unknown: 'level', solution: '4 + sin(t)' }]);
  const text = made.ok ? made.value : '';
  const again = problem(text);
  expect(checkExact(again)?.satisfied).toBe(true);
  expect(again.initial).toEqual([4]);
});

test('a manufactured solution that cannot be had is answered in words', () => {
  const made = manufacture(problem(SLUICE), [{ unknown: 'level', solution: '4 +' }]);
  expect(made.ok ? '' : made.errors[0]?.message).toContain('the formula is incomplete');
});

test('values that sliders have set are written into the text, and nothing else is touched', () => {
  const text = "level' = -k*sqrt(level) # k is here, too\nk = 0.35 # of the gate\nlevel(0) = 4\n0 <= t <= 6";
  expect(writeParameters(problem(text), { k: 0.4 })).toBe(text.replace('k = 0.35', 'k = 0.4'));
  expect(writeParameters(problem(text), {})).toBe(text);
});

test('values beside the text stand in for those in it', () => {
  const moved = parseProblem(SLUICE, { k: 0.5, strange: 1 });
  expect(moved.ok && moved.value.parameters.map(({ value }) => value)).toEqual([0.5]);
});
