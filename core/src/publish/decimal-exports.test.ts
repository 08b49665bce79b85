import type { StudyDocument } from '../document/document.ts';
import { studyOrRefusal } from '../document/open-study.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { compileInDecimals } from '../compile/decimal/decimal-loop.ts';
import { layGrid } from '../run/grid.ts';
import { rowsOf } from '../run/rows.ts';
import { runOf } from '../study/runs/study.ts';
import { csv, isNumberCell, jsonCell, nearestDouble } from './csv.ts';
import { exportRequest } from './export-query.ts';
import { exportStudy } from './export-study.ts';
import { handoutHtml } from './handouts/handout-html.ts';
import { makeHandouts } from './handouts/make-handouts.ts';
import { makeQuestions } from './questions/make-questions.ts';
import { rowsTable } from './rows-table.ts';
import { rowTable } from './tables/row-table.ts';
import { writeTable } from './tables/table-formats.ts';

const FROST = "s' = 0.5/s\ns(0) = 1\n0 <= t <= 6\ns(t) = sqrt(1 + t)";

function document(digits: number): StudyDocument {
  return {
    schritt: 1,
    kind: 'study',
    title: 'Frost line',
    problem: { title: 'Frost line', text: FROST },
    methods: [{ title: 'Heun', text: findInLibrary('Heun')!.text, precision: { digits } }],
    ladder: { counts: [6, 12] },
  };
}

function rowsWith(digits: number) {
  const study = studyOrRefusal(document(digits));
  const run = runOf(study, study.methods[0]!);
  return { run, rows: rowsOf(run, layGrid(0, 6, { steps: 6 }), { from: 0, count: 3 }).rows };
}

/** The values at all grid points of the same run. */
function longer(digits: number): readonly number[] {
  const { run } = rowsWith(digits);
  return rowsOf(run, layGrid(0, 6, { steps: 6 }), { from: 0, count: 7 }).rows.flatMap(({ values }) => values);
}

test('rows as JSON are texts with all digits, as CSV the same digits, rounded where fewer are asked for', () => {
  const { run, rows } = rowsWith(20);
  const table = rowsTable(run, rows);
  // s(1) = 1 + 1/2*(1/2 + 1/3), to 20 digits
  expect(table.rows[1]?.slice(0, 3).map(jsonCell)).toEqual([1, '1', '1.4166666666666666667']);
  expect(csv([table.rows[1]!.slice(0, 3)])).toBe('1,1,1.4166666666666666667\r\n');
  const digits = (count: number): string =>
    writeTable(rowTable('Rows', run, rows, { columns: ['s'], digits: count }), 'md').split('\n')[5] ?? '';
  expect(digits(18)).toBe('| 1 | 1 | 1.41666666666666667 |');
  expect(digits(6)).toBe('| 1 | 1 | 1.41667 |');
});

test('a handout has the numbers of the calculator, and its keys those of every variant', () => {
  const request = {
    of: { kind: 'rows', method: 0, gridRequest: { steps: 6 }, columns: null },
    title: 'Frost line',
    task: '',
    blanks: 'rows after 1',
    digits: 4,
    plot: false,
    sheets: 2,
    seed: 1,
  } as const;
  const study = {
    ...document(4),
    problem: { title: 'Frost line', text: FROST.replace('0.5/s', 'c/s\nc = 0.5') },
  };
  const [one] = makeHandouts(study, { ...request, choices: '' }).handouts;
  const key = handoutHtml({ handouts: [one!], keys: null }, { solved: true, paper: 'A4' }, () => '')
    .map((part) => (typeof part === 'string' ? part : ''))
    .join('');
  // s(2) = 1.417 + 1/2*(0.3529 + 0.2825), each operation to four digits
  expect(key).toContain('1.735');
  expect(key).not.toContain('1.734');
  const { keys } = makeHandouts(
    { ...study, problem: { ...study.problem, text: study.problem.text.replace(/\ns\(t\).*/, '') } },
    { ...request, choices: 'c in 0.5, 0.5' },
  );
  expect(keys?.table.rows[0]?.map((cell) => (isNumberCell(cell) ? nearestDouble(cell) : cell))).toContain(
    1.735,
  );
});

test('questions ask for values of the calculator', () => {
  const questions = makeQuestions(document(4), {
    kinds: ['value'],
    method: 0,
    gridRequest: { steps: 6 },
    digits: 4,
    choices: '',
    sheets: 1,
    seed: 3,
  });
  questions.forEach(({ answer }) => expect(longer(4)).toContain(answer));
});

test('a spreadsheet of a run in decimals holds its values, those with many digits as text', () => {
  const bookOf = (digits: number) => {
    const study = studyOrRefusal(document(digits));
    const query = { what: 'sheet', as: 'xlsx', method: 'Heun' } as const;
    const made = exportStudy(document(digits), study, exportRequest('Frost line', study, query), () => '');
    if (made.kind !== 'workbook') throw new Error(made.kind);
    return made.workbook;
  };
  const valueIn = (digits: number): unknown =>
    bookOf(digits).sheets.find(({ name }) => name === 'N = 6')?.rows[2]?.[2]?.content;
  expect(valueIn(4)).toBe(1.417);
  expect(valueIn(20)).toBe('1.4166666666666666667');
  const { sheets } = bookOf(4);
  expect(sheets.map(({ name }) => name)).toEqual(['Study', 'Step sizes', 'N = 6', 'N = 12']);
  expect(JSON.stringify(sheets)).not.toContain('"formula"');
});

test('the code of a run in decimals has no character that was typed', () => {
  const study = studyOrRefusal(document(30));
  const { decimal, program } = runOf(study, study.methods[0]!);
  expect(decimal?.source).not.toContain('0.5');
  expect(compileInDecimals(study.problem, program, decimal!.decimals.precision).source).toBe(decimal?.source);
});
