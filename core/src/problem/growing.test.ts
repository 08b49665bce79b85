import { texOf } from '../formula/tex.ts';
import { checkExact } from './check-exact.ts';
import { parseProblem } from './parse-problem.ts';
import type { Problem } from './problem.ts';

const primes = (n: number): string => "'".repeat(n);
const lines = (n: number, line: (i: number) => string): string =>
  Array.from({ length: n }, (_, i) => line(i)).join('\n');

function firstError(text: string): { readonly line: number; readonly message: string; readonly all: number } {
  const reading = parseProblem(text);
  if (reading.ok) throw new Error('this text can be read');
  const { line, message } = reading.errors[0]!;
  return { line, message, all: reading.errors.length };
}

function problemOf(text: string): Problem {
  const reading = parseProblem(text);
  if (!reading.ok) throw new Error(reading.errors[0]?.message);
  return reading.value;
}

test('forty equations, each with the next one twice, are refused with one sentence', () => {
  const text = `${lines(40, (i) => `a${i}' = a${i + 1}' + a${i + 1}'`)}\na40' = 1\n${lines(41, (i) => `a${i}(0) = 1`)}\n0 <= t <= 1`;
  expect(firstError(text)).toMatchObject({
    all: 1,
    message: expect.stringContaining('has more than 4,000 terms'),
  });
});

test('a few such equations are put into one another', () => {
  const text = `${lines(5, (i) => `a${i}' = a${i + 1}' + a${i + 1}'`)}\na5' = 1\n${lines(6, (i) => `a${i}(0) = 0`)}\na0(t) = 32*t\n0 <= t <= 1`;
  expect(problemOf(text).size).toBe(6);
});

test('derivatives typed by hand, each made of the one below, stop where they grow too large', () => {
  const text = `y' = y*y\n${lines(29, (i) => `y${primes(i + 2)} = y${primes(i + 1)}*y${primes(i + 1)}`)}\ny(0) = 1\n0 <= t <= 1`;
  const { message } = firstError(text);
  expect(message).toContain('after substitution of the equations has more than 4,000 terms');
});

test('derivatives of an exact solution are made as long as they do not grow too large', () => {
  const text = (order: number): string =>
    `x${primes(order)} = -x\n${lines(order, (i) => `x${primes(i)}(0) = 1`)}\nx(t) = exp(-t)*sin(t)/(1 + t^2)\n0 <= t <= 1`;
  expect(firstError(text(10))).toMatchObject({
    line: 12,
    message: expect.stringMatching(
      /^x'+\(t\), made from this by differentiation, has more .* give x'+\(t\) = /,
    ),
  });
  // at t = 0 it is 0 and not the 1 that is given
  expect(checkExact(problemOf(text(2)))?.initial.map(({ exact }) => exact)).toEqual([0]);
});

test('initial values of a large family have a bound on their operations', () => {
  const text = (terms: number): string =>
    `u[i]' = -u[i] for i = 1..20000\nu[i](0) = ${Array.from({ length: terms }, () => 'sin(i)').join('+')} for i = 1..20000\n0 <= t <= 1`;
  expect(problemOf(text(3)).initial[4]).toBeCloseTo(3 * Math.sin(5), 14);
  expect(firstError(text(400))).toMatchObject({
    all: 1,
    message: expect.stringContaining('at most 600,000 are allowed'),
  });
});

test('of very many errors the first hundred are reported, and names that are no run of others cost nothing', () => {
  const text = `${lines(900, (i) => `c${i} = b${i}`)}\ny' = ${'a'.repeat(9000)}\ny(0) = 1\n0 <= t <= 1`;
  expect(firstError(text).all).toBe(100);
  expect(firstError(`y' = ${'ty'.repeat(3000)}\ny(0) = 1\n0 <= t <= 1`).message).toContain(
    'at most 100 characters',
  );
  expect(firstError("y' = ty\ny(0) = 1\n0 <= t <= 1").message).toContain('write t*y');
});

test('three decimal factors before a derivative are divided by', () => {
  const { blocks } = problemOf("0.5*(1.2*(0.3*v')) = 1\nv(0) = 1\n0 <= t <= 1");
  const rhs = blocks[0]!.rhs;
  expect(rhs).toMatchObject({ kind: 'binary', operator: '/', left: { kind: 'number', value: 1 } });
});

test('functions inside one another are set once each', () => {
  const nested = `${'sin('.repeat(60)}y^2${')^2'.repeat(60)}`;
  const { blocks } = problemOf(`y' = ${nested}\ny(0) = 1\n0 <= t <= 1`);
  expect(texOf(blocks[0]!.rhs).match(/\\sin/g)).toHaveLength(60);
});

test('a formula that no page holds is named instead of typeset', () => {
  const long = (n: number): string => Array.from({ length: n }, () => 'sin(t)').join(' + ');
  const rhs = (n: number) => problemOf(`y' = ${long(n)}\ny(0) = 1\n0 <= t <= 1`).blocks[0]!.rhs;
  expect(texOf(rhs(1000))).toContain('\\sin');
  expect(texOf(rhs(1400))).toBe('\\text{a formula of 4,199 terms}');
});
