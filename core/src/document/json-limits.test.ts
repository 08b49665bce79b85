import { jsonExcess, reservedKey } from './json-limits.ts';
import { readDocumentText } from './read-document.ts';

const LIMITS = { values: 100 };
const nested = (n: number): string => '['.repeat(n) + ']'.repeat(n);

test.each<[string, string, string | null]>([
  ['twelve levels', nested(12), null],
  ['thirteen levels', nested(13), 'is nested more than 12 levels deep'],
  ['many lists and objects beside one another', `[${'[],{},'.repeat(20)}1]`, null],
  ['a hundred values', `[${'1,'.repeat(99)}1]`, null],
  ['one more', `[${'1,'.repeat(100)}1]`, 'has more than 100 values'],
  ['brackets and commas of a string', JSON.stringify(['[{,'.repeat(500), '"[']), null],
  ['a string that ends in a backslash', `["\\\\", ${nested(13)}]`, 'is nested more than 12 levels deep'],
  ['an escaped quote', '["a\\"[[[[[[[[[[[[[[", 1]', null],
])('%s', (_, text, excess) => {
  expect(jsonExcess(text, LIMITS)).toBe(excess);
  expect(jsonExcess(new TextEncoder().encode(text), LIMITS)).toBe(excess);
});

test('reserved keys are found where they stand, and not in texts', () => {
  const sent: unknown = JSON.parse('{"a": [1, {"__proto__": 2}], "b": "constructor"}');
  expect(reservedKey(sent)).toBe('a[1].__proto__');
  expect(reservedKey({ a: '__proto__' })).toBeNull();
});

test('a file with a reserved key is refused, and one that is too large before it is parsed', () => {
  const text = '{"schritt": 1, "kind": "method", "title": "A", "text": "", "constructor": {}}';
  expect(readDocumentText(text)).toEqual({
    ok: false,
    errors: [{ place: 'constructor', message: 'is not a field of this format' }],
  });
  const parsing = jest.spyOn(JSON, 'parse');
  expect(readDocumentText(`[${'1,'.repeat(60_000)}1]`)).toMatchObject({
    errors: [{ message: 'has more than 5000 values' }],
  });
  expect(parsing).not.toHaveBeenCalled();
  parsing.mockRestore();
});
