import { Complaints } from '../text/place.ts';
import { tokenize } from '../text/token.ts';
import type { Expression } from './expression.ts';
import { Parser } from './parse.ts';
import { plainText } from './plain-text.ts';

/** A formula with every operation in brackets, so that its tree can be seen. */
function shape(node: Expression): string {
  switch (node.kind) {
    case 'number':
      return String(node.value);
    case 'name':
      return node.name + "'".repeat(node.primes);
    case 'indexed':
      return `${node.name}[${shape(node.index)}]${"'".repeat(node.primes)}`;
    case 'negate':
      return `(-${shape(node.of)})`;
    case 'binary':
      return `(${shape(node.left)}${node.operator}${shape(node.right)})`;
    case 'call':
      return `${node.name}${"'".repeat(node.primes)}(${node.inputs.map(shape).join(',')})`;
    case 'if':
      return `if(${shape(node.test.left)}${node.test.relation}${shape(node.test.right)},${shape(node.yes)},${shape(node.no)})`;
  }
}

function parse(text: string): { readonly tree: Expression | null; readonly told: readonly string[] } {
  const complaints = new Complaints(text);
  const report = complaints.add.bind(complaints);
  const tokens = tokenize(text, { from: 0, to: text.length }, report);
  const parser = new Parser(
    tokens,
    { from: text.length, to: text.length + 1 },
    {
      calls: (name) => name === 'f',
      multiplies: () => false,
      refuseCall: () => null,
      report,
    },
  );
  const tree = complaints.attempt(() => parser.whole());
  return { tree, told: complaints.list().map(({ column, message }) => `${column}: ${message}`) };
}

test.each([
  ['a + b - c', '((a+b)-c)'],
  ['a - (b - c)', '(a-(b-c))'],
  ['a/b/c', '((a/b)/c)'],
  ['a*b + c/d', '((a*b)+(c/d))'],
  ['a^b^c', '(a^(b^c))'],
  ['-a^2', '(-(a^2))'],
  ['a^-b', '(a^(-b))'],
  ['-a*b', '((-a)*b)'],
  ['2a', '(2*a)'],
  ['2a^2', '(2*(a^2))'],
  ['3(t + 1)', '(3*(t+1))'],
  ['2 pi*t', '((2*pi)*t)'],
  ['+a', 'a'],
  ['--a', '(-(-a))'],
  ['sin(x)^2', '(sin(x)^2)'],
  ["f''(t, y)", "f''(t,y)"],
  ["x''", "x''"],
  ["u[i-1]'", "u[(i-1)]'"],
  ['if(a < b, 1, 2)', 'if(a<b,1,2)'],
  ['min(a, b, c)', 'min(a,b,c)'],
  ['1e-3*x', '(0.001*x)'],
])('%s is %s', (text, expected) => {
  const { tree, told } = parse(text);
  expect(told).toEqual([]);
  expect(tree && shape(tree)).toBe(expected);
});

test.each([
  ['a +', '4: the formula is incomplete: a number, a name or ( is missing'],
  ['(a', '1: this bracket is not closed: a ) is missing'],
  ['a)', '2: unmatched )'],
  ['sin x', '1: sin needs its argument in brackets: write sin(x)'],
  ['log(x)', '1: log means different things in different programs; write ln(x) or log10(x)'],
  ['foo(x)', '1: unknown function foo; to multiply write foo*(x)'],
  ['arcsin(x)', '1: unknown function arcsin; write asin'],
  ['SIN(x)', '1: unknown function SIN; write sin'],
  ['y(t)', '1: y is not a function; to multiply write y*(t)'],
  ['sin(a, b)', '1: sin takes 1 argument, not 2'],
  ['min(a)', '1: min takes 2 or more arguments, not 1'],
  ['if(a < b, 1)', '12: if takes three arguments: if(a < b, then, otherwise)'],
  ['if(a = b, 1, 2)', '6: equality is written =='],
  ['if(a, 1, 2)', '5: a comparison is missing here, such as a < b'],
  ['1,5', '1: use a decimal point, not a comma: write 1.5'],
  ['a, b', '2: a comma is allowed only between the arguments of a function'],
  ['a = b', '3: a statement has only one ='],
  ["2'", "2: a prime follows a name directly, as in y'"],
  [`x${"'".repeat(31)}`, '32: derivatives are supported up to order 30'],
  ['u[1](2)', '5: an operator is missing before this bracket; to multiply write *'],
])('%s is answered with %s', (text, message) => {
  expect(parse(text).told).toContain(message);
});

test('nesting and length have their ends, each with its sentence', () => {
  expect(parse(`${'('.repeat(200)}a${')'.repeat(200)}`).told).toEqual([]);
  expect(parse(`${'('.repeat(201)}a${')'.repeat(201)}`).told[0]).toContain(
    'formulas can be nested at most 200 levels deep',
  );
  expect(parse(Array.from({ length: 1_500 }, () => 'a').join('+')).told).toEqual([]);
  expect(parse(Array.from({ length: 1_600 }, () => 'a').join('+')).told[0]).toContain(
    'a formula has at most 1500 nested operations',
  );
});

test('what is printed reads back to the same tree', () => {
  for (const text of [
    'a - (b + c)*d^(e + 1)',
    '-(a + b)^2/(c*d)',
    'a/(b/c)',
    '(-a)^2',
    'a^(-b)',
    '2^(3^x)',
    '(2^3)^x',
    '-a*-b',
    'if(a + 1 >= b, -c, max(d, e))',
    "u[i + 1]' - v[2]",
  ]) {
    const first = parse(text).tree;
    const again = first && parse(plainText(first)).tree;
    expect(again && shape(again)).toBe(first && shape(first));
  }
});
