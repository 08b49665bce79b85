import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strToU8, zipSync } from 'fflate';
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
  expect(words).toContain('Row 1 is 3.0000 and should be 3.6500.');
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
  expect(table.split(/\r?\n/)).toEqual([
    'student,marks,of,rows right,steps right,rows asked,result,first wrong row,given,right,likely mistake',
    'Anna,3,10,5,5,16,right,,,,',
    'Ben,0,10,0,0,16,wrong,1,3,3.65,"In line 3 of the problem, the first factor is missing: level\' = -sqrt(level)."',
    '',
  ]);
});

test('what cannot be marked is refused with the reason', async () => {
  const empty = file('empty.csv', 'n;comment\n0;good\n');
  await expect(markCommand(STUDY, empty, OPTIONS)).rejects.toThrow('there is no column with values');
  await expect(markCommand(STUDY, empty, { ...OPTIONS, format: 'csv' })).rejects.toThrow(Failure);
  await expect(markCommand(STUDY, file('one.csv', '0;1'), { format: 'json' })).rejects.toThrow(
    'the rows agree with no run of this study',
  );
  await expect(markCommand(STUDY, empty, { ...OPTIONS, roundTo: '0' })).rejects.toThrow('above 0');
  await expect(markCommand(STUDY, join(folder, 'none.csv'), OPTIONS)).rejects.toThrow('cannot be read');
  await expect(markCommand(STUDY, file('no.xlsx', 'x'), OPTIONS)).rejects.toThrow(
    'this is not a file of Excel',
  );
});

test('the run is found, a folder and an archive are classes, and feedback is a page', async () => {
  const class_ = join(folder, 'class');
  mkdirSync(class_);
  const files = { 'Anna.csv': euler(0.35).join('\n'), 'Ben.txt': euler(1).join('\n') };
  for (const [name, text] of Object.entries(files)) writeFileSync(join(class_, name), text);
  const zip = join(folder, 'class.zip');
  writeFileSync(
    zip,
    zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)]))),
  );
  const found = jest.spyOn(process.stderr, 'write').mockImplementation(() => true);
  for (const path of [class_, zip]) {
    const json: unknown = JSON.parse(await markCommand(STUDY, path, { steps: '16', format: 'json' }));
    expect(json).toMatchObject([
      { student: 'Anna', firstWrong: null, marks: { marks: 3, of: 10, rowsRight: 5 } },
      { student: 'Ben', firstWrong: 1 },
    ]);
  }
  expect(found.mock.calls[0]?.[0]).toContain('found --method "Euler" --h 0.5: 5 of 10 rows agree');
  found.mockRestore();
  const page = await markCommand(STUDY, class_, { ...OPTIONS, format: 'html' });
  expect(page.match(/<section class="sheet">/g)).toHaveLength(2);
  expect(page).toContain('This mistake gives exactly your numbers');
});

test('with variants each student is compared with the key of the own sheet', async () => {
  const variants = 'k in 0.35, 1';
  const options = { ...OPTIONS, variants, sheets: '2', seed: '1' };
  // which of the two comes first is chance; the rows tell
  const lines = euler(0.35).map((level, n) => `${n},${level},${euler(1)[n]}`);
  const path = file('sheets.csv', ['n,Anna,Ben', ...lines].join('\n'));
  const json: unknown = JSON.parse(await markCommand(STUDY, path, { ...options, eachColumn: true }));
  expect(json).toMatchObject([{ firstWrong: null }, { firstWrong: null }]);
  const named = file('named.csv', ['n,Anna (sheet 1),Ben (sheet 3)', ...lines].join('\n'));
  const other: unknown = JSON.parse(await markCommand(STUDY, named, { ...options, eachColumn: true }));
  expect(other).toMatchObject([{ sheet: 1 }, { sheet: 3, error: 'there is no sheet 3' }]);
});
