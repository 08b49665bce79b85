// Counts lines: of every room with median and longest file, and the share of tests; keeps the table of
// docs/architecture.md true. With --check it fails where a bound is broken or the table is not up to date.
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { root } from './fresh.mjs';

const MOST_MEDIAN = 80;
const LONGEST = 300;
const LEAST_TESTS = 0.25;

const listed = execFileSync('git', ['ls-files', '-co', '--exclude-standard'], {
  cwd: root,
  encoding: 'utf8',
});
const files = listed
  .split('\n')
  .sort()
  .filter((file) => /\.(ts|tsx|mjs|css)$/.test(file))
  .flatMap((file) => {
    try {
      const text = readFileSync(join(root, file), 'utf8');
      return [{ file, lines: text.split('\n').length - 1 }];
    } catch {
      return [];
    }
  });
/** Tests, and the room of studies that are made to test with. */
const isTest = ({ file }) =>
  /\.(test|spec)\.tsx?$/.test(file) || file.startsWith('e2e/') || file.startsWith('core/src/trust/');
const sum = (list) => list.reduce((total, { lines }) => total + lines, 0);
const median = (list) => [...list.map(({ lines }) => lines)].sort((a, b) => a - b)[list.length >> 1] ?? 0;

const code = files.filter((one) => !isTest(one));
const source = code.filter(({ file }) => /\/src\/.*\.tsx?$/.test(file));
const rooms = new Map();
for (const one of source) rooms.set(dirname(one.file), [...(rooms.get(dirname(one.file)) ?? []), one]);
const rows = [...rooms].map(([room, list]) => {
  const longest = list.reduce((most, one) => (one.lines > most.lines ? one : most));
  return [
    room.replace('/src', ''),
    list.length,
    sum(list),
    median(list),
    `${longest.lines} (${longest.file.split('/').at(-1)})`,
  ];
});
const share = sum(files.filter(isTest)) / sum(files);
const table = [
  '| room | files | lines | median | longest |',
  '| --- | --- | --- | --- | --- |',
  ...rows.map((row) => `| ${row.join(' | ')} |`),
  `| **all** | ${source.length} | ${sum(source)} | ${median(source)} | |`,
].join('\n');

const page = join(root, 'docs/architecture.md');
const before = readFileSync(page, 'utf8');
const marked = /(<!-- rooms -->)[\s\S]*(<!-- end of rooms -->)/;
const text = before.replace(marked, `$1\n\n${table}\n\n$2`);
const options = { ...(await resolveConfig(page)), parser: 'markdown' };
const after = await format(text, options);
const isCheck = process.argv.includes('--check');
if (!isCheck) writeFileSync(page, after);

const faults = [
  ...source
    .filter(({ lines }) => lines > LONGEST)
    .map(({ file, lines }) => `${file} has ${lines} lines, more than ${LONGEST}`),
  ...(median(source) > MOST_MEDIAN
    ? [`the median of all files is ${median(source)} lines, more than ${MOST_MEDIAN}`]
    : []),
  ...(share < LEAST_TESTS
    ? [`tests are ${(100 * share).toFixed(1)} % of the code, less than ${100 * LEAST_TESTS} %`]
    : []),
  ...(isCheck && after !== before ? ['docs/architecture.md is not up to date: run npm run rooms'] : []),
];
console.log(table.replaceAll('**', ''));
console.log(
  `tests: ${sum(files.filter(isTest))} of ${sum(files)} lines of code, ${(100 * share).toFixed(1)} %`,
);
for (const fault of faults) console.log(fault);
if (isCheck && faults.length > 0) process.exit(1);
