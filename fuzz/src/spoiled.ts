import * as fc from 'fast-check';

/** How books, spreadsheets and other languages write what the notation writes. */
const FOREIGN: readonly (readonly [RegExp, string])[] = [
  [/\[([^\]]*)\]/g, '_{$1}'],
  [/\*/g, ' '],
  [/\*/g, ' \\cdot '],
  [/\*/g, '×'],
  [/\^2/g, '²'],
  [/\^\(?(\w+)\)?/g, '^{$1}'],
  [/(\w+)\/(\w+)/g, '\\frac{$1}{$2}'],
  [/sqrt\(/g, '\\sqrt{'],
  [/\b(sin|cos|exp)\(/g, '\\$1('],
  [/\b(sin|cos|exp|ln)\(/g, '$1 '],
  [/^(\w+)' =/gm, 'd$1/dt ='],
  [/0 <= t <= (\d+)/, 't in [0, $1]'],
  [/\n/g, '; '],
  [/\n/g, '\\\\\n'],
  [/\(/g, '\\left('],
  [/\)/g, '\\right)'],
  [/\by\b/g, 'u'],
  [/0\.5/g, '½'],
  [/\bk(\d)/g, 'k₁'],
  [/ = /g, ' := '],
  [/ = /g, ' <- '],
  [/\^/g, '**'],
  [/^/gm, 'double '],
  [/$/gm, ';'],
];

const NOISE = [
  '((',
  '))',
  '[',
  ']',
  '{',
  '}',
  "''''",
  ',',
  '=',
  '==',
  '..',
  '#',
  '\\frac{1}{2}',
  '½',
  'λ',
  '\u0000',
  '\u202e',
  '𝒴',
  '__proto__',
  'constructor',
  '"',
  '`',
  '${1}',
  '*/',
  '//',
  '\t',
  'for',
  'if(',
  'solve',
  'log(',
  'y[n+1]',
  '1,5',
  '1e999',
  '\u2028',
  'a'.repeat(300),
  '{'.repeat(400),
  'y_{'.repeat(300),
  '\\sqrt{'.repeat(300),
  'sgn(y)'.repeat(200),
  '(('.repeat(300),
  'sin '.repeat(400),
  '9'.repeat(400),
];

const change = fc.oneof(
  fc.constantFrom(...FOREIGN).map(
    ([from, to]) =>
      (text: string): string =>
        text.replace(from, to),
  ),
  fc
    .tuple(fc.nat(), fc.nat(12), fc.constantFrom('', '', ...NOISE))
    .map(([at, length, noise]) => (text: string): string => {
      const from = at % (text.length + 1);
      return text.slice(0, from) + noise + text.slice(from + length);
    }),
  fc.tuple(fc.nat(), fc.nat()).map(([at, to]) => (text: string): string => {
    const [from, end] = [at % (text.length + 1), to % (text.length + 1)];
    return text.slice(0, end) + text.slice(Math.min(from, end));
  }),
);

/** A text as it is, or with some of it written in another way, cut, doubled or put in. */
export function maybeSpoiled(text: fc.Arbitrary<string>): fc.Arbitrary<string> {
  return fc.oneof(
    { weight: 3, arbitrary: text },
    {
      weight: 2,
      arbitrary: fc
        .tuple(text, fc.array(change, { minLength: 1, maxLength: 4 }))
        .map(([original, changes]) => changes.reduce((made, one) => one(made), original)),
    },
  );
}
