import type { StudyDocument } from '@schritt/core/document';
import { differingParts, mergedDocument, mergeFault } from './document-parts.ts';

const EULER = { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' };
const HEUN = { title: 'Heun', text: 'k1 = f(t, y)\ny[n+1] = y + h*k1' };
const RK4 = { title: 'RK4', text: 'y[n+1] = y' };

const BASE: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Frost line',
  problem: { title: 'Soil', text: "y' = -y" },
  methods: [EULER, HEUN],
  ladder: { sizes: [0.4, 0.2, 0.1] },
  note: 'as it was',
};

const keysOf = (mine: StudyDocument, theirs: StudyDocument): readonly string[] =>
  differingParts('study', mine, theirs, BASE).map(({ key, changedIn }) => `${key}: ${changedIn}`);

test('equal copies differ in nothing; each part names the copy that changed it, and this page where both did', () => {
  expect(keysOf(BASE, { ...BASE })).toEqual([]);
  const mine: StudyDocument = { ...BASE, title: 'Mine', methods: [EULER, { ...HEUN, text: 'mine' }] };
  const { note: _note, ...without } = BASE;
  const theirs: StudyDocument = {
    ...without,
    title: 'Theirs',
    ladder: { sizes: [0.4, 0.2] },
    precision: 'single',
    error: { at: { t: 0.5 } },
  };
  expect(keysOf(mine, theirs)).toEqual([
    'title: mine',
    'method 1 Heun: mine',
    'ladder: theirs',
    'note: theirs',
    'error: theirs',
    'precision: theirs',
  ]);
  const parts = differingParts('study', mine, theirs, BASE);
  expect(parts.find(({ key }) => key === 'note')).toMatchObject({ mine: 'as it was', theirs: null });
  expect(parts.find(({ key }) => key === 'error')?.theirs).toContain('at t = 0.5');
});

test('each part comes from the copy that is chosen for it, and nothing else changes', () => {
  const mine: StudyDocument = { ...BASE, title: 'Mine', methods: [EULER, { ...HEUN, text: 'mine' }] };
  const theirs: StudyDocument = { ...BASE, title: 'Theirs', note: 'theirs', methods: [HEUN, EULER, RK4] };
  expect(mergedDocument('study', mine, theirs, new Map())).toEqual(mine);
  const all = differingParts('study', mine, theirs, BASE).map(({ key }) => [key, 'theirs'] as const);
  expect(mergedDocument('study', mine, theirs, new Map(all))).toEqual(theirs);
  expect(all.map(([key]) => key)).toEqual(['title', 'method 1 Heun', 'methods', 'note', 'method 1 RK4']);
  const some = mergedDocument(
    'study',
    mine,
    theirs,
    new Map([
      ['note', 'theirs'],
      ['method 1 RK4', 'theirs'],
    ]),
  );
  expect(some).toEqual({ ...mine, note: 'theirs', methods: [...mine.methods, RK4] });
});

test('a method that one copy has removed can be kept or removed, also among methods of one title', () => {
  const twice: StudyDocument = { ...BASE, methods: [EULER, { ...EULER, text: 'second' }] };
  const once: StudyDocument = { ...BASE, methods: [EULER] };
  const [part, ...others] = differingParts('study', twice, once, twice);
  expect([part, others.length]).toEqual([
    { key: 'method 2 Euler', label: 'Euler', mine: 'second', theirs: null, changedIn: 'theirs' },
    0,
  ]);
  const choices = new Map([['method 2 Euler', 'theirs' as const]]);
  expect(mergedDocument('study', twice, once, choices).methods).toEqual([EULER]);
  expect(mergedDocument('study', once, twice, choices).methods).toEqual(twice.methods);
});

test('what is excluded and the fit range go with the step sizes that they count', () => {
  const mine: StudyDocument = { ...BASE, methods: [{ ...EULER, struck: [2] }, HEUN] };
  const theirs: StudyDocument = {
    ...BASE,
    ladder: { counts: [4, 8] },
    methods: [
      { ...EULER, text: 'theirs' },
      { ...HEUN, window: { from: 0, to: 1 } },
    ],
  };
  expect(keysOf(mine, theirs)).toEqual(['method 1 Euler: theirs', 'ladder: mine']);
  const [part] = differingParts('study', mine, theirs, BASE).filter(({ key }) => key === 'ladder');
  expect(part?.mine).toBe('h: 0.4, 0.2, 0.1\nEuler: excluded 3');
  expect(part?.theirs).toBe('N: 4, 8\nHeun: fit range 1 to 2');
  const text = mergedDocument('study', mine, theirs, new Map([['method 1 Euler', 'theirs']]));
  expect(text.methods).toEqual([{ ...EULER, text: 'theirs', struck: [2] }, HEUN]);
  const sizes = mergedDocument('study', mine, theirs, new Map([['ladder', 'theirs']]));
  expect(sizes.methods).toEqual([EULER, { ...HEUN, window: { from: 0, to: 1 } }]);
});

test('choices that make more methods than a study can have are no document', () => {
  const many = (title: string): StudyDocument => ({
    ...BASE,
    methods: Array.from({ length: 20 }, (_, i) => ({ ...EULER, title: `${title} ${i}` })),
  });
  const [mine, theirs] = [many('a'), many('b')];
  const choices = new Map(
    theirs.methods.map(({ title }) => [`method 1 ${title}`, 'theirs' as const] as const),
  );
  expect(mergeFault(mergedDocument('study', mine, theirs, choices))).toBe(
    'A study has at most 24 methods; these choices make 40.',
  );
  expect(mergeFault(mine)).toBeNull();
});

test('a method of the library has a title and a text', () => {
  const of = (title: string, text: string) => ({ schritt: 1, kind: 'method', title, text }) as const;
  const [mine, theirs] = [of('Heun', 'a'), of('Heun 2', 'b')];
  expect(differingParts('method', mine, theirs, of('Heun', 'b')).map(({ key }) => key)).toEqual([
    'title',
    'text',
  ]);
  expect(mergedDocument('method', mine, theirs, new Map([['title', 'theirs']]))).toEqual(of('Heun 2', 'a'));
});
