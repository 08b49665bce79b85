import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStudy } from '../../document/open-study.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { compileWithStart } from '../../compile/compile-with-start.ts';
import { layGrid } from '../../run/grid.ts';
import { rowsOf } from '../../run/rows.ts';
import { runStudy } from '../../study/run-study.ts';
import { studyReport } from '../study-report.ts';
import { rowTable } from './row-table.ts';
import { comparisonTable, costTable, rungColumnsOf, rungTable, studyTable } from './study-tables.ts';
import { column, type Table } from './table.ts';
import { writeTable } from './table-formats.ts';

const NASTY = [
  'plain',
  '=HYPERLINK("http://x")',
  '+1',
  '@cmd',
  'a|b \\ c `d` *e* _f_ [g](h)',
  '<script>alert(1)</script> & "q" \'s\'',
  '100 % of $5 #1 ~ ^ {x} \\input{/etc/passwd}',
  'Größe, α β Ω → ± ≤, 😀',
  'two\nlines\r\nand, commas',
  'y_{n+1} = y_n + h f(t_n, y_n)',
  'x'.repeat(190),
];

function nastyTable(title: string): Table {
  return {
    caption: title,
    groups: [
      { title, columns: 1 },
      { title: '', columns: 2 },
    ],
    columns: [column(title), column('error', null, 4), column('h', 'h')],
    rows: [
      [title, 1.05e-7, 0.1],
      [null, -12.5, 1 / 3],
      ['', Infinity, 1e300],
    ],
  };
}

/** CSV read back by the letters of RFC 4180. */
function parsed(text: string): readonly (readonly string[])[] {
  const rows: string[][] = [[]];
  let [cell, isQuoted] = ['', false];
  for (let i = 0; i < text.length; i += 1) {
    const sign = text[i]!;
    if (isQuoted) {
      if (sign !== '"') cell += sign;
      else if (text[i + 1] === '"') [cell, i] = [`${cell}"`, i + 1];
      else isQuoted = false;
    } else if (sign === '"') isQuoted = true;
    else if (sign === ',' || sign === '\r') {
      rows.at(-1)!.push(cell);
      cell = '';
      if (sign === '\r') [i] = [i + 1, rows.push([])];
    } else cell += sign;
  }
  return rows.slice(0, -1);
}

test.each(NASTY)('CSV holds what was typed, whole doubles, and no formula: %s', (title) => {
  const text = writeTable(nastyTable(title), 'csv', { mark: true });
  expect(text.startsWith('\ufeff')).toBe(true);
  const [, first, second] = parsed(text.slice(1));
  const shown = /^[=+\-@\t\r]/.test(title) ? `'${title}` : title;
  expect(first).toEqual([shown, '1.05e-7', '0.1']);
  expect(second!.map(Number)).toEqual([0, -12.5, 1 / 3]);
});

test('CSV with semicolons has decimal commas, and quotes what holds a semicolon', () => {
  const text = writeTable(nastyTable('a;b'), 'csv', { comma: true });
  expect(text.split('\r\n').slice(1, 3)).toEqual([
    '"a;b";1,05e-7;0,1',
    `;-12,5;${String(1 / 3).replace('.', ',')}`,
  ]);
});

test('a table of LaTeX that is wider than the page is turned, and parted where it is too wide for that', () => {
  const wide = (groups: number): Table => ({
    caption: 'Wide',
    groups: [
      { title: '', columns: 1 },
      ...Array.from({ length: groups }, (_, i) => ({ title: `M${i}`, columns: 2 })),
    ],
    columns: [column('h', 'h'), ...Array.from({ length: 2 * groups }, () => column('error', null, 10))],
    rows: [[0.1, ...Array.from({ length: 2 * groups }, (_, i) => (i + 1) / 13)]],
  });
  const environments = (table: Table): readonly string[] =>
    [...writeTable(table, 'tex').matchAll(/\\begin\{(table|sidewaystable)\}/g)].map(([, name]) => name!);
  expect(environments(wide(1))).toEqual(['table']);
  expect(environments(wide(4))).toEqual(['sidewaystable']);
  expect(environments(wide(6))).toEqual(['sidewaystable', 'sidewaystable']);
  const text = writeTable(wide(6), 'tex');
  // every number is there once, and the step size in each part
  for (let i = 0; i < 12; i += 1) {
    const digits = ((i + 1) / 13).toPrecision(10).split('.')[1]!;
    expect(text.split(`.${digits}$`)).toHaveLength(2);
  }
  expect(text.split('$0$ & $.1$')).toHaveLength(3);
});

test('Markdown keeps its columns, and nothing typed is markup', () => {
  const lines = writeTable(nastyTable('a|b *c* <d>'), 'md').split('\n');
  expect(lines.slice(2)).toEqual([
    '| a\\|b \\*c\\* &lt;d\\>: a\\|b \\*c\\* &lt;d\\> | error | h |',
    '| :--- | ---: | ---: |',
    '| a\\|b \\*c\\* &lt;d\\> | 1.050e-7 | 0.1 |',
    '|  | -12.50 | 0.3333333333333333 |',
    '|  | Infinity | 1e\\+300 |',
    '',
  ]);
});

test.each(NASTY)('HTML is read back as what was typed: %s', (title) => {
  const html = writeTable(nastyTable(title), 'html');
  expect(html).not.toMatch(/<script|<\/?d>/);
  const [, caption] = /<caption>(.*)<\/caption>/.exec(html)!;
  const back = caption!.replace(/&#(\d+);/g, (_, code: string) => String.fromCodePoint(Number(code)));
  expect(back).toBe(title.replace(/[\r\n]+/g, ' '));
  expect(writeTable(nastyTable(title), 'html', { part: true })).toMatch(/^<table>/);
});

test('numbers of LaTeX meet at the point', () => {
  const lines = writeTable(nastyTable('t'), 'tex', { part: true }).split('\n');
  expect(lines).toContain('\\begin{tabular}{lr@{}lr@{}l}');
  expect(lines).toContain('t & $1$ & $.050 \\cdot 10^{-7}$ & $0$ & $.1$ \\\\');
  expect(lines).toContain(' & $-12$ & $.50$ & $0$ & $.3333333333333333$ \\\\');
  expect(lines).toContain(' & \\multicolumn{2}{c}{Infinity} & $1$ & $ \\cdot 10^{300}$ \\\\');
});

function thermistor() {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe & 50 %',
    problem: { title: 'P', text: "p' = -5*(p - cos(t))\np(0) = 0\n0 <= t <= 1" },
    methods: ['Euler', 'RK4'].map((title) => ({ title, text: findInLibrary(title)!.text })),
    ladder: { counts: [8, 16, 32] },
  });
  if (!opened.ok) throw new Error('study');
  return opened.study;
}

test('the tables of a study hold its numbers', () => {
  const study = thermistor();
  const report = studyReport('Probe & 50 %', study.problem, runStudy(study));
  const rungs = rungTable(report);
  expect(rungs.groups!.map(({ title }) => title)).toEqual(['', 'Euler', 'RK4']);
  expect(rungs.rows[1]).toEqual([
    1 / 16,
    16,
    ...report.methods.flatMap(({ rungs: [, own] }) => [own!.error, own!.ratio, own!.order]),
  ]);
  expect(rungTable(report, ['value', 'evaluations']).rows[0]).toEqual([
    1 / 8,
    8,
    ...report.methods.flatMap(({ rungs: [own] }) => [own!.values['p'], own!.cost.evaluations]),
  ]);
  expect(costTable(report).rows).toHaveLength(6);
  const compared = comparisonTable(report).rows;
  expect(compared.map(([method]) => method).sort()).toEqual(['Euler', 'RK4']);
  const costs = compared.map(([, evaluations]) => Number(evaluations));
  expect(costs).toEqual([...costs].sort((a, b) => a - b));
  const run = compileWithStart(study.problem, findInLibrary('Heun')!, study.start);
  const { rows } = rowsOf(run, layGrid(0, 1, { steps: 4 }), { from: 0, count: 5 });
  const table = rowTable('Rows', run, rows, { columns: ['p', 'k2'], digits: 10 });
  expect(table.columns.map(({ title }) => title)).toEqual(['n', 't', 'p', 'k2']);
  expect(table.rows[4]).toEqual([4, 1, rows[4]!.values[0], null]);
});

test('pdflatex sets the tables as they stand, whatever their titles', () => {
  const folder = mkdtempSync(join(tmpdir(), 'schritt-tex-'));
  try {
    const study = thermistor();
    const report = studyReport('Probe & 50 %', study.problem, runStudy(study));
    const parts = [...NASTY.map(nastyTable), rungTable(report), costTable(report), comparisonTable(report)];
    const [begin, end] = ['\\begin{document}', '\\end{document}'];
    const whole = writeTable(parts[0]!, 'tex');
    const bodies = parts.map((table) => writeTable(table, 'tex', { part: true })).join('\\clearpage\n');
    const all = `${whole.slice(0, whole.indexOf(begin))}${begin}\n${bodies}\n${end}\n`;
    for (const [name, text] of [
      ['one', whole],
      ['all', all],
    ] as const) {
      writeFileSync(join(folder, `${name}.tex`), text);
      const log = execFileSync(
        'pdflatex',
        ['-interaction=nonstopmode', '-halt-on-error', '-no-shell-escape', `${name}.tex`],
        { cwd: folder, encoding: 'utf8' },
      );
      expect(log).toContain('Output written on');
      expect(
        readFileSync(join(folder, `${name}.pdf`))
          .subarray(0, 4)
          .toString(),
      ).toBe('%PDF');
    }
  } finally {
    rmSync(folder, { recursive: true });
  }
}, 60_000);

test('the table of step sizes has the columns that are asked for, values at the end among them', () => {
  const study = thermistor();
  const report = studyReport('Probe', study.problem, runStudy(study));
  const table = studyTable(report, 'rungs', null, rungColumnsOf({ columns: 'value, error' }));
  expect(table.columns.map(({ title }) => title)).toEqual(['h', 'N', 'p', 'error', 'p', 'error']);
  expect(table.rows[0]?.slice(2, 4)).toEqual([
    report.methods[0]?.rungs[0]?.values['p'],
    report.methods[0]?.rungs[0]?.error,
  ]);
  const [method] = report.methods;
  const others = studyTable(
    report,
    'rungs',
    null,
    rungColumnsOf({ columns: 'order of three,extrapolated,estimate,per step,Newton' }),
  );
  expect(others.columns.slice(2, 7).map(({ title }) => title)).toEqual([
    'order of three',
    'extrapolated p',
    'estimated error',
    'evaluations per step',
    'Newton iterations',
  ]);
  const [, , last] = method?.rungs ?? [];
  // Aitken's extrapolation of the last three values, written out
  const [a, b, c] = (method?.rungs ?? []).map(({ values }) => Number(values['p']));
  expect(others.rows[2]?.[3]).toBeCloseTo(c! - (c! - b!) ** 2 / (c! - b! - (b! - a!)), 12);
  expect(others.rows[2]?.slice(5, 7)).toEqual([last!.cost.evaluations / last!.steps, 0]);
  expect(() => rungColumnsOf({ columns: 'slope' })).toThrow(
    'columns takes value, error, digits, ratio, order',
  );
});
