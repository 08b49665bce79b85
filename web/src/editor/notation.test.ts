import { looksOf } from './notation.ts';

/** A line with the look of every stretch that has one. */
function looks(line: string): readonly string[] {
  let from = 0;
  return looksOf(line).flatMap(({ to, look }) => {
    const stretch = line.slice(from, to);
    from = to;
    return look === null ? [] : [`${look}: ${stretch}`];
  });
}

test.each([
  ['k = 0.35 # of the gate', ['number: 0.35', 'comment: # of the gate']],
  ['start with RK4', ['keyword: start', 'keyword: with']],
  ['solve k1 = f(t + h/2, y + h/2*k1)', ['keyword: solve', 'number: 2', 'number: 2']],
  ["u[i]' = 2*u[i] for i = 1..n", ['number: 2', 'keyword: for', 'number: 1']],
  ['conserved E = x^2', ['keyword: conserved', 'number: 2']],
  // words of a sentence that is none
  ['with = start + 1e-3', ['number: 1e-3']],
  ['$ ? &', []],
  ['', []],
])('%s', (line, expected) => {
  expect(looks(line)).toEqual(expected);
});

test('stretches follow one another without a gap and end with the line', () => {
  const line = "level' = -k*sqrt(level) # slow";
  const ends = looksOf(line).map(({ to }) => to);
  expect(ends).toEqual([...ends].sort((a, b) => a - b));
  expect(ends.at(-1)).toBe(line.length);
});
