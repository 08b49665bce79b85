import type { StudyDocument } from './document.ts';
import { NUMBERS_VERSION, runKey, studyKey } from './run-key.ts';

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 6" },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'AB2', text: 'start with Euler\ny[n+1] = y + h*(3/2*f[n] - 1/2*f[n-1])' },
    { title: 'AB2 by Heun', text: 'start with Heun\ny[n+1] = y + h*(3/2*f[n] - 1/2*f[n-1])' },
  ],
  ladder: { counts: [12, 24] },
};

test('a key carries the version of the numbers', () => {
  expect(JSON.parse(runKey(STUDY, 0))[0]).toBe(NUMBERS_VERSION);
});

test.each<[string, Partial<StudyDocument>]>([
  ['the title', { title: 'Sluice again' }],
  ['the title of the problem', { problem: { ...STUDY.problem, title: 'Lake' } }],
  ['what a file leaves out', { lastStep: 'fit', precision: 'double', error: { at: 'end' } }],
  ['a wished error', { wished: 0.1 }],
])('%s changes no run', (_, change) => {
  expect(studyKey({ ...STUDY, ...change })).toBe(studyKey(STUDY));
});

test.each<[string, Partial<StudyDocument>]>([
  ['the text of the problem', { problem: { ...STUDY.problem, text: "y' = -y\ny(0) = 1\n0 <= t <= 1" } }],
  ['the ladder', { ladder: { counts: [12, 25] } }],
  ['the last step', { lastStep: 'shorten' }],
  ['where the error is taken', { error: { at: 'max' } }],
  ['the precision', { precision: 'single' }],
  ['exact first steps', { start: 'exact' }],
])('%s changes every run', (_, change) => {
  for (const method of [0, 1, 2])
    expect(runKey({ ...STUDY, ...change }, method)).not.toBe(runKey(STUDY, method));
});

test('strikes and windows change no run; the text of a starter changes the runs that it starts', () => {
  const [euler, ab2, heun] = STUDY.methods;
  const struck = { ...STUDY, methods: [{ ...euler!, struck: [0], window: { from: 0, to: 1 } }, ab2!, heun!] };
  expect(studyKey(struck)).toBe(studyKey(STUDY));
  const other = { ...STUDY, methods: [{ title: 'Euler', text: 'y[n+1] = y + 1.1*h*f(t, y)' }, ab2!, heun!] };
  expect(runKey(other, 1)).not.toBe(runKey(STUDY, 1));
  expect(runKey(other, 2)).toBe(runKey(STUDY, 2));
});

test('methods that start with one another have keys, too', () => {
  const circle = {
    ...STUDY,
    methods: [
      { title: 'A', text: 'start with B\ny[n+1] = y[n-1] + 2*h*f[n]' },
      { title: 'B', text: 'start with A\ny[n+1] = y[n-1] + 2*h*f[n]' },
    ],
  };
  expect(runKey(circle, 0)).toContain('start with A');
});
