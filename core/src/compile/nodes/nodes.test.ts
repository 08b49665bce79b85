import { bind, bound } from '../../formula/expression.ts';
import { Parser } from '../../formula/parse.ts';
import { PlaceError } from '../../text/place.ts';
import { tokenize } from '../../text/token.ts';
import { exp } from '../../elementary/exponential.ts';
import { cos, sin } from '../../elementary/trigonometric.ts';
import { generatedFunction } from '../generated.ts';
import { temporaryNode, nameNode, constantNode, operation, readNode } from './code-node.ts';
import { pieceOf } from './node-of-tree.ts';
import { literal, printed } from './print.ts';
import { Scopes, type ScopeOptions } from './scopes.ts';
import { frame, linesOf } from './statement.ts';

const [A, B, H] = [nameNode('a'), nameNode('b'), nameNode('h', true)];
const PLAIN: ScopeOptions = { pure: true, arithmetic: 'double', inlines: false };

function tree(text: string) {
  const fail = (at: { from: number; to: number }, message: string): never => {
    throw new PlaceError(at, message);
  };
  const tokens = tokenize(text, { from: 0, to: text.length }, fail);
  const parser = new Parser(
    tokens,
    { from: 0, to: 1 },
    { calls: () => false, multiplies: () => false, refuseCall: () => null, report: fail },
  );
  return bind(parser.whole(), (leaf) => bound(leaf.name, leaf.name));
}

/** Nodes of a formula in a, b and the loop-invariant h, with the lines that they need. */
function written(
  text: string,
  options = PLAIN,
): { readonly before: readonly string[]; readonly lines: readonly string[]; readonly result: string } {
  const scopes = new Scopes(options);
  const result = pieceOf(tree(text), scopes, (leaf) => nameNode(leaf, leaf === 'h'));
  return { before: linesOf(scopes.before), lines: linesOf(scopes.statements), result: printed(result) };
}

test.each([
  [-0, '(-0)'],
  [-1.5, '(-1.5)'],
  [1e-7, '1e-7'],
  [5e-324, '5e-324'],
  [0.1 + 0.2, '0.30000000000000004'],
])('%f is printed as %s, which reads back to the same bits', (value, text) => {
  expect(literal(value)).toBe(text);
  expect(generatedFunction<() => number>(`function () { return ${text}; }`)()).toBe(value);
});

test('every operation is in brackets, so that the order of the text is kept', () => {
  expect(printed(operation('-', A, operation('*', B, operation('negate', A))))).toBe('(a - (b * (-a)))');
  expect(printed(operation({ choose: '==' }, A, B, constantNode(1), H))).toBe('(a === b ? 1 : h)');
  expect(printed(operation('single', operation('/', A, B)))).toBe('F((a / b))');
  expect(printed(operation({ call: 'atan2' }, A, B))).toBe('atan2(a, b)');
});

test('pieces that compute the same in the same way have one key, others have not', () => {
  expect(operation('+', A, B).key).toBe(operation('+', nameNode('a'), nameNode('b')).key);
  expect(operation('+', A, B).key).not.toBe(operation('+', B, A).key);
  expect(constantNode(0).key).not.toBe(constantNode(-0).key);
  expect(temporaryNode(1, true).key).not.toBe(temporaryNode(1, false).key);
});

test('an operation is loop-invariant where all of its inputs are', () => {
  expect(operation('*', H, constantNode(2)).loopInvariant).toBe(true);
  expect(operation('*', H, A).loopInvariant).toBe(false);
});

test('what is loop-invariant is computed once, before the loop', () => {
  expect(written('h/2*(a + b)')).toEqual({
    before: ['const s0 = (h / 2);'],
    lines: [],
    result: '(s0 * (a + b))',
  });
});

test('squares and cubes are products of one value; other powers are calls', () => {
  expect(written('(a + b)^3')).toMatchObject({
    lines: ['const v0 = (a + b);'],
    result: '((v0 * v0) * v0)',
  });
  expect(written('a^2').result).toBe('(a * a)');
  expect(written('a^b').result).toBe('pow(a, b)');
  expect(written('a^-2').result).toBe('pow(a, (-2))');
});

test('single precision rounds every operation, not signs and choices', () => {
  expect(written('-a*b + if(a < b, a, b)', { ...PLAIN, arithmetic: 'single' }).result).toBe(
    'F((F(((-a) * b)) + (a < b ? a : b)))',
  );
});

test('the same piece is put aside once while its name is in scope', () => {
  const scopes = new Scopes(PLAIN);
  const sum = operation('+', A, B);
  const first = scopes.keep(sum);
  expect(scopes.keep(operation('+', A, B))).toBe(first);
  const inner = scopes.within(() => [scopes.keep(sum), scopes.keep(operation('*', A, A))]);
  expect(inner.result[0]).toBe(first);
  expect(linesOf(inner.statements)).toEqual(['const v1 = (a * a);']);
  // what an inner block has put aside is out of scope behind it, unless it is said to be in
  expect(scopes.keep(operation('*', A, A))).not.toBe(inner.result[1]);
  const other = scopes.within(() => [scopes.keep(operation('*', A, A))], inner.statements);
  expect(linesOf(other.statements)).toEqual([]);
});

test('elements of arrays change under their names, so their pieces are never shared', () => {
  const scopes = new Scopes({ ...PLAIN, pure: false });
  const element = operation('*', nameNode('R1[j]'), nameNode('R1[j]'));
  expect(scopes.keep(element)).not.toBe(scopes.keep(element));
  const loopInvariant = operation('*', H, H);
  expect(scopes.keep(loopInvariant)).toBe(scopes.keep(loopInvariant));
});

test('statements are printed with the names of the moment', () => {
  const scopes = new Scopes(PLAIN);
  const kept = scopes.keep(operation('+', A, B));
  scopes.say(
    { kind: 'loop', index: 'j', from: 0, to: 4, body: [{ kind: 'put', into: 'R2[j]', value: kept }] },
    frame('done();'),
  );
  expect(linesOf(scopes.statements, ({ id }) => `V[${id}]`)).toEqual([
    'V[0] = (a + b);',
    'for (let j = 0; j < 4; j++) {',
    'R2[j] = V[0];',
    '}',
    'done();',
  ]);
});

/** Arguments one after another, of which many follow where the last was: what a loop remembers holds, and ceases to. */
function* argumentsOfLoop(): Generator<number> {
  let x = 1e-12;
  for (let i = 0; i < 4_000; i += 1) yield (x = -x * 1.011);
  // up and down through some turns, and through many
  for (let i = -3_000; i <= 3_000; i += 1) yield i / 150;
  for (let i = 3_000; i >= -3_000; i -= 1) yield i * 7.3;
  // every quadrant, and what is near its ends, from either side
  for (let k = -40; k <= 40; k += 1)
    for (const near of [-1e-9, -0.3, 0, 1e-16, 0.4]) yield (k * Math.PI) / 4 + near;
  for (const k of [0, 1, 2, 3, 5, 40, 41, 1_000, 16_383, 2 ** 19 - 1, 2 ** 19, 2 ** 20, 2 ** 30])
    for (const sign of [1, -1])
      for (const side of [0, 0.5, -0.5])
        for (const near of [0, 1e-16, 1e-9, 3e-5, 0.005, 0.0055, 0.4, 0.78, 0.785])
          yield* [k, -k].map((m) => ((m + side) * Math.PI) / 2 + sign * near);
  for (const special of [0, -0, NaN, Infinity, -Infinity, 1, 710, -750, 1e300]) yield* [special, 2];
}

/** Values of functions written out in one loop over arguments, one list for each function. */
function inLoop(names: readonly string[], x: Float64Array): readonly Float64Array[] {
  const scopes = new Scopes({ ...PLAIN, inlines: true });
  const results = names.map((name) => printed(scopes.inlined(name, readNode('X[n]', false))!));
  expect(scopes.statements.filter(({ kind }) => kind === 'inlined')).toHaveLength(1);
  const made = generatedFunction<(x: Float64Array, out: readonly Float64Array[]) => void>(
    [
      'function (X, OUT) {',
      ...linesOf(scopes.before),
      'for (let n = 0; n < X.length; n++) {',
      ...linesOf(scopes.statements),
      ...results.map((result, i) => `OUT[${i}][n] = ${result};`),
      '}',
      '}',
    ].join('\n'),
  );
  const out = names.map(() => new Float64Array(x.length));
  made(x, out);
  return out;
}

test.each([
  [['sin']],
  [['cos']],
  [['exp']],
  // of one input they are written out together
  [['sin', 'cos']],
  [['cos', 'sin']],
])('%j written out in a loop has the bits of the functions it stands for', (names) => {
  const own = new Map([
    ['sin', sin],
    ['cos', cos],
    ['exp', exp],
  ]);
  const x = Float64Array.from(argumentsOfLoop());
  expect(x.length).toBeGreaterThan(16_000);
  expect(inLoop(names, x)).toEqual(names.map((name) => x.map(own.get(name)!)));
});

test('functions that are written out are counted, and further ones are called', () => {
  const scopes = new Scopes({ ...PLAIN, inlines: true });
  const made = Array.from({ length: 30 }, (_, i) => scopes.inlined('sin', readNode(`x${i}`, false)));
  expect(made.map((node) => node !== null)).toEqual(made.map((_, i) => i < 24));
  // the partner of one that is written out needs no room of its own
  expect(scopes.inlined('cos', readNode('x3', false))).not.toBeNull();
  expect(scopes.inlined('cos', readNode('x25', false))).toBeNull();
});

test('sine and cosine of two inputs are written out one by one', () => {
  const scopes = new Scopes({ ...PLAIN, inlines: true });
  scopes.inlined('sin', readNode('x', false));
  scopes.inlined('cos', readNode('z', false));
  expect(scopes.statements.filter(({ kind }) => kind === 'inlined')).toHaveLength(2);
});

test('a function of what is loop-invariant is not written out, nor one that has no such form', () => {
  const scopes = new Scopes({ ...PLAIN, inlines: true });
  expect(scopes.inlined('sin', H)).toBeNull();
  expect(scopes.inlined('tan', A)).toBeNull();
  expect(new Scopes(PLAIN).inlined('sin', A)).toBeNull();
  expect(scopes.inlined('sin', A)).toBe(scopes.inlined('sin', A));
});

test('only a function can be made of generated source', () => {
  expect(() => generatedFunction('3')).toThrow('the generated source is not a function');
});
