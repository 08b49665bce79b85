import { ApiError } from '../errors/api-error.ts';
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
