import { derivative } from './derivative.ts';
import { evaluate } from './evaluate.ts';
import { type Expression, number } from './expression.ts';
import { linearIn } from './linear.ts';
import { plainText } from './plain-text.ts';
import { parsedFormula as parse } from '../../trust/parsed-formula.ts';

function at(expression: Expression, x: number): number {
  return evaluate(expression, (leaf) =>
    leaf.kind === 'name' && leaf.name === 'x' ? x : leaf.kind === 'name' && leaf.name === 'a' ? 1.7 : NaN,
  );
}

function byX(expression: Expression): Expression {
  return derivative(expression, (leaf) => number(leaf.kind === 'name' && leaf.name === 'x' ? 1 : 0));
}

describe('symbolic derivatives', () => {
  test.each([
    'sin(3*x)*cos(x)',
    'tan(x/2)',
    'asin(x/3) + acos(x/4)',
    'atan(x^2)',
    'sinh(x)/cosh(2*x)',
    'tanh(x)*x',
    'exp(-x^2)',
    'ln(x)*log10(x)',
    'log2(1 + x)',
    'sqrt(1 + x^2)',
    'cbrt(2 + x)',
    'x^a',
    'a^x',
    'x^x',
    'abs(x - 3)',
    'atan2(x, a)',
    'mod(x, 2)*x',
    'min(x, x^2, 5)',
    'max(a, x)*x',
    'if(x < 1, x^3, 1/x)',
    '-x^-2',
    '(x + a)^3/(x - a)^2',
    'sign(x)*floor(x)*x',
  ])('%s agrees with an extrapolated difference', (text) => {
    const f = parse(text);
    const symbolic = byX(f);
    for (const x of [0.37, 1.21, 2.63]) {
      const central = (h: number): number => (at(f, x + h) - at(f, x - h)) / (2 * h);
      // two Richardson steps leave an error of order h^6
      const [d1, d2, d4] = [central(1e-2), central(5e-3), central(2.5e-3)];
      const [e1, e2] = [(4 * d2 - d1) / 3, (4 * d4 - d2) / 3];
      const expected = (16 * e2 - e1) / 15;
      expect(Math.abs(at(symbolic, x) - expected)).toBeLessThan(2e-8 * Math.max(1, Math.abs(expected)));
    }
  });

  test.each([
    ['x^2', '2*x'],
    ['3*x + a', '3'],
    ['sin(2*x)', '2*cos(2*x)'],
    ['1/x', '-1/x^2'],
    ['exp(-a*x)', '-a*exp(-a*x)'],
    ['sqrt(x)', '1/(2*sqrt(x))'],
    ['a^2*7', '0'],
  ])('%s reads as %s', (text, expected) => {
    expect(plainText(byX(parse(text)))).toBe(expected);
  });
});

test.each([
  ['2*x + 3', 2, 3],
  ['a - (x - 4)/2', -0.5, 1.7 + 2],
  ['-(3*x)*a + x', 1 - 3 * 1.7, 0],
])('%s as slope and rest', (text, slope, rest) => {
  const split = linearIn(parse(text), (node) => node.kind === 'name' && node.name === 'x');
  if (!split.ok) throw new Error('not linear');
  expect(at(split.slope, 99)).toBeCloseTo(slope, 14);
  expect(at(split.rest, 99)).toBeCloseTo(rest, 14);
});

test.each(['x*x', 'sin(x)', 'x^2', '1/x', 'if(x < 1, x, 2*x)'])('%s is not linear', (text) => {
  expect(linearIn(parse(text), (node) => node.kind === 'name' && node.name === 'x').ok).toBe(false);
});
