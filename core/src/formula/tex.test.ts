import { parseProblem } from '../problem/parse-problem.ts';
import { texOf } from './tex.ts';

/** TeX of a formula in t, a, b, omega and level. */
function tex(formula: string): string {
  const text = `level' = ${formula}\na = 2\nb = 3\nomega = 1\nlevel(0) = 1\n0 <= t <= 1`;
  const problem = parseProblem(text);
  if (!problem.ok) throw new Error(problem.errors.map((e) => e.message).join('\n'));
  return texOf(problem.value.blocks[0]!.rhs);
}

test.each([
  ['-a*sqrt(level)', '-a\\,\\sqrt{\\mathit{level}}'],
  ['(2 - a*t/2)^2', '\\left(2 - \\frac{a t}{2}\\right)^{2}'],
  ['a - (b - t)', 'a - (b - t)'],
  ['a - -b', 'a + b'],
  ['(a + b)*t', '(a + b) t'],
  ['a/b/t', '\\frac{\\frac{a}{b}}{t}'],
  ['2 pi*t', '2 \\pi t'],
  ['3*2', '3 \\cdot 2'],
  ['sin(omega*t)^2', '\\sin^{2} \\omega t'],
  ['exp(-t^2)', 'e^{-t^{2}}'],
  ['(-a)^2', '(-a)^{2}'],
  ['1e-9*t', '10^{-9} t'],
  ['if(t < 1, a, b)', '\\begin{cases} a & \\text{if } t < 1 \\\\ b & \\text{otherwise} \\end{cases}'],
])('%s', (formula, expected) => {
  expect(tex(formula)).toBe(expected);
});
