import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { StudyDocument } from './document.ts';
import { openStudy } from './open-study.ts';
import { readDocument, readDocumentText } from './read-document.ts';
import { runKey } from './run-key.ts';
import { documentSchema } from './schema.ts';

const STUDY: StudyDocument = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -level\nlevel(0) = 4\n0 <= t <= 6" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)', struck: [1], window: { from: 0, to: 2 } }],
  ladder: { first: 'pi/8', factor: 2, rungs: 3 },
  lastStep: 'shorten',
  error: { at: { t: 1 }, of: 'level' },
  start: 'exact',
  precision: 'single',
  wished: 0.01,
};

function faults(value: unknown): readonly string[] {
  const reading = readDocument(value);
  return reading.ok ? [] : reading.errors.map(({ place, message }) => `${place}: ${message}`);
}

test('a whole study is read as it is', () => {
  const reading = readDocument(JSON.parse(JSON.stringify(STUDY)));
  expect(reading.ok && reading.document).toEqual(STUDY);
});

test.each<[string, unknown]>([
  ['schritt: is missing; a file of this format begins with "schritt": 1', {}],
  ['schritt: must be 1, the version of the format', { schritt: 2, kind: 'study' }],
  ['kind: must be one of "study", "problem", "method"', { schritt: 1, kind: 'poem' }],
  ['schritt: is missing; a file of this format begins with "schritt": 1', null],
  ['title: has 201 characters; at most 200 are allowed', { ...STUDY, title: 'x'.repeat(201) }],
  ['problem: is missing', { ...STUDY, problem: undefined }],
  ['problem: must be an object', { ...STUDY, problem: null }],
  ['problem: must be an object', { ...STUDY, problem: [STUDY.problem] }],
  ['methods: is missing', { ...STUDY, methods: undefined }],
  ['methods: entry 1 must be an object', { ...STUDY, methods: [STUDY.methods[0], null] }],
  ['methods: entry 0 must be an object', { ...STUDY, methods: [[STUDY.methods[0]]] }],
  ['methods: must be a list', { ...STUDY, methods: { 0: STUDY.methods[0] } }],
  ['ladder: is missing', { ...STUDY, ladder: undefined }],
  ['ladder: must be an object with sizes', { ...STUDY, ladder: [1] }],
  ['note: must be a string', { ...STUDY, note: null }],
  ['error: must be an object', { ...STUDY, error: 3 }],
  ['methods[0].window: must be an object', { ...STUDY, methods: [{ ...STUDY.methods[0], window: null }] }],
  ['problem.text: is missing', { ...STUDY, problem: { title: 'A' } }],
  ['methods[0].text: must be a string', { ...STUDY, methods: [{ title: 'A', text: 3 }] }],
  [
    'methods: has 25 entries; at most 24 are allowed',
    { ...STUDY, methods: Array.from({ length: 25 }, () => STUDY.methods[0]) },
  ],
  [
    'methods[0].window.to: must not be below from, 3',
    { ...STUDY, methods: [{ ...STUDY.methods[0], window: { from: 3, to: 1 } }] },
  ],
  [
    'methods[0].struck: entry 0 must be the index of a step size, from 0 to 39',
    { ...STUDY, methods: [{ ...STUDY.methods[0], struck: [40] }] },
  ],
  [
    'ladder.steps: entry 1 "0*pi" must be a positive number, and it is 0',
    { ...STUDY, ladder: { steps: [0.1, '0*pi'] } },
  ],
  [
    'ladder.steps: entry 0 a step size may contain only numbers, pi and e',
    { ...STUDY, ladder: { steps: ['k/2'] } },
  ],
  [
    'ladder.steps: entry 0 must be a positive number or an expression such as "pi/8"',
    { ...STUDY, ladder: { steps: [-1] } },
  ],
  ['ladder.counts: entry 0 must be a positive integer', { ...STUDY, ladder: { counts: [1.5] } }],
  ['ladder.rungs: must be an integer from 1 to 40', { ...STUDY, ladder: { first: 1, factor: 2, rungs: 41 } }],
  ['ladder.factor: must be a number above 1', { ...STUDY, ladder: { first: 1, factor: 1, rungs: 4 } }],
  ['ladder.first: is missing', { ...STUDY, ladder: {} }],
  ['lastStep: must be one of "fit", "shorten", "overrun"', { ...STUDY, lastStep: 'cut' }],
  ['error.at: must be one of "end", "max", "rms", "local"', { ...STUDY, error: { at: 'middle' } }],
  [
    'error.at: must be one of "end", "max", "rms", "local", or an object with a number t',
    { ...STUDY, error: { at: { t: '1' } } },
  ],
  ['wished: must be a positive number', { ...STUDY, wished: 0 }],
  ['colour: is not a field of this format', { ...STUDY, colour: 'red' }],
])('%s', (fault, value) => {
  expect(faults(value).join('\n')).toContain(fault);
});

test.each([
  [{ steps: [0.5, 'pi/8'] }, { sizes: [0.5, 'pi/8'] }],
  [{ intervals: [4, 8] }, { counts: [4, 8] }],
])('a ladder by its older names, %j, is read as before', (old, present) => {
  const reading = readDocument({ ...STUDY, ladder: old });
  expect(reading.ok && reading.document).toMatchObject({ ladder: present });
  // so is one that a server stored before the names were changed
  const stored: StudyDocument = Object.assign(Object.create(null), { ...STUDY, ladder: old });
  const opened = openStudy(stored);
  expect(opened.ok && opened.study.ladder).toEqual(present);
  expect(runKey(stored, 0)).toBe(runKey({ ...STUDY, ladder: present }, 0));
});

test('all faults of a file are reported at once', () => {
  expect(faults({ ...STUDY, title: 1, lastStep: 2, wished: -1 })).toHaveLength(3);
});

test('a text that is no JSON is reported with line and column', () => {
  const reading = readDocumentText('{\n  "schritt": 1,\n  kind: "study"\n}');
  expect(reading.ok ? '' : reading.errors[0]?.place).toBe('line 3, column 3');
  expect(reading.ok ? '' : reading.errors[0]?.message).toContain('this is not JSON');
});

test.each([
  ['{"schritt": 1 "kind": 2}', 'line 1, column 15', 'a comma is expected here'],
  ['{"schritt": 1,\n}', 'line 2, column 1', 'a name in double quotes is expected here'],
  ['{\n"title": Sluice}', 'line 2, column 10', 'this is no value; texts and names are in double quotes'],
  ['{"title": "Sluice\n"}', 'line 1, column 11', 'this text has no closing quote in its line'],
  ['{"title" 3}', 'line 1, column 10', 'a colon is expected here'],
  ['{"steps": [1, 2}', 'line 1, column 16', 'a comma is expected here'],
  ['{"kind": "study"', 'line 1, column 17', 'a closing brace is expected here'],
  ['// a study\n{}', 'line 1, column 1', 'JSON has no comments'],
  ['{}\n{}', 'line 2, column 1', 'the file should end here'],
  ['{"title": "C:\\new\\q"}', 'line 1, column 11', 'there is no such escape'],
  ['', 'line 1, column 1', 'a value is expected here'],
])('%j is no JSON: %s, %s', (text, place, message) => {
  const reading = readDocumentText(text);
  expect(reading.ok ? null : reading.errors).toEqual([
    { place, message: expect.stringContaining(`this is not JSON: ${message}`) },
  ]);
});

test('a byte order mark before a file is passed over', () => {
  expect(readDocumentText(`\ufeff${JSON.stringify(STUDY)}`).ok).toBe(true);
});

test('the published schema is the one of the definition that reads', () => {
  const published: unknown = JSON.parse(
    readFileSync(join(__dirname, '../../../docs/schritt.schema.json'), 'utf8'),
  );
  expect(published).toEqual(documentSchema());
});

test('texts with errors are reported with their place in the study, all of them', () => {
  const opened = openStudy({
    ...STUDY,
    problem: { title: 'Bad', text: "y' = " },
    methods: [STUDY.methods[0]!, { title: 'Worse', text: 'y = 1' }],
  });
  expect(opened.ok ? [] : opened.errors.map(({ text, title }) => [text, title])).toEqual([
    ['problem', 'Bad'],
    [{ method: 1 }, 'Worse'],
  ]);
});

test('a method starts with one of the study before one of the library', () => {
  const opened = openStudy({ ...STUDY, methods: [{ title: 'Heun', text: 'y[n+1] = y + 2*h*f(t, y)' }] });
  if (!opened.ok) throw new Error('a text of the test');
  expect(opened.study.start.find('Heun')?.text).toBe('y[n+1] = y + 2*h*f(t, y)');
  expect(opened.study.start.find('RK4')?.statements).toHaveLength(5);
  expect(opened.study.start.find('Nobody')).toBeNull();
});

test('counts begin at one step', () => {
  expect(faults({ ...STUDY, ladder: { counts: [1, 2] } })).toEqual([]);
  expect(faults({ ...STUDY, ladder: { counts: [0] } })).toEqual([
    'ladder.counts: entry 0 must be a positive integer',
  ]);
});
