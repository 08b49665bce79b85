import { closingOf, depths } from './brackets.ts';
import { primed } from './primes.ts';
import { type Token, tokenize } from './token.ts';

function tokens(text: string): { readonly list: readonly Token[]; readonly told: readonly string[] } {
  const told: string[] = [];
  const list = tokenize(text, { from: 0, to: text.length }, (at, message) =>
    told.push(`${at.from}-${at.to}: ${message}`),
  );
  return { list, told };
}

function texts(text: string): readonly string[] {
  return tokens(text).list.map((token) => token.text);
}

test.each([
  ["level' = -k*sqrt(level)", ['level', "'", '=', '-', 'k', '*', 'sqrt', '(', 'level', ')']],
  ['1e-3', ['1e-3']],
  ['.5+2.', ['.5', '+', '2.']],
  ['1..n', ['1', '..', 'n']],
  ['2e', ['2', 'e']],
  ['0 ≤ t ≤ 6', ['0', '<=', 't', '<=', '6']],
  ['a·b×c−d', ['a', '*', 'b', '*', 'c', '-', 'd']],
  ['y’ = y′', ['y', "'", '=', 'y', "'"]],
  ['λ*x_1 # a comment + 1', ['λ', '*', 'x_1']],
  ['a >= b != c == d', ['a', '>=', 'b', '!=', 'c', '==', 'd']],
])('%s is read as %j', (text, expected) => {
  expect(texts(text)).toEqual(expected);
});

test('a token has its place in the whole text', () => {
  const text = 'first\nk = 0.35';
  const list = tokenize(text, { from: 6, to: text.length }, () => undefined);
  expect(list.map(({ kind, at }) => [kind, at.from, at.to])).toEqual([
    ['name', 6, 7],
    ['relation', 8, 9],
    ['number', 10, 14],
  ]);
});

test.each([
  ['x ** 2', '2-4: a power is written ^, not **'],
  ['{x}', '0-1: the character { is not allowed in a formula; curly brackets are not used; write ( and )'],
  ['😀', '0-2: the character 😀 is not allowed in a formula'],
])('%s is listed: %s', (text, message) => {
  expect(tokens(text).told[0]).toBe(message);
});

test('what has no meaning is passed over, the rest is read', () => {
  const { list, told } = tokens('y $ + ? 1');
  expect(list.map(({ text }) => text)).toEqual(['y', '+', '1']);
  expect(told).toHaveLength(2);
});

test('depths count both kinds of brackets from outside', () => {
  const { list } = tokens('f(a, u[i-1]) + (b)');
  expect(depths(list).join('')).toBe('001111222100010');
});

test.each([
  ['(a)', 0, 2],
  ['((a) + (b)) * c', 0, 8],
  ['u[i+(1)]', 1, 7],
  ['(a', 0, -1],
])('in %s the bracket at %d is closed at %d', (text, from, to) => {
  expect(closingOf(tokens(text).list, from)).toBe(to);
});

test('primes stand behind a name', () => {
  expect([primed('x', 0), primed('x', 2), primed('u[3]', 1)]).toEqual(['x', "x''", "u[3]'"]);
});
