import { keepSession, keptSession, NEW_SESSION, submittedOf } from './marking-session.ts';
import { typedSize } from './use-marking.ts';

const stored = new Map<string, unknown>();
jest.mock('idb-keyval', () => ({
  createStore: () => 'store',
  get: (key: string) => Promise.resolve(stored.get(key)),
  set: (key: string, value: unknown) => Promise.resolve(stored.set(key, structuredClone(value))),
}));

beforeEach(() => stored.clear());

test('what was handed in is there when the page is opened again', async () => {
  expect(await keptSession()).toBeNull();
  const session = { ...NEW_SESSION, study: 'a', pasted: '0;1', files: [{ name: 'Anna.csv', text: '0;2' }] };
  await keepSession(session);
  expect(await keptSession()).toEqual(session);
});

test.each<unknown>([
  3,
  { form: 0, session: NEW_SESSION },
  { form: 1, session: { ...NEW_SESSION, files: 'Anna' } },
  { form: 1, session: { study: 'a' } },
])('what is stored in another form is not read: %j', async (value) => {
  stored.set('session', value);
  expect(await keptSession()).toBeNull();
});

test('pasted rows are one more text, unless nothing is pasted', () => {
  const files = [{ name: 'Anna.csv', text: '0;2' }];
  expect(submittedOf({ files, pasted: ' \n' })).toBe(files);
  expect(submittedOf({ files, pasted: '0;1' })).toEqual([...files, { name: 'pasted rows', text: '0;1' }]);
});

test.each([
  ['h', '0.1', { kind: 'size', gridRequest: { h: 0.1 } }],
  ['h', 'pi/8', { kind: 'size', gridRequest: { h: Math.PI / 8 } }],
  ['N', '16', { kind: 'size', gridRequest: { steps: 16 } }],
  ['h', ' ', { kind: 'none' }],
  ['h', 'k/2', { kind: 'wrong', why: 'a step size may contain only numbers, pi and e' }],
] as const)('a size %s typed as %j is %j', (kind, text, size) => {
  expect(typedSize({ kind, text })).toEqual(size);
});
