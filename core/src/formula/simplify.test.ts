import { binary, call, type Expression, name, number } from './expression.ts';
import { evaluate } from './evaluate.ts';
import { linearIn } from './linear.ts';
import { plainText } from './plain-text.ts';
import { constantOf, same, simple, simplified } from './simplify.ts';

const [x, y, k]: readonly Expression[] = [name('x'), name('y'), name('k')];
const [ZERO, ONE, TWO, THREE] = [number(0), number(1), number(2), number(3)];

function text(expression: Expression): string {
  return plainText(expression);
}

test.each<[string, Expression, string]>([
  ['0 + x', simple.add(ZERO, x!), 'x'],
  ['x + 0', simple.add(x!, ZERO), 'x'],
  ['x + -y', simple.add(x!, simple.negated(y!)), 'x - y'],
  ['-x + y', simple.add(simple.negated(x!), y!), 'y - x'],
  ['x - 0', simple.subtract(x!, ZERO), 'x'],
  ['0 - x', simple.subtract(ZERO, x!), '-x'],
  ['x - -y', simple.subtract(x!, simple.negated(y!)), 'x + y'],
  ['x - x', simple.subtract(x!, x!), '0'],
  ['0*x', simple.multiply(ZERO, x!), '0'],
  ['1*x', simple.multiply(ONE, x!), 'x'],
  ['x*2', simple.multiply(x!, TWO), '2*x'],
  ['2*(3*x)', simple.multiply(TWO, simple.multiply(THREE, x!)), '6*x'],
  ['x*x', simple.multiply(x!, x!), 'x^2'],
  ['(1/x)*y', simple.multiply(simple.divide(ONE, x!), y!), 'y/x'],
  ['-x*-y', simple.multiply(simple.negated(x!), simple.negated(y!)), 'x*y'],
  ['x/1', simple.divide(x!, ONE), 'x'],
  ['x/x', simple.divide(x!, x!), '1'],
  ['6*x/2', simple.divide(simple.multiply(number(6), x!), TWO), '3*x'],
  ['x/y/k', simple.divide(simple.divide(x!, y!), k!), 'x/(y*k)'],
  ['x^1', simple.raise(x!, ONE), 'x'],
  ['x^0', simple.raise(x!, ZERO), '1'],
  ['(x^2)^3', simple.raise(simple.raise(x!, TWO), THREE), 'x^6'],
  ['--x', simple.negated(simple.negated(x!)), 'x'],
  ['-(x - y)', simple.negated(simple.subtract(x!, y!)), 'y - x'],
  ['2^10', simple.raise(TWO, number(10)), '1024'],
  // no decimals that nobody wrote
  ['1/3', simple.divide(ONE, THREE), '1/3'],
  ['0.5*0.1', simple.multiply(number(0.5), number(0.1)), '0.5*0.1'],
])('%s becomes %s', (_, made, expected) => {
  expect(text(made)).toBe(expected);
});

test('three factors that are no whole numbers end', () => {
  const half = number(0.5);
  expect(
    text(simple.multiply(half, simple.multiply(number(1.2), simple.multiply(number(0.3), x!)))),
  ).toContain('x');
});

test('plain numbers are reported, also negated ones', () => {
  expect([constantOf(number(-2.5)), constantOf(number(7)), constantOf(x!)]).toEqual([-2.5, 7, null]);
});

test('the same trees are the same, wherever they stand in a text', () => {
  const one = binary('*', call('sin', [name('x', 1, { from: 3, to: 5 })]), number(2));
  const other = binary('*', call('sin', [name('x', 1)]), number(2, { from: 9, to: 10 }));
  expect(same(one, other)).toBe(true);
  expect(same(one, binary('*', call('cos', [name('x', 1)]), number(2)))).toBe(false);
  expect(same(name('x', 1), name('x', 2))).toBe(false);
  expect(same(name('x'), number(1))).toBe(false);
});

test('a simplified tree has the same value', () => {
  const at = (node: Expression): number =>
    evaluate(node, (leaf) => (leaf.kind === 'name' ? (leaf.name === 'x' ? 1.7 : 0.3) : NaN));
  const trees = [
    binary('+', binary('*', number(0), x!), binary('-', binary('/', x!, y!), binary('^', y!, ONE))),
    binary('*', binary('/', ONE, x!), binary('-', ZERO, y!)),
    binary('-', binary('*', TWO, binary('*', THREE, x!)), binary('/', binary('*', number(4), y!), TWO)),
  ];
  for (const tree of trees) expect(at(simplified(tree))).toBeCloseTo(at(tree), 14);
});

test.each([
  ['2*x + y', binary('+', binary('*', TWO, x!), y!), '2', 'y'],
  ['k*(x - 1)/y', binary('/', binary('*', k!, binary('-', x!, ONE)), y!), 'k/y', '-k/y'],
  ['y - x', binary('-', y!, x!), '-1', 'y'],
  ['k', k!, '0', 'k'],
])('%s is linear in x', (_, expression, slope, rest) => {
  const split = linearIn(expression, (node) => node.kind === 'name' && node.name === 'x');
  expect(split.ok && [text(split.slope), text(split.rest)]).toEqual([slope, rest]);
});

test.each([
  ['x^2', binary('^', x!, TWO)],
  ['x*x', binary('*', x!, x!)],
  ['1/x', binary('/', ONE, x!)],
  ['sin(x)', call('sin', [x!])],
])('%s is not, and the part that is not is reported', (part, expression) => {
  const split = linearIn(binary('+', expression, ONE), (node) => node.kind === 'name' && node.name === 'x');
  expect(split.ok ? null : text(split.part)).toBe(part);
});
