import {
  constant,
  either,
  Faults,
  type Form,
  hasField,
  list,
  named,
  number,
  object,
  type Of,
  oneOf,
  text,
} from './form.ts';

const WHOLE = number((x) => Number.isInteger(x), 'a whole number', { type: 'integer' });
const LAKE = object(
  { name: text(8), depth: WHOLE },
  { state: oneOf('full', 'empty'), inflows: list(WHOLE, 2) },
);
type Lake = Of<typeof LAKE>;

function read<T>(
  form: Form<T>,
  value: unknown,
): { readonly value: T | null; readonly faults: readonly string[] } {
  const faults = new Faults();
  const read = form.read(value, 'lake', faults);
  return { value: read, faults: faults.list.map(({ place, message }) => `${place}: ${message}`) };
}

test('a good value is read as it is, with what may be there and without', () => {
  const plain: Lake = { name: 'Almsee', depth: 7 };
  expect(read(LAKE, plain)).toEqual({ value: plain, faults: [] });
  const more: Lake = { ...plain, state: 'full', inflows: [1, 2] };
  expect(read(LAKE, more)).toEqual({ value: more, faults: [] });
});

test.each<[string, unknown, readonly string[]]>([
  ['no object', 3, ['lake: must be an object with name, depth']],
  ['a list', [], ['lake: must be an object with name, depth']],
  ['nothing', null, ['lake: must be an object with name, depth']],
  ['what is missing', { name: 'A' }, ['lake.depth: is missing']],
  ['a field set to undefined', { name: 'A', depth: undefined }, ['lake.depth: is missing']],
  [
    'a strange field',
    { name: 'A', depth: 1, color: 'blue' },
    ['lake.color: is not a field of this format; the fields here are name, depth, state, inflows'],
  ],
  [
    'several at once',
    { name: 'A long name', depth: 1.5, state: 'half', inflows: [1, 'x'] },
    [
      'lake.name: has 11 characters; at most 8 are possible',
      'lake.depth: must be a whole number',
      'lake.state: must be one of "full", "empty"',
      'lake.inflows[1]: must be a whole number',
    ],
  ],
  [
    'too many entries',
    { name: 'A', depth: 1, inflows: [1, 2, 3] },
    ['lake.inflows: has 3 entries; at most 2 are possible'],
  ],
  ['no list', { name: 'A', depth: 1, inflows: '1' }, ['lake.inflows: must be a list']],
  ['no text', { name: 1, depth: 1 }, ['lake.name: must be a text in quotes']],
  ['not a finite number', { name: 'A', depth: Infinity }, ['lake.depth: must be a whole number']],
])('%s is refused with its place', (_, value, faults) => {
  expect(read(LAKE, value)).toEqual({ value: null, faults });
});

test('fields of the language itself are fields like any other', () => {
  const sent: unknown = JSON.parse('{"name": "A", "depth": 1, "__proto__": {"name": "B"}, "constructor": 1}');
  expect(read(LAKE, sent).faults).toEqual([
    expect.stringContaining('lake.__proto__: is not a field'),
    expect.stringContaining('lake.constructor: is not a field'),
  ]);
});

test('a look at the whole object comes when its fields are good, and can refuse it', () => {
  const looked: unknown[] = [];
  const ordered = object({ from: WHOLE, to: WHOLE }, {}, (value, place, faults) => {
    looked.push(value);
    if (value.from > value.to) faults.note(place, 'runs backwards');
  });
  expect(read(ordered, { from: 1, to: 'x' }).value).toBeNull();
  expect(looked).toEqual([]);
  expect(read(ordered, { from: 3, to: 2 })).toEqual({ value: null, faults: ['lake: runs backwards'] });
  expect(read(ordered, { from: 2, to: 2 }).value).toEqual({ from: 2, to: 2 });
});

test('one of several forms is picked by the value', () => {
  const word = text(5);
  const form = either<string | number>((value) => (typeof value === 'string' ? word : WHOLE), word, WHOLE);
  expect([read(form, 'low').value, read(form, 4).value]).toEqual(['low', 4]);
  expect(read(form, 4.5).faults).toEqual(['lake: must be a whole number']);
  expect(form.schema(() => undefined)).toEqual({
    oneOf: [{ type: 'string', maxLength: 5 }, { type: 'integer' }],
  });
});

test('the schema says the same as the reader; named parts stand once', () => {
  const definitions: Record<string, unknown> = {};
  const form = object({ kind: constant('lake'), main: named('lake', LAKE) }, { other: named('lake', LAKE) });
  const schema = form.schema((name, part) => (definitions[name] = part));
  expect(schema).toEqual({
    type: 'object',
    additionalProperties: false,
    required: ['kind', 'main'],
    properties: {
      kind: { const: 'lake' },
      main: { $ref: '#/definitions/lake' },
      other: { $ref: '#/definitions/lake' },
    },
  });
  expect(Object.keys(definitions)).toEqual(['lake']);
  expect(definitions['lake']).toMatchObject({ required: ['name', 'depth'] });
});

test('a constant is itself alone', () => {
  expect(read(constant(1), 1).value).toBe(1);
  expect(read(constant(1), '1').faults).toEqual(['lake: must be 1']);
});

test('only own fields count', () => {
  expect([
    hasField({ steps: 1 }, 'steps'),
    hasField({}, 'toString'),
    hasField(null, 'x'),
    hasField('s', 'length'),
  ]).toEqual([true, false, false, false]);
});
