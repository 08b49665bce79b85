import { documentOf, withFinerRung, withoutRung, workOn } from './working-study.ts';

test.each([
  [
    { first: 2, factor: 2, rungs: 3 },
    { first: 2, factor: 2, rungs: 4 },
  ],
  [{ steps: [0.3, 0.1] }, { steps: [0.3, 0.1, 0.0333333333333333] }],
  [{ steps: [0.5] }, { steps: [0.5, 0.25] }],
  [{ intervals: [10, 30] }, { intervals: [10, 30, 90] }],
  [{ intervals: [12] }, { intervals: [12, 24] }],
])('one rung finer: case %#', (ladder, finer) => {
  expect(withFinerRung(ladder)).toEqual(finer);
});

test.each([
  [{ first: 2, factor: 2, rungs: 3 }, 2, { first: 2, factor: 2, rungs: 2 }],
  [{ first: 2, factor: 2, rungs: 3 }, 0, { steps: [1, 0.5] }],
  [{ first: 'pi/4', factor: 3, rungs: 3 }, 1, { steps: ['pi/4', '(pi/4)/9'] }],
  [{ intervals: [10, 20, 40] }, 1, { intervals: [10, 40] }],
])('a rung is taken out: case %#', (ladder, index, rest) => {
  expect(withoutRung(ladder, index)).toEqual(rest);
});

test('keys belong to the page and never to the document', () => {
  const document = {
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: { title: 'Sluice', text: "level' = -level" },
    methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
    ladder: { steps: [0.1] },
    start: 'exact',
  } as const;
  const work = workOn(document);
  expect(new Set(work.methods.map((m) => m.key)).size).toBe(1);
  expect(documentOf(work)).toEqual(document);
});
