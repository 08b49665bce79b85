import type { StudyDocument } from '../document/document.ts';
import { openStudy } from '../document/open-study.ts';
import { LIBRARY } from '../method/library/library.ts';
import { classTable } from '../publish/feedback/class-table.ts';
import { feedbackHtml } from '../publish/feedback/feedback-html.ts';
import { variantStudies } from '../publish/handouts/variant-studies.ts';
import { layGrid } from '../run/grid.ts';
import type { Study } from '../study/runs/study.ts';
import { classCounts, countsText } from './class-counts.ts';
import { findRun, type FindRunOf, type FoundRun } from './find-run.ts';
import { markClass, markSubmission, sheetIn, type StudentMarking } from './mark-class.ts';
import { type Marking, type MarkRequest } from './mark-column.ts';
import { marksOf } from './marks.ts';
import { AS_FOUND, type ReadingChoice } from './student-rows.ts';
import { type Layout, readSubmitted, type Submission, submissionsOf } from './submission.ts';

const textOf = (title: string): string => LIBRARY.find((known) => known.title === title)!.text;

const LAKE = "level' = -k*level + t\nk = 0.5\nlevel(0) = 4\n0 <= t <= 2";
const HARES =
  "hares' = hares - hares*lynx/2\nlynx' = hares*lynx/2 - lynx\nhares(0) = 1\nlynx(0) = 2\n0 <= t <= 2";

function documentOf(text: string): StudyDocument {
  return {
    schritt: 1,
    kind: 'study',
    title: 'Lake <i>',
    problem: { title: 'Lake', text },
    methods: ['Euler', 'Heun'].map((title) => ({ title, text: textOf(title) })),
    ladder: { counts: [10, 20] },
  };
}

function studyOf(text: string): Study {
  const opened = openStudy(documentOf(text));
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

/** Heun's method for the lake by a loop of its own; a student may take the second slope at t. */
function heun(k = 0.5, late = 1, slip = 0): readonly number[] {
  const f = (t: number, y: number): number => -k * y + t;
  const rows = [4];
  for (let n = 0; n < 10; n += 1) {
    const [t, y] = [0.2 * n, rows[n]!];
    const k1 = f(t, y);
    rows.push(y + 0.1 * (k1 + f(t + 0.2 * late, y + 0.2 * k1)) + (n === 4 ? slip : 0));
  }
  return rows;
}

const fixed = (rows: readonly number[]): readonly string[] => rows.map((y) => y.toFixed(4));
const lake = studyOf(LAKE);
const LAKE_HEUN: MarkRequest = { study: lake, method: 1, grid: layGrid(0, 2, { steps: 10 }) };

/** A table with a column for each student, beside n. */
function table(students: Readonly<Record<string, readonly string[]>>): string {
  const columns = Object.values(students);
  return [
    ['n', ...Object.keys(students)].join(';'),
    ...(columns[0] ?? []).map((_, n) => [n, ...columns.map((own) => own[n])].join(';')),
  ].join('\n');
}

const CLASS = table({
  Anna: fixed(heun()),
  Ben: fixed(heun(0.5, 0)),
  Cem: fixed(heun(0.5, 1, 0.05)),
  Dora: fixed(heun(0.5, 0)),
  Emil: fixed(heun(0.5, 1).map((y, n) => y + 0.1 * n * Math.sin(7 * n))),
});

function read(
  files: Readonly<Record<string, string>>,
  layout: Layout | null = null,
  of: MarkRequest = LAKE_HEUN,
): readonly Submission[] {
  return submissionsOf(
    readSubmitted(
      Object.entries(files).map(([name, text]) => ({ name, text })),
      { request: of, layout, roles: {}, reading: AS_FOUND },
    ),
  );
}

describe('what was handed in', () => {
  test('is one student per column where headings name no component, and per file otherwise', () => {
    expect(read({ 'a.csv': CLASS }).map(({ student }) => student)).toEqual([
      'Anna',
      'Ben',
      'Cem',
      'Dora',
      'Emil',
    ]);
    const own = 'n;t;level;k1\n0;0;4;-2\n1;0,2;3,6;';
    expect(read({ 'class/Anna.csv': own, 'class/Ben.txt': own }).map(({ student }) => student)).toEqual([
      'Anna',
      'Ben',
    ]);
    expect(read({ 'Anna/rows.csv': own, 'Ben/rows.csv': own }).map(({ student }) => student)).toEqual([
      'Anna/rows',
      'Ben/rows',
    ]);
  });

  test('may have numbers for headings, and several components of a student', () => {
    const numbers = read({ 'c.csv': table({ 1001: fixed(heun()), '3 Ben': fixed(heun()) }) });
    expect(numbers.map(({ student }) => student)).toEqual(['1001', '3 Ben']);
    const system = { study: studyOf(HARES), method: 0, grid: layGrid(0, 2, { steps: 10 }) };
    const two = read(
      { 'c.csv': 't;Anna hares;Anna lynx;Ben (hares);Ben (lynx)\n0;1;2;1;2\n0,2;1;1,8;1;1,8' },
      null,
      system,
    );
    expect(two.map(({ student }) => student)).toEqual(['Anna', 'Ben']);
    expect(two.map((one) => markSubmission([system], one, null).marking?.firstWrong)).toEqual([null, null]);
  });

  test('is read as a person says, by the form of the table', () => {
    const files = [{ name: 'a.csv', text: 'a;b\n0;4\n0,2;3,6' }];
    const roles = { 'a\tb': [{ kind: 't' }, { kind: 'component', place: 0 }] } as const;
    const of = { request: LAKE_HEUN, layout: null, reading: AS_FOUND };
    expect(submissionsOf(readSubmitted(files, { ...of, roles }))[0]?.meanings).toEqual(roles['a\tb']);
    expect(submissionsOf(readSubmitted(files, { ...of, roles: {} })).map(({ student }) => student)).toEqual([
      'a',
      'b',
    ]);
  });

  test('is read with the decimal sign, the first row and the places that a person says', () => {
    const [own] = read({
      'Anna.csv': heun()
        .map((y) => y.toFixed(3).replace('.', ','))
        .join('\n'),
    });
    const marked = (reading: Partial<ReadingChoice>): Marking | null =>
      markSubmission([LAKE_HEUN], { ...own!, reading: { ...AS_FOUND, ...reading } }, null).marking;
    expect(marked({})).toMatchObject({ firstWrong: null, digits: { decimals: 3 } });
    // row 1 is 3.64 exactly; others that were rounded to three places are none of four
    expect(marked({ decimals: 4 })?.firstWrong).toBe(2);
    expect(marked({ firstRow: 1 })?.rows[0]?.n).toBe(1);
    const [point] = submissionsOf(
      readSubmitted([{ name: 'a', text: '0;1.250\n1;2.500' }], {
        request: LAKE_HEUN,
        layout: null,
        roles: {},
        reading: { ...AS_FOUND, decimalSign: ',' },
      }),
    );
    expect(point?.table.columns[1]?.cells.map((cell) => cell?.value)).toEqual([1250, 2500]);
  });

  test('reports what is no number in the column of its student', () => {
    const [anna, ben] = read({ 'c.csv': 'n;Anna;Ben\n0;4;4\n1;absent;3,6' });
    expect([anna?.table.unread.length, ben?.table.unread.length]).toEqual([1, 0]);
  });
});

const marked = markClass(LAKE_HEUN, CLASS);

test('a class is counted: who is right, which mistakes, slips, and what nothing explains', () => {
  const counts = classCounts(marked);
  expect(counts).toMatchObject({ students: 5, right: 1, slips: 1, unexplained: 1, unmarked: 0 });
  expect(counts.mistakes[0]).toMatchObject({ students: ['Ben', 'Dora'] });
  expect(countsText(counts)).toEqual([
    '1 of 5 is right.',
    '2 of 5: In line 2 of the method, f is evaluated at t instead of t + h: k2 = f(t, y + h*k1).',
    '1 of 5: one wrong step; later steps are right from the student’s own rows.',
    '1 of 5: wrong, and no known mistake gives these numbers.',
  ]);
});

test.each([
  // all rows right; Ben none but steps; one slip: rows 1 to 4 right, and 9 of 10 steps
  ['Anna', { rowMarks: 5, stepMarks: 5, roundTo: 0.5, rowsAsked: null }, 10, 10, 10],
  ['Cem', { rowMarks: 5, stepMarks: 5, roundTo: 0.5, rowsAsked: null }, 6.5, 4, 9],
  ['Cem', { rowMarks: 0, stepMarks: 8, roundTo: 0.1, rowsAsked: null }, 7.2, 4, 9],
  ['Anna', { rowMarks: 3, stepMarks: 0, roundTo: 0.25, rowsAsked: 20 }, 1.5, 10, 10],
])('marks of %s by the rule %j are %d', (student, rule, marks, rowsRight, stepsRight) => {
  const { marking } = marked.find((one) => one.student === student)!;
  expect(marksOf(marking!, rule)).toMatchObject({ marks, rowsRight, stepsRight });
});

test('a class as a table and as feedback, in which no name is markup', () => {
  const rule = { rowMarks: 5, stepMarks: 5, roundTo: 0.5, rowsAsked: null };
  const { columns, rows } = classTable(marked, rule);
  expect(columns.map(({ title }) => title)).not.toContain('sheet');
  expect(rows[0]?.slice(0, 7)).toEqual(['Anna', 10, 10, 10, 10, 10, 'right']);
  expect(rows[2]?.slice(6, 10)).toEqual([
    'wrong',
    5,
    Number(heun(0.5, 1, 0.05)[5]!.toFixed(4)),
    Number(heun()[5]!.toPrecision(6)),
  ]);
  const student: StudentMarking = { ...marked[1]!, student: '<b>Ben' };
  const page = feedbackHtml(
    [student, { ...student, student: 'Nobody', marking: null, why: 'no <rows>' }],
    { title: 'Lake <i>', rule, keys: [LAKE_HEUN] },
    (tex) => `[${tex}]`,
  );
  expect(page).not.toMatch(/<b>|<i>|<rows>/);
  expect(page.match(/<section class="sheet">/g)).toHaveLength(2);
  expect(page).toContain('This mistake gives exactly your numbers');
  expect(page).toContain('k2 = f(t, y + h*k1)');
  expect(page).toContain('<tr class="wrong first"><td>1</td>');
});

describe('the run that rows belong to is found', () => {
  function find(of: Partial<FindRunOf>): FoundRun | null {
    const studies = [studyOf(HARES), lake];
    const search = findRun({ studies, files: [], layout: null, reading: AS_FOUND, ...of });
    let next = search.next();
    while (next.done !== true) next = search.next();
    return next.value;
  }

  test('by the rows of a class', () => {
    const found = find({ files: [{ name: 'c.csv', text: CLASS }] });
    expect(found).toMatchObject({ study: 1, method: 1, right: 14, of: 50, equals: [] });
    expect(found && 'h' in found.gridRequest && found.gridRequest.h).toBe(0.2);
  });

  test('by the times of one student at a step size that the study has not', () => {
    const rows = [4];
    for (let n = 0; n < 8; n += 1) rows.push(rows[n]! + 0.25 * (-0.5 * rows[n]! + 0.25 * n));
    const text = rows.map((y, n) => `${0.25 * n}\t${y.toFixed(5)}`).join('\n');
    const found = find({ files: [{ name: 'Anna.txt', text }] });
    expect(found).toMatchObject({ study: 1, method: 0, right: 8, of: 8, gridRequest: { h: 0.25 } });
  });

  test('or not, where no two rows agree', () => {
    expect(find({ files: [{ name: 'x.csv', text: '0;17\n1;-3\n2;8' }] })).toBeNull();
  });
});

describe('with variants', () => {
  const sheets = variantStudies(documentOf(LAKE), { choices: 'k in 0.3, 0.4, 0.5', sheets: 3, seed: 7 });
  const keys = sheets.map(({ study }): MarkRequest => ({ ...LAKE_HEUN, study }));
  const own = (sheet: number): number => Number(sheets[sheet - 1]?.variant[0]?.value);

  test('rows are compared with the key of their sheet: named, set, or found', () => {
    const rows = fixed(heun(own(2)));
    const [named, plain, wrong, missing] = read(
      {
        'c.csv': table({
          'Anna, sheet 2': rows,
          Ben: rows,
          'Cem #1': rows,
          'Dora sheet 9': rows,
        }),
      },
      'one per column',
    ).map((one) => markSubmission(keys, one, null));
    expect([named?.sheet, named?.marking?.firstWrong]).toEqual([2, null]);
    expect([plain?.sheet, plain?.marking?.firstWrong]).toEqual([2, null]);
    expect([wrong?.sheet, wrong?.marking?.firstWrong]).toEqual([1, 1]);
    expect([missing?.marking, missing?.why]).toEqual([null, 'there is no sheet 9']);
  });

  test('rows that agree with no key are not marked against any', () => {
    const rows = fixed(heun().map((_, n) => 9 + n * n));
    const [none] = read({ 'c.csv': table({ Ben: rows }) }, 'one per column');
    expect(markSubmission(keys, none!, null).why).toBe('no sheet is named, and the rows agree with no key');
    expect(markSubmission(keys, none!, 3)).toMatchObject({ sheet: 3, why: null });
  });

  test.each([
    ['Anna, sheet 3', 3],
    ['Anna_Sheet-12', 12],
    ['#4 Ben', 4],
    ['Ben 4', null],
    ['Norma 3', null],
  ])('the sheet in %j is %j', (name, sheet) => expect(sheetIn(name)).toBe(sheet));
});
