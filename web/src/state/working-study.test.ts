import {
  documentOf,
  movedWindow,
  strike,
  withFinerRung,
  withLadder,
  withoutRung,
  withoutRungAt,
  withRungOf,
  workOn,
} from './working-study.ts';

test.each([
  [
    { first: 2, factor: 2, rungs: 3 },
    { first: 2, factor: 2, rungs: 4 },
  ],
  [{ sizes: [0.3, 0.1] }, { sizes: [0.3, 0.1, 0.0333333333333333] }],
  [{ sizes: [0.5] }, { sizes: [0.5, 0.25] }],
  [{ counts: [10, 30] }, { counts: [10, 30, 90] }],
  [{ counts: [12] }, { counts: [12, 24] }],
])('one rung finer: case %#', (ladder, finer) => {
  expect(withFinerRung(ladder)).toEqual(finer);
});

test.each([
  [{ first: 2, factor: 2, rungs: 3 }, 2, { first: 2, factor: 2, rungs: 2 }],
  [{ first: 2, factor: 2, rungs: 3 }, 0, { sizes: [1, 0.5] }],
  [{ first: 'pi/4', factor: 3, rungs: 3 }, 1, { sizes: ['pi/4', '(pi/4)/9'] }],
  [{ counts: [10, 20, 40] }, 1, { counts: [10, 40] }],
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
    ladder: { sizes: [0.1] },
    start: 'exact',
  } as const;
  const work = workOn(document);
  expect(new Set(work.methods.map((m) => m.key)).size).toBe(1);
  expect(documentOf(work)).toEqual(document);
});

test('strikes and windows stay with their rungs when one is taken out, and go with rungs that go', () => {
  const study = workOn({
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: { title: 'Sluice', text: '' },
    methods: [{ title: 'Euler', text: '', struck: [0, 2, 4], window: { from: 1, to: 4 } }],
    ladder: { sizes: [0.5, 0.4, 0.3, 0.2, 0.1] },
  });
  const decided = (of: typeof study) => {
    const { struck, window } = documentOf(of).methods[0]!;
    return { struck, window };
  };
  expect(decided(withoutRungAt(study, 2))).toEqual({ struck: [0, 3], window: { from: 1, to: 3 } });
  expect(decided(withoutRungAt(study, 0))).toEqual({ struck: [1, 3], window: { from: 0, to: 3 } });
  expect(decided(withLadder(study, { sizes: [0.5, 0.4, 0.3] }))).toEqual({ struck: [0, 2] });
  expect(decided(withLadder(study, { sizes: [0.5, 0.4, 0.3, 0.2] }))).toEqual({ struck: [0, 2] });
  expect(decided(withLadder(study, { counts: [1, 2, 3, 4, 5, 6] })).window).toEqual({ from: 1, to: 4 });
  expect(decided(withRungOf(study, 4, 1))).toEqual({ struck: [0, 2, 5], window: { from: 1, to: 5 } });
  expect(withRungOf(study, 4, 1).ladder).toEqual({ sizes: [0.5, 0.4, 0.3, 0.25, 0.2, 0.1] });
  const again = strike(strike(study.methods[0]!, 3), 0);
  expect(again.struck).toEqual([2, 3, 4]);
});

test.each([
  [{ from: 1, to: 4 }, 0, { from: 0, to: 4 }],
  [{ from: 1, to: 4 }, 6, { from: 1, to: 6 }],
  [{ from: 1, to: 4 }, 2, { from: 2, to: 4 }],
  [{ from: 1, to: 4 }, 3, { from: 1, to: 3 }],
  [{ from: 1, to: 4 }, 1, { from: 2, to: 4 }],
  [{ from: 1, to: 4 }, 4, { from: 1, to: 3 }],
  [{ from: 1, to: 2 }, 2, { from: 1, to: 2 }],
])('the nearer end of a window is moved: case %#', (window, rung, moved) => {
  expect(movedWindow(window, rung)).toEqual(moved);
});

const LADDERED = workOn({
  schritt: 1,
  kind: 'study',
  title: 'Probe',
  problem: { title: 'Probe', text: '' },
  methods: [{ title: 'Euler', text: '', struck: [0, 1, 2], window: { from: 1, to: 2 } }],
  ladder: { sizes: [0.5, 0.25, 0.125] },
});

test.each<[number, readonly number[], { from: number; to: number }]>([
  // between the first and the second: what is at the place of the new one moves, too
  [3, [0, 2, 3], { from: 2, to: 3 }],
  // before all of them
  [1, [1, 2, 3], { from: 2, to: 3 }],
  // behind all of them
  [10, [0, 1, 2], { from: 1, to: 2 }],
])('with a rung of %d steps put in, strikes and windows stay with their rungs', (steps, struck, window) => {
  expect(withRungOf(LADDERED, steps, 1).methods[0]).toMatchObject({ struck, window });
});

test.each<[number, readonly number[], { from: number; to: number }]>([
  [0, [0, 1], { from: 0, to: 1 }],
  [1, [0, 1], { from: 1, to: 1 }],
  [2, [0, 1], { from: 1, to: 1 }],
])('with rung %d taken out, too', (rung, struck, window) => {
  expect(withoutRungAt(LADDERED, rung).methods[0]).toMatchObject({ struck, window });
});
