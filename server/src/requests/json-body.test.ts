import { ApiError } from '../errors/api-error.ts';
import { DOCUMENT_BODY, parseBody } from './json-body.ts';

/** What a body is refused with; null where it is let in. */
function refusal(work: () => unknown): string | null {
  try {
    work();
    return null;
  } catch (thrown) {
    if (!(thrown instanceof ApiError)) throw thrown;
    const [fault] = thrown.body.faults;
    return fault === undefined ? thrown.body.message : `${fault.place}: ${fault.message}`;
  }
}

const parse = (json: string): string | null => refusal(() => parseBody(Buffer.from(json), { values: 100 }));
const nested = (n: number): string => `{"a": ${'['.repeat(n - 1)}${']'.repeat(n - 1)}}`;

test.each<[string, string, string | null]>([
  ['a body as any other', '{"document": {"methods": [{"title": "x"}]}}', null],
  ['a number', '3', 'the body: must be a JSON object'],
  ['a list', '[1, 2]', 'the body: must be a JSON object'],
  ['no JSON', '{"document":', 'The body is not valid JSON.'],
  ['no UTF-8', '{"a": "\u00ff"}', null],
  [
    '__proto__',
    '{"document": {"__proto__": {"kind": "study"}}}',
    'document.__proto__: is not a field of this format',
  ],
  ['constructor', '{"constructor": 1}', 'constructor: is not a field of this format'],
  ['inside a list', '{"a": [1, {"prototype": 2}]}', 'a[1].prototype: is not a field of this format'],
  ['twelve levels', nested(12), null],
  ['thirteen levels', nested(13), 'the body: is nested more than 12 levels deep'],
  ['a hundred values', `{"a": [${'1,'.repeat(98)}1]}`, null],
  ['one more', `{"a": [${'1,'.repeat(99)}1]}`, 'the body: has more than 100 values'],
  ['brackets and commas of a text', JSON.stringify({ a: '[{,'.repeat(5000), b: '"[' }), null],
  [
    'a text that ends in a backslash',
    `{"a": "\\\\", "b": ${'['.repeat(20)}`,
    'the body: is nested more than 12 levels deep',
  ],
])('%s', (_, json, expected) => {
  expect(parse(json)).toBe(expected);
});

test('a byte that is no UTF-8 is no JSON', () => {
  expect(refusal(() => parseBody(Uint8Array.of(0x22, 0xff, 0x22), { values: 1 }))).toBe(
    'The body is not valid JSON.',
  );
});

test.each([`[${'1,'.repeat(450_000)}1]`, '['.repeat(900_000), `{${'"a":{},'.repeat(100_000)}`])(
  'a large body of small values is refused before it is parsed: case %#',
  (json) => {
    const parsing = jest.spyOn(JSON, 'parse');
    expect(refusal(() => parseBody(Buffer.from(json), DOCUMENT_BODY))).toMatch(
      /^the body: (has more|is nested)/,
    );
    expect(parsing).not.toHaveBeenCalled();
    parsing.mockRestore();
  },
);
