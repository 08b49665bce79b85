import type { StudyDocument } from '@schritt/core/document';
import { historyKeeper } from './kept-history.ts';
import { change, redo, startHistory, undo } from './undo-history.ts';
import { documentOf, STUDY_HISTORY, workOn } from './working-study.ts';

const stored = new Map<string, unknown>();
jest.mock('idb-keyval', () => ({
  createStore: () => 'store',
  get: (key: string) => Promise.resolve(stored.get(key)),
  set: (key: string, value: unknown) => Promise.resolve(stored.set(key, structuredClone(value))),
  del: (key: string) => Promise.resolve(stored.delete(key)),
  entries: () => Promise.resolve([...stored]),
}));

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Frost line',
  problem: { title: 'Soil', text: "y' = -y" },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'Heun', text: 'y[n+1] = y' },
  ],
  ladder: { sizes: [0.4] },
};

beforeEach(() => stored.clear());

function edited() {
  const first = workOn(STUDY);
  const second = { ...first, methods: first.methods.slice(1) };
  const third = { ...second, title: 'third' };
  return undo(change(change(startHistory(first), second, 'method', 0), third, 'title', 9_000));
}

test('what can be undone and redone is there again when the document is opened again, with the same methods as the same', async () => {
  const history = edited();
  const keeper = historyKeeper('a', 'study', STUDY_HISTORY);
  await keeper.keep(history);
  const opened = workOn(documentOf(history.present));
  const again = await keeper.load(opened);
  if (again === null) throw new Error('nothing was kept');
  expect(again.present).toBe(opened);
  expect(documentOf(undo(again).present)).toEqual(STUDY);
  expect(redo(again).present).toMatchObject({ title: 'third' });
  const [euler, heun] = undo(again).present.methods;
  expect([heun?.key, redo(again).present.methods[0]?.key]).toEqual([
    opened.methods[0]?.key,
    opened.methods[0]?.key,
  ]);
  expect(euler?.key).not.toBe(heun?.key);
});

test('a document that was changed elsewhere, or whose history is none, has a history that begins', async () => {
  const keeper = historyKeeper('a', 'study', STUDY_HISTORY);
  await keeper.keep(edited());
  expect(await keeper.load(workOn(STUDY))).toBeNull();
  expect(await historyKeeper('b', 'study', STUDY_HISTORY).load(workOn(STUDY))).toBeNull();
  stored.set('study/a', { past: [1], present: null, future: [], at: 0 });
  expect(await keeper.load(workOn(STUDY))).toBeNull();
  stored.set('study/a', {
    past: [{ document: { schritt: 9 }, keys: [] }],
    present: STUDY_HISTORY.write(workOn(STUDY)),
    future: [],
    at: 0,
  });
  expect((await keeper.load(workOn(STUDY)))?.past).toEqual([]);
});

test('fifty values before the present one are kept, of the thirty documents that were edited last', async () => {
  const first = workOn(STUDY);
  let history = startHistory(first);
  for (let i = 0; i < 80; i += 1) history = change(history, { ...first, title: `${i}` }, `about ${i}`, i);
  const clock = jest.spyOn(Date, 'now');
  for (let i = 0; i < 33; i += 1) {
    clock.mockReturnValue(1_000 + i);
    await historyKeeper(`${i}`, 'study', STUDY_HISTORY).keep(history);
  }
  clock.mockRestore();
  expect([...stored.keys()]).toEqual(Array.from({ length: 30 }, (_, i) => `study/${i + 3}`));
  const kept = await historyKeeper('32', 'study', STUDY_HISTORY).load(history.present);
  expect(kept?.past.map(({ title }) => title)).toEqual(Array.from({ length: 50 }, (_, i) => `${i + 29}`));
});
