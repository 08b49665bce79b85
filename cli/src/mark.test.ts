import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { markCommand } from './commands/mark.ts';
import { Failure } from './failure.ts';

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-mark-'));
});
afterAll(() => rmSync(folder, { recursive: true }));

const STUDY = join(__dirname, '../../demo/sluice.schritt.json');

function file(name: string, text: string): string {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
}

/** Euler for level' = -0.35 sqrt(level) from 4, with h = 0.5; a student may have forgotten a factor. */
function euler(factor: number): readonly string[] {
  const rows = [4];
  for (let n = 0; n < 5; n += 1) rows.push(rows[n]! - 0.5 * factor * Math.sqrt(rows[n]!));
  return rows.map((level) => level.toFixed(4));
}

const OPTIONS = { method: 'Euler', h: '0.5', format: 'json' } as const;

test('a column is marked as JSON and in words', async () => {
  const right = file('right.csv', euler(0.35).join('\n'));
  expect(JSON.parse(await markCommand(STUDY, right, OPTIONS))).toMatchObject({
    firstWrong: null,
    mistakes: [],
  });
  const wrong = file(
    'wrong.csv',
    ['n;level', ...euler(1).map((level, n) => `${n};${level.replace('.', ',')}`)].join('\n'),
  );
  const json: unknown = JSON.parse(await markCommand(STUDY, wrong, OPTIONS));
  expect(json).toMatchObject({
    firstWrong: 1,
    mistakes: [
      {
        kind: 'missing factor',
        line: 3,
        given: "level' = -sqrt(level)",
        right: "level' = -k*sqrt(level)",
      },
    ],
  });
  expect(json).toHaveProperty('rows.1', { n: 1, given: 3, right: 3.65, fromOwn: 3.65, agrees: false });
  const words = await markCommand(STUDY, wrong, { ...OPTIONS, format: 'table' });
  expect(words).toContain('Row 1 is 3 and should be 3.65.');
  expect(words).toContain('This mistake gives exactly these numbers:');
});

test('a class has a row or an object for each student', async () => {
  const [right, wrong] = [euler(0.35), euler(1)];
  const lines = right.map((level, n) => `${n},${level},${wrong[n]}`);
  const path = file('class.csv', ['n,Anna,Ben', ...lines].join('\n'));
  const json: unknown = JSON.parse(await markCommand(STUDY, path, { ...OPTIONS, eachColumn: true }));
  expect(json).toMatchObject([
    { student: 'Anna', firstWrong: null },
    { student: 'Ben', firstWrong: 1 },
  ]);
  const table = await markCommand(STUDY, path, { ...OPTIONS, eachColumn: true, format: 'csv' });
  expect(table.split(/\r?\n/)[1]).toBe('Anna,6 of 6,,right,');
});

test('what cannot be marked is refused with the reason', async () => {
  const empty = file('empty.csv', 'n;comment\n0;good\n');
  await expect(markCommand(STUDY, empty, OPTIONS)).rejects.toThrow('there is no column with values');
  await expect(markCommand(STUDY, empty, { ...OPTIONS, format: 'csv' })).rejects.toThrow(Failure);
  await expect(markCommand(STUDY, empty, { method: 'Euler', format: 'json' })).rejects.toThrow(
    /give h or steps|either/,
  );
  await expect(markCommand(STUDY, file('no.xlsx', 'x'), OPTIONS)).rejects.toThrow(
    'this is not a file of Excel',
  );
});
