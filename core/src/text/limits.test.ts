import { parseMethod } from '../method/parse-method.ts';
import { parseProblem } from '../problem/parse-problem.ts';
import type { TextError } from './place.ts';

function errorsOf(text: string): readonly TextError[] {
  return [parseProblem(text), parseMethod(text)].flatMap((reading) => (reading.ok ? [] : reading.errors));
}

/** As many of a text as are read. */
const filled = (part: string): string => part.repeat(Math.floor(20_000 / part.length));

test.each([
  '{',
  'y_{',
  '\\text{',
  '\\sqrt{',
  'sgn(y)',
  'f(',
  'if(',
  'd2(t, y)',
  'sin ',
  'log ',
  '-',
  '½',
  '\\frac{',
  '((',
  '"',
])('a text of nothing but %j ends in errors, none of them long', (part) => {
  const errors = errorsOf(filled(part));
  expect(errors.length).toBeGreaterThan(0);
  expect(Math.max(...errors.map(({ message }) => message.length))).toBeLessThanOrEqual(403);
});

test.each([10_000, 3_000])(
  '%d curly brackets inside one another are read without a call for each',
  (depth) => {
    expect(errorsOf(`y' = ${'{'.repeat(depth)}y${'}'.repeat(depth)}`).length).toBeGreaterThan(0);
  },
);

test('a name or number of more than 100 characters is refused, and no message repeats it', () => {
  for (const long of ['a'.repeat(20_000 - 40), '9'.repeat(19_000)]) {
    const errors = errorsOf(`y' = ${long}*y\ny(0) = 1`);
    expect(errors.some(({ message }) => message.endsWith('has at most 100 characters'))).toBe(true);
    expect(Math.max(...errors.map(({ message }) => message.length))).toBeLessThan(403);
  }
});

test('no repair ends before it begins', () => {
  for (const text of ["y' = ½½y", "y' = 2 ½", "y' = k₁ ½ λ", 'y[n+1] = ½h½f(t, y)'])
    for (const { repairs = [] } of errorsOf(text))
      for (const { from, to } of repairs) expect(from).toBeLessThanOrEqual(to);
});
