import { ApiError } from '../errors/api-error.ts';
import { checkShape } from './body-shape.ts';
import { checkPlain } from './plain-body.ts';

/** The place and message that a body is refused with; null where it is let through. */
function refusal(json: string): string | null {
  try {
    checkPlain(JSON.parse(json));
    return null;
  } catch (thrown) {
    if (!(thrown instanceof ApiError)) throw thrown;
    return thrown.body.faults.map(({ place, message }) => `${place}: ${message}`).join();
  }
}

const keys = (n: number): string => `{${Array.from({ length: n }, (_, i) => `"k${i}": 1`).join()}}`;

test.each<[string, string, string | null]>([
  ['a body as any other', '{"document": {"methods": [{"title": "x"}]}}', null],
  ['no object', '3', null],
  [
    '__proto__',
    '{"document": {"__proto__": {"kind": "study"}}}',
    'document.__proto__: is not a field of this format',
  ],
  ['constructor', '{"constructor": 1}', 'constructor: is not a field of this format'],
  ['inside a list', '{"a": [1, {"prototype": 2}]}', 'a[1].prototype: is not a field of this format'],
  ['as many fields as are possible', keys(40), null],
  ['one more', keys(41), 'the body: has 41 fields; no object here has more than 40'],
])('%s', (_, json, expected) => {
  expect(refusal(json)).toBe(expected);
});

test('sixty thousand fields and a hundred thousand lists inside one another are refused at once', () => {
  expect(refusal(keys(60_000))).toContain('has 60000 fields');
  expect(refusal(`${'['.repeat(100_000)}${']'.repeat(100_000)}`)).toContain('nested at most 12 deep');
});

describe('before it is read as JSON', () => {
  const shape = (json: string): string | null => {
    try {
      checkShape(Buffer.from(json));
      return null;
    } catch (thrown) {
      if (!(thrown instanceof ApiError)) throw thrown;
      return thrown.body.faults[0]?.message ?? '';
    }
  };

  test.each<[string, string, string | null]>([
    ['a document', '{"a": [{"b": {"c": 1}}]}', null],
    ['brackets and colons of a text', JSON.stringify({ a: '[{:'.repeat(5000), b: '"[' }), null],
    [
      'a text that ends in a backslash',
      `{"a": "\\\\", "b": ${'['.repeat(20)}`,
      'values are nested at most 12 deep here',
    ],
    ['twelve deep', `${'['.repeat(12)}${']'.repeat(12)}`, null],
    ['thirteen deep', `${'['.repeat(13)}${']'.repeat(13)}`, 'values are nested at most 12 deep here'],
    ['many beside one another', `[${'[],'.repeat(5000)}[]]`, null],
    ['as many fields as are possible', keys(2000), null],
    ['one more', keys(2001), 'has more than 2000 fields'],
  ])('%s', (_, json, message) => {
    expect(shape(json)).toBe(message);
  });
});
