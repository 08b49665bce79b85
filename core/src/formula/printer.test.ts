import fc from 'fast-check';
import { C } from '../publish/programs/c-writing.ts';
import { JAVASCRIPT } from '../publish/programs/js-program.ts';
import { numberPart, programLanguage } from '../publish/programs/program-language.ts';
import { pow } from '../elementary/power.ts';
import { evaluate } from './evaluate.ts';
import { type Expression, name, number } from './expression.ts';
import { plainText } from './plain-text.ts';
import { atom, printer, textLanguage } from './printer.ts';
import { texOf } from './tex.ts';
import { parsedFormula as parse } from '../../trust/parsed-formula.ts';

const at = { from: 0, to: 0 };

/** Trees of all operations, with numbers, names and calls as leaves and inputs. */
const { tree } = fc.letrec<{ tree: Expression }>((tie) => ({
  tree: fc.oneof(
    { maxDepth: 6 },
    fc.double({ min: 0, max: 1e6, noNaN: true }).map((value): Expression => number(value)),
    fc.constantFrom<Expression>(name('x'), name('a')),
    fc.record({
      kind: fc.constant('binary' as const),
      operator: fc.constantFrom('+' as const, '-' as const, '*' as const, '/' as const, '^' as const),
      left: tie('tree'),
      right: tie('tree'),
      at: fc.constant(at),
    }),
    fc.record({ kind: fc.constant('negate' as const), of: tie('tree'), at: fc.constant(at) }),
    fc.record({
      kind: fc.constant('call' as const),
      name: fc.constantFrom('abs', 'floor'),
      primes: fc.constant(0),
      inputs: tie('tree').map((input) => [input]),
      at: fc.constant(at),
      nameAt: fc.constant(at),
    }),
    fc.record({
      kind: fc.constant('if' as const),
      test: fc.record({
        relation: fc.constantFrom('<' as const, '>=' as const, '==' as const),
        left: tie('tree'),
        right: tie('tree'),
        at: fc.constant(at),
      }),
      yes: tie('tree'),
      no: tie('tree'),
      at: fc.constant(at),
    }),
  ),
}));

function valueAt(expression: Expression, x: number): number {
  return evaluate(expression, (leaf) => (leaf.kind === 'name' && leaf.name === 'x' ? x : 1.25));
}

test('a formula printed in the notation and read again has the same value to the last bit', () => {
  fc.assert(
    fc.property(tree, (expression) => {
      const again = parse(plainText(expression));
      for (const x of [0.7, -2.5]) expect(valueAt(again, x)).toBe(valueAt(expression, x));
    }),
    { numRuns: 400 },
  );
});

test('a formula printed as a program has the value of the formula to the last bit', () => {
  // powers by the function that evaluates them: those of JavaScript are rounded differently
  const writing = {
    ...JAVASCRIPT,
    power: (base: string, exponent: string) => atom(`pow(${base}, ${exponent})`),
  };
  const print = printer(
    programLanguage(
      writing,
      (node) => (node.kind === 'name' ? atom(node.name) : atom('')),
      () => undefined,
    ),
  );
  fc.assert(
    fc.property(tree, (expression) => {
      const program = new Function('x', 'a', 'pow', `return ${print(expression).text};`);
      for (const x of [0.7, -2.5]) expect(program(x, 1.25, pow)).toBe(valueAt(expression, x));
    }),
    { numRuns: 400 },
  );
});

test.each([
  ['a - (b - c)', 'a - (b - c)'],
  ['(a - b) - c', 'a - b - c'],
  ['a*(b/c)', 'a*(b/c)'],
  ['(-a)^2', '(-a)^2'],
  ['-a^2', '-a^2'],
  ['a^(b^c)', 'a^b^c'],
  ['(a^b)^c', '(a^b)^c'],
  ['a^(-b)', 'a^(-b)'],
  ['a + (-b)', 'a + (-b)'],
  ['-(a + b)*c', '-(a + b)*c'],
])('%s has the brackets that it needs: %s', (text, expected) => {
  expect(plainText(parse(text))).toBe(expected);
});

test('a part that holds together loosely is bracketed where it is put in', () => {
  const print = printer(
    textLanguage({
      number: String,
      leaf: () => ({ text: 'p + q', holds: 'sum' }),
      signs: { '+': ' + ', '-': ' - ', '*': '*', '/': '/' },
      power: (base, exponent) => atom(`power(${base.text}, ${exponent.text})`),
      call: ({ name: called }, inputs) => `${called}(${inputs.join(', ')})`,
      choice: () => '',
    }),
  );
  expect(
    ['z + 1', '1 - z', '2*z', 'z/2', '-z', 'z^3', 'sin(z)'].map((text) => print(parse(text)).text),
  ).toEqual([
    'p + q + 1',
    '1 - (p + q)',
    '2*(p + q)',
    '(p + q)/2',
    '-(p + q)',
    'power(p + q, 3)',
    'sin(p + q)',
  ]);
});

test('a number of either sign, and minus zero', () => {
  expect([2, -2, -0].map((value) => numberPart(value, C))).toEqual([
    { text: '2.0', holds: 'atom' },
    { text: '-2.0', holds: 'sign' },
    { text: '-0.0', holds: 'sign' },
  ]);
});

test('an index in TeX stands as it is typed, or as another has it', () => {
  const indexed = parse('u[i-1] + 2*y[n+1]');
  expect(texOf(indexed)).toBe('u_{i-1} + 2 y_{n+1}');
  expect(texOf(indexed, () => '7')).toBe('u_{7} + 2 y_{7}');
});
