import { evaluate, evaluateIn, type Operation } from './evaluate.ts';
import {
  bind,
  binary,
  bound,
  call,
  childrenOf,
  type Expression,
  type IndexedLeaf,
  meaningsOf,
  name,
  type NameLeaf,
  number,
  partsOf,
  rewrite,
  some,
  walk,
} from './expression.ts';
import { factorial } from './factorial.ts';
import { compare, power, roundedDoubles } from './arithmetic.ts';

const NOWHERE = { from: 0, to: 0 };
const NEIGHBOUR: Expression = {
  kind: 'indexed',
  name: 'u',
  primes: 0,
  index: binary('+', name('i'), number(1)),
  at: NOWHERE,
};

function names(expression: Expression): readonly string[] {
  const found: string[] = [];
  walk(expression, (node) => {
    if (node.kind === 'name' || node.kind === 'indexed') found.push(node.name);
  });
  return found;
}

test('a walk comes by every node in the order of the text, indices too', () => {
  const tree: Expression = binary<NameLeaf | IndexedLeaf>(
    '*',
    call<NameLeaf | IndexedLeaf>('min', [name('a'), NEIGHBOUR]),
    name('b'),
  );
  expect(names(tree)).toEqual(['a', 'u', 'i', 'b']);
  expect(some(tree, (node) => node.kind === 'name' && node.name === 'i')).toBe(true);
  expect(some(tree, (node) => node.kind === 'if')).toBe(false);
});

test('the parts of a name with an index are its index; as a leaf it has no children', () => {
  expect(partsOf(NEIGHBOUR)).toHaveLength(1);
  expect(childrenOf(NEIGHBOUR)).toEqual([]);
});

test('a negative number is written as the negation of a positive one, minus zero too', () => {
  expect(number(-2)).toMatchObject({ kind: 'negate', of: { value: 2 } });
  expect(number(-0)).toMatchObject({ kind: 'negate', of: { value: 0 } });
  expect(number(0)).toMatchObject({ kind: 'number', value: 0 });
});

test('rewriting exchanges nodes and keeps the others, inside indices as well', () => {
  const tree = binary<NameLeaf | IndexedLeaf>('-', NEIGHBOUR, name('i'));
  const moved = rewrite(tree, (node) => (node.kind === 'name' && node.name === 'i' ? name('j') : null));
  expect(names(moved)).toEqual(['u', 'j', 'j']);
  expect(names(tree)).toEqual(['u', 'i', 'i']);
});

test('binding gives every name its meaning, and leaves the operations as they were', () => {
  const tree = binary<NameLeaf | IndexedLeaf>(
    '+',
    call('sin', [name('t')]),
    binary<NameLeaf | IndexedLeaf>('*', name('k'), NEIGHBOUR),
  );
  const made = bind(
    tree,
    (leaf) => bound({ meant: leaf.name }, leaf.name),
    () => null,
  );
  expect(meaningsOf(made)).toEqual([{ meant: 't' }, { meant: 'k' }, { meant: 'u' }]);
  const values: Readonly<Record<string, number>> = { t: 0, k: 3, u: 5 };
  expect(evaluate(made, (leaf) => (leaf.kind === 'bound' ? (values[leaf.to.meant] ?? NaN) : NaN))).toBe(15);
});

test('a call that is none of the notation can be bound as a whole', () => {
  const tree = binary('*', name('h'), call('f', [name('t'), name('y')]));
  const made = bind(
    tree,
    (leaf) => bound(leaf.name, leaf.name),
    (node) => (node.name === 'f' ? bound(`f of ${node.inputs.length}`, 'f') : null),
  );
  expect(meaningsOf(made)).toEqual(['h', 'f of 2']);
});

test('operations are reported in the order in which they are done, with what went in', () => {
  const done: Operation[] = [];
  const tree = binary('-', binary('*', name('a'), number(2)), call('sqrt', [name('b')]));
  const value = evaluateIn(
    roundedDoubles((x) => x),
    tree,
    (leaf) => (leaf.kind === 'name' && leaf.name === 'a' ? 3 : 16),
    (operation) => done.push(operation),
  );
  expect(value).toBe(2);
  expect(done.map(({ inputs, result }) => [...inputs, result])).toEqual([
    [3, 2, 6],
    [16, 4],
    [6, 4, 2],
  ]);
});

test('single precision rounds every operation, the cube twice', () => {
  const cube = binary('^', name('x'), number(3));
  const x = 1.1;
  const f = Math.fround;
  const expected = f(f(f(x) * f(x)) * f(x));
  expect(evaluateIn(roundedDoubles(f), cube, () => x)).toBe(expected);
  expect(expected).not.toBe(f(x * x * x));
});

test('of a choice one branch alone is worked out', () => {
  const tree: Expression = {
    kind: 'if',
    test: { relation: '<', left: name('a'), right: number(0), at: NOWHERE },
    yes: call('sqrt', [number(-1)]),
    no: number(4),
    at: NOWHERE,
  };
  const done: Operation[] = [];
  expect(
    evaluateIn(
      roundedDoubles((x) => x),
      tree,
      () => 1,
      (o) => done.push(o),
    ),
  ).toBe(4);
  expect(done).toEqual([]);
});

test.each([
  ['<', [true, false, false]],
  ['<=', [true, true, false]],
  ['>', [false, false, true]],
  ['>=', [false, true, true]],
  ['==', [false, true, false]],
  ['!=', [true, false, true]],
] as const)('%s compares 1, 2 and 3 with 2, and never holds for a NaN but !=', (relation, expected) => {
  expect([1, 2, 3].map((left) => compare(relation, left, 2))).toEqual(expected);
  expect(compare(relation, NaN, 2)).toBe(relation === '!=');
});

test('squares and cubes are products, other powers are not', () => {
  const x = 1.1;
  expect(power(x, 2, true)).toBe(x * x);
  expect(power(x, 3, true)).toBe(x * x * x);
  expect(power(4, 0.5, false)).toBe(2);
});

test('factorials are whole', () => {
  expect([0, 1, 2, 5, 18].map(factorial)).toEqual([1, 1, 2, 120, 6402373705728000]);
});
