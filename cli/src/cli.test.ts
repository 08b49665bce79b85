import { readdirSync, readFileSync, writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readDocumentText } from '@schritt/core/format';
import { Refusal } from '@schritt/core/text';
import { Ajv } from 'ajv';
import { checkCommand } from './commands/check.ts';
import { exportCommand } from './commands/export.ts';
import { runCommand } from './commands/run.ts';
import { studyCommand } from './commands/study.ts';
import { Failure } from './failure.ts';

const ROOT = join(__dirname, '../..');
const demo = (name: string): string => join(ROOT, 'demo', `${name}.schritt.json`);

function file(value: unknown): string {
  const path = join(mkdtempSync(join(tmpdir(), 'schritt-')), 'probe.schritt.json');
  writeFileSync(path, typeof value === 'string' ? value : JSON.stringify(value));
  return path;
}

function failure(work: () => unknown): readonly string[] {
  try {
    work();
  } catch (thrown) {
    if (thrown instanceof Refusal) return [thrown.message];
    if (thrown instanceof Failure) return thrown.lines.map((line) => line.replace(/^.*?schritt\.json: /, ''));
    throw thrown;
  }
  return [];
}

test('study prints full doubles in the form of the format', () => {
  const report = JSON.parse(studyCommand(demo('sluice'), 'json'));
  expect(Object.keys(report.methods[0].rungs[0])).toEqual(
    expect.arrayContaining(['h', 'steps', 'divides', 't', 'values', 'error', 'ratio', 'order', 'stopped']),
  );
  // Euler, four steps of 2, written out
  let level = 4;
  for (let n = 0; n < 4; n += 1) level = level + 2 * (-0.35 * Math.sqrt(level));
  expect(report.methods[0].rungs[0]).toMatchObject({
    h: 2,
    steps: 4,
    divides: true,
    t: 8,
    values: { level },
    stopped: null,
  });
  const csv = studyCommand(demo('sluice'), 'csv').split('\r\n');
  expect(csv[1]!.startsWith(`Euler,2,4,true,8,${level},${report.methods[0].rungs[0].error},,,,`)).toBe(true);
});

test('check: all ten problems of the valley, each exact solution put into its equation', () => {
  const outcomes = readdirSync(join(ROOT, 'demo')).map((name) => {
    const text = checkCommand(join(ROOT, 'demo', name));
    const residual = Number(/largest residual ([\d.e-]+)\) and the initial values/.exec(text)?.[1] ?? NaN);
    return [
      name.replace('.schritt.json', ''),
      text.includes('no exact solution is given') ? 'none' : residual < 1e-13,
    ];
  });
  const problems =
    'avalanche battery frost-line gondola marmots satellite sluice soil thermistor thermostat'.split(' ');
  const expected = new Map<string, unknown>(
    problems.map((name) => [name, name === 'marmots' ? 'none' : true]),
  );
  for (const [name, outcome] of outcomes)
    if (expected.has(String(name))) expect([name, outcome]).toEqual([name, expected.get(String(name))]);
  expect(outcomes.map(([name]) => name)).toEqual(expect.arrayContaining(problems));
});

test('run prints rows with stages, a window of them, and the ends of a long run', () => {
  const rows = (more: object): { n: number; k2: number; level: number }[] =>
    JSON.parse(runCommand(demo('sluice'), { method: 'Heun', format: 'json', ...more }));
  const all = rows({ h: '0.5' });
  expect(all).toHaveLength(17);
  expect(all[0]!.k2).toBe(-0.35 * Math.sqrt(4 + 0.5 * (-0.35 * Math.sqrt(4))));
  expect(rows({ h: '1/2', from: '9', count: '2' })).toEqual(all.slice(9, 11));
  expect(rows({ steps: '20000' }).map((row) => row.n)).toEqual([
    0, 1, 2, 3, 4, 19996, 19997, 19998, 19999, 20000,
  ]);
});

test('every error of a bad file comes with its place', () => {
  const study = {
    schritt: 1,
    kind: 'study',
    title: 'x',
    problem: { title: 'P', text: "y' = ty\ny(0) = 1\n0 <= t <= 1" },
  };
  expect(failure(() => studyCommand(file('{"schritt": 1,\n x}'), 'json'))).toEqual([
    expect.stringMatching(/^line 2, column 2: this is not JSON/),
  ]);
  expect(
    failure(() =>
      studyCommand(file({ ...study, methods: [{ title: 'M' }], ladder: { sizes: [0.1], h: 2 } }), 'json'),
    ),
  ).toEqual(['methods[0].text: is missing', expect.stringMatching(/^ladder\.h: is not a field/)]);
  const texts = file({
    ...study,
    methods: [{ title: 'M', text: 'y[n+1] = y + k' }],
    ladder: { sizes: [0.1] },
  });
  expect(failure(() => checkCommand(texts))).toEqual([
    'P: line 1, column 6: ty is not known; to multiply write t*y',
    'M: line 1, column 14: k is not known; define it on a line above, such as k = f(t, y)',
  ]);
  expect(failure(() => runCommand(demo('sluice'), { method: 'Nobody', h: '1', format: 'csv' }))).toHaveLength(
    1,
  );
  expect(failure(() => runCommand(demo('sluice'), { method: 'Heun', h: '-1', format: 'csv' }))).toEqual([
    'the step size must be a positive number, not -1',
  ]);
});

test('the published schema and the reader of the format agree', () => {
  const validate = new Ajv({ strict: false }).compile(
    JSON.parse(readFileSync(join(ROOT, 'docs/schritt.schema.json'), 'utf8')),
  );
  const good = readdirSync(join(ROOT, 'demo')).map((name) => readFileSync(join(ROOT, 'demo', name), 'utf8'));
  const base = JSON.parse(good[0]!);
  const bad = [
    { ...base, schritt: 2 },
    { ...base, colour: 'red' },
    { ...base, ladder: { first: 1, factor: 1, rungs: 3 } },
    { ...base, ladder: { counts: [1.5] } },
    { ...base, error: { at: 'middle' } },
    { ...base, lastStep: 'guess' },
    { ...base, problem: { title: 'x' } },
  ].map((value) => JSON.stringify(value));
  for (const text of good)
    expect([validate(JSON.parse(text)), readDocumentText(text).ok]).toEqual([true, true]);
  for (const text of bad)
    expect([validate(JSON.parse(text)), readDocumentText(text).ok]).toEqual([false, false]);
});

test('a file in another encoding than UTF-8 is refused, and a byte order mark is passed over', () => {
  const path = file('');
  writeFileSync(path, Buffer.from('{"schritt": 1, "kind": "method", "title": "H\xf6he"}', 'latin1'));
  expect(failure(() => checkCommand(path))).toEqual(['is not UTF-8; save it in this encoding']);
  writeFileSync(path, `\ufeff${readFileSync(demo('sluice'), 'utf8')}`);
  expect(checkCommand(path)).toContain('level');
});

test('an output that cannot be written is reported in a line', async () => {
  const parts = exportCommand(demo('sluice'), { what: 'rungs', out: '/nowhere/table.csv' });
  await expect(parts.next()).rejects.toThrow(/^\/nowhere\/table\.csv: cannot be written \(/);
});
