import { parseMethod } from './parse-method.ts';

const chain = (count: number, line: (i: number) => string): string =>
  Array.from({ length: count }, (_, i) => line(i)).join('\n');

/** The line and message of the only error of a text; null of one that can be read. */
function refusal(text: string): readonly [line: number, message: string] | null {
  const reading = parseMethod(text);
  if (reading.ok) return null;
  expect(reading.errors).toHaveLength(1);
  const [{ line, message }] = [reading.errors[0]!];
  return [line, message];
}

const functions = (count: number): string =>
  `d0(t, y) = t*y\n${chain(count, (i) => `d${i + 1}(t, y) = d${i}(t, y)*d${i}(t, y)`)}\ny[n+1] = y + h*d${count}(t, y)`;
const jacobians = (count: number): string =>
  `J0 = f_y(t, y)\n${chain(count, (i) => `J${i + 1} = J${i} + J${i}`)}\ny[n+1] = y + h*J${count}*f(t, y)`;

test.each([
  ['functions', functions],
  ['Jacobians', jacobians],
])('a chain of %s that each use the one above twice is refused where it grows too large', (_, text) => {
  expect(refusal(text(6))).toBeNull();
  for (const count of [24, 30, 400]) {
    const [line, message] = refusal(text(count)) ?? [];
    expect(line).toBeLessThan(14);
    expect(message).toContain(
      'has more than 4,000 operations once the functions and Jacobians it uses are written out',
    );
  }
});

test('many lines that each call a large function are refused together', () => {
  const many = `${functions(8).replace(/y\[n\+1\].*/, '')}${chain(40, (i) => `k${i} = d8(t, y)`)}\ny[n+1] = y + h*k0`;
  expect(refusal(many)?.[1]).toContain('up to this line the method has more than 20,000 operations');
});

test('a long method without functions is as large as its text', () => {
  expect(
    refusal(
      `${chain(400, (i) => `k${i} = f(t, y + h*${i === 0 ? 'f(t, y)' : `k${i - 1}`})`)}\ny[n+1] = y + h*k399`,
    ),
  ).toBeNull();
});
