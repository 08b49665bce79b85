import type { StudyDocument } from '@schritt/core/document';
import { answerOf, ApiFailure, readEntry } from './client.ts';

jest.mock('openapi-fetch', () => ({ __esModule: true, default: () => ({}) }));

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "y' = -y" },
  methods: [],
  ladder: { counts: [4] },
};
const ENTRY = { id: 'a', kind: 'study', version: 3, updatedAt: '2026-01-01', document: STUDY };

function response(status: number): Response {
  return Object.assign(Object.create(null), { ok: status < 400, status });
}

test('an entry is read out of an answer, its document by the definition of the format', () => {
  expect(readEntry(ENTRY, 'study')).toEqual({
    id: 'a',
    version: 3,
    updatedAt: '2026-01-01',
    shownAt: null,
    document: STUDY,
  });
});

test.each<[string, unknown]>([
  ['nothing', null],
  ['no entry', { id: 'a' }],
  ['another kind', { ...ENTRY, document: { schritt: 1, kind: 'method', title: '', text: '' } }],
  ['a document that is none', { ...ENTRY, document: null }],
  ['a version that is no number', { ...ENTRY, version: '3' }],
])('%s is an error, not a broken page', (_, value) => {
  expect(() => readEntry(value, 'study')).toThrow('the response of the server cannot be read');
});

test('a good answer is its data', async () => {
  await expect(answerOf(Promise.resolve({ data: 5, response: response(200) }))).resolves.toBe(5);
});

test('an error of the server keeps its code, its sentence and the present entry', async () => {
  const body = {
    code: 'stale-version',
    message: 'changed elsewhere',
    status: 409,
    faults: [],
    current: ENTRY,
  };
  const failed = answerOf(Promise.resolve({ error: body, response: response(409) }));
  await expect(failed).rejects.toMatchObject({
    code: 'stale-version',
    message: 'changed elsewhere',
    current: ENTRY,
  });
});

test('an answer of something else between, and no answer at all', async () => {
  const between = answerOf(Promise.resolve({ error: '<html>', response: response(502) }));
  await expect(between).rejects.toMatchObject({ code: 'internal', message: 'the server answered 502' });
  const none = answerOf(Promise.reject<{ response: Response }>(new TypeError('fetch failed')));
  await expect(none).rejects.toBeInstanceOf(ApiFailure);
  await expect(none).rejects.toMatchObject({ code: 'unreachable', message: 'the server does not respond' });
});
