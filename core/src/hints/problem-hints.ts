import { plainText } from '../formula/plain-text.ts';
import type { Problem } from '../problem/problem.ts';
import { general } from '../text/number-text.ts';
import { primed } from '../text/primes.ts';
import { CONSTANT_HINTS, FUNCTION_HINTS, type Hint, statement, word } from './hint.ts';

/** Ways of writing a problem, each by an example. */
const STATEMENTS: readonly Hint[] = [
  statement("y' = t - 2*y", "an equation for y'"),
  statement("x'' = -x", 'an equation of second order'),
  statement('y(0) = 1', 'an initial value, at the start of the interval'),
  statement('0 <= t <= 2', 'the interval; it names the independent variable'),
  statement('k = 0.35', 'a parameter'),
  statement('y(t) = exp(-t)', 'the exact solution, if known'),
  statement(
    "y'' = -2*y'",
    "a derivative worked out by hand, next to y' = ...: Taylor methods use it, and it is checked against the automatic one",
  ),
  statement('conserved E = x^2 + v^2', 'a conserved quantity'),
  statement("u[i]' = u[i-1] - 2*u[i] + u[i+1] for i = 1..n", 'a family: one equation for many unknowns'),
];

const WORDS: readonly Hint[] = [
  word('conserved', 'declares a conserved quantity: conserved E = ...'),
  word('for', 'the range of an index: for i = 1..n'),
];

/** Longest formula that a hint repeats. */
const LONGEST = 80;

function shortened(text: string): string {
  return text.length > LONGEST ? `${text.slice(0, LONGEST)} ...` : text;
}

function namesOf(problem: Problem): readonly Hint[] {
  const { parameters, unknowns, independent, start, end, conserved } = problem;
  const name = (text: string, says: string): Hint => ({ text, kind: 'name', says });
  return [
    name(independent, `the independent variable, from ${general(start, 6)} to ${general(end, 6)}`),
    ...unknowns.map((unknown) => {
      const { range } = unknown;
      const own = range === null ? unknown.name : `${unknown.name}[${range.variable}]`;
      const rhs = `${primed(own, unknown.order)} = ${shortened(plainText(unknown.highest))}`;
      return name(
        unknown.name,
        range === null ? `an unknown: ${rhs}` : `a family of ${range.to - range.from + 1} unknowns: ${rhs}`,
      );
    }),
    ...parameters.map((p) => name(p.name, `a parameter: ${String(p.value)}`)),
    ...conserved.map((c) => name(c.name, `conserved: ${shortened(plainText(c.value))}`)),
  ];
}

/**
 * What can be typed in a problem and what its names represent.
 *
 * @param problem the last good reading of the text; null where there is none yet
 * @example problemHints(problem).some(({ text }) => text === 'level') // true
 */
export function problemHints(problem: Problem | null): readonly Hint[] {
  return [
    ...(problem === null ? [] : namesOf(problem)),
    ...STATEMENTS,
    ...WORDS,
    ...FUNCTION_HINTS,
    ...CONSTANT_HINTS,
  ];
}
