import { read, utils, type WorkBook } from '@e965/xlsx';
import { readXlsx } from 'hucre/xlsx';
import { HyperFormula } from 'hyperformula';
import { openStudy } from '../../document/open-study.ts';
import type { StudyDocument } from '../../document/document.ts';
import { compileWithStart } from '../../compile/compile-with-start.ts';
import { componentNames } from '../../problem/problem.ts';
import { LIBRARY } from '../../method/library/library.ts';
import { type Grid, layGrid } from '../../run/grid.ts';
import { rowsOf } from '../../run/rows.ts';
import { runStudy } from '../../study/run-study.ts';
import type { Study } from '../../study/runs/study.ts';
import { Refusal } from '../../text/refusal.ts';
import { studyWorkbook } from './study-workbook.ts';
import { xlsx } from './xlsx.ts';

function studyOf(text: string, title: string, more: Partial<StudyDocument> = {}): Study {
  const method = LIBRARY.find((known) => known.title === title);
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Reservoir',
    problem: { title: 'Reservoir', text },
    methods: method === undefined ? [{ title: 'Own', text: title }] : [method],
    ladder: { first: 0.5, factor: 2, rungs: 4 },
    ...more,
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

type Content = string | number | boolean | null;

/** A file as an engine of its own reads and calculates it, in plain double arithmetic. */
class Calculated {
  readonly #engine: HyperFormula;
  readonly #names = new Map<string, { readonly sheet: string; readonly address: string }>();

  constructor(book: WorkBook) {
    const sheets: Record<string, Content[][]> = {};
    for (const name of book.SheetNames) {
      const sheet = book.Sheets[name]!;
      const { e: end } = utils.decode_range(sheet['!ref'] ?? 'A1');
      sheets[name] = Array.from({ length: end.r + 1 }, (_, r) =>
        Array.from({ length: end.c + 1 }, (__, c): Content => {
          const cell = sheet[utils.encode_cell({ r, c })];
          return cell === undefined ? null : cell.f !== undefined ? `=${cell.f}` : cell.v;
        }),
      );
    }
    const named = (book.Workbook?.Names ?? []).map(({ Name, Ref }) => ({
      name: Name,
      expression: `=${Ref}`,
    }));
    for (const { Name, Ref } of book.Workbook?.Names ?? []) {
      const [, sheet = '', address = ''] = /^'?([^']+)'?!(.+)$/.exec(Ref) ?? [];
      this.#names.set(Name, { sheet, address: address.replaceAll('$', '') });
    }
    this.#engine = HyperFormula.buildFromSheets(
      sheets,
      { licenseKey: 'gpl-v3', smartRounding: false, precisionEpsilon: 0 },
      named,
    );
  }

  #place(name: string): { readonly sheet: number; readonly row: number; readonly col: number } {
    const { sheet, address } = this.#names.get(name)!;
    const { r, c } = utils.decode_cell(address);
    return { sheet: this.#engine.getSheetId(sheet)!, row: r, col: c };
  }

  set(name: string, value: number): void {
    this.#engine.setCellContents(this.#place(name), value);
  }

  at(name: string): unknown {
    return this.#engine.getCellValue(this.#place(name));
  }

  /** The values of a sheet by the heads of its columns; blank cells are ''. */
  table(sheet: string): readonly Readonly<Record<string, unknown>>[] {
    const values = this.#engine.getSheetValues(this.#engine.getSheetId(sheet)!);
    const heads = values[2]!.map(String);
    return values.slice(3).map((row) => Object.fromEntries(heads.map((head, i) => [head, row[i]])));
  }

  set1(sheet: string, row: number, column: number, value: number): void {
    this.#engine.setCellContents({ sheet: this.#engine.getSheetId(sheet)!, row, col: column }, value);
  }
}

async function fileOf(study: Study, grids: readonly Grid[] | null = null): Promise<WorkBook> {
  return read(await xlsx(studyWorkbook('Reservoir', study, 0, grids)), {
    cellFormula: true,
    cellNF: true,
    sheetStubs: true,
  });
}

const LAST_PLACE = 2 ** -52;

/** Holds every cell of a sheet of a run against the run itself. */
function agrees(calculated: Calculated, sheet: string, study: Study, grid: Grid, most: number): void {
  const { problem, start } = study;
  const run = compileWithStart(problem, study.methods[0]!.method, start);
  const { rows } = rowsOf(run, grid, { from: 0, count: grid.steps + 1 });
  const table = calculated.table(sheet);
  const names = componentNames(problem);
  const near = (value: unknown, expected: number): void => {
    // an error of a cell is shown as it is
    expect(value).toEqual(expect.any(Number));
    expect(Math.abs(Number(value) - expected)).toBeLessThanOrEqual(most * Math.abs(expected));
  };
  const heads = run.program.stages.map(({ name, shape }) => ({ name, shape }));
  for (const [i, row] of rows.entries()) {
    const cells = table[i]!;
    expect(cells['n']).toBe(row.n);
    near(cells[problem.independent], row.t);
    row.values.forEach((value, j) => {
      near(cells[names[j]!], value);
    });
    heads.forEach(({ name, shape }, k) => {
      row.stages?.[k]?.forEach((value, j) => {
        const head = shape === 'scalar' || names.length === 1 ? name : `${name}[${names[j]}]`;
        if (head in cells) near(cells[head], value);
      });
    });
  }
  // rows behind the end are blank; what a chart draws stays at the end
  const end = table[rows.length - 1] ?? {};
  for (const cells of table.slice(rows.length))
    for (const [head, value] of Object.entries(cells))
      if (head !== '') expect(value ?? '').toBe(head.startsWith('chart: ') ? end[head] : '');
}

const TANK = "level' = -k*sqrt(level)\nk = 0.35\nlevel(0) = 4\n0 <= t <= 6\nlevel(t) = (2 - k*t/2)^2";
const FALL = "v' = g - c*v^2\ng = 9.75\nc = 1/3\nv(1) = g/8\n1 <= s <= 3";
const PAIR =
  "m' = m*(a - b*l)\nl' = l*(c*m - d)\na = 1.1\nb = 0.4\nc = 0.1\nd = 0.4\nm(0) = 10\nl(0) = 5\n0 <= t <= 3";
const LEAP = "x'' = -x/(x^2 + 1) - 2*x' + if(t < 1, t, 1)\nx(0) = -1\nx'(0) = 0\n0 <= t <= 2";
const CHAIN =
  "u[i]' = k*(u[i-1] - 2*u[i] + u[i+1]) for i = 1..4\nk = 0.75\nu[0] = 0\nu[5] = k\nu[i](0) = i/4 for i = 1..4\n0 <= t <= 2";

test.each<[string, string, string]>([
  ['Euler', TANK, 'Euler'],
  ['Heun with a quotient among the parameters', FALL, 'Heun'],
  ['RK4 of two components', PAIR, 'RK4'],
  ['Kutta 3 of a second-order equation', LEAP, 'Kutta 3'],
  ['RK4 of a family with edges', CHAIN, 'RK4'],
  ['Adams-Bashforth 4 and its first steps', PAIR, 'Adams-Bashforth 4'],
  ['a predictor and a corrector', TANK, 'Adams-Moulton 4, predicted'],
  ['leapfrog', FALL, 'Leapfrog'],
  ['Verlet', LEAP.replace("- 2*x' ", ''), 'Velocity Verlet'],
])('%s: every cell is what the run has, at the h of the file and at another', async (_, text, method) => {
  const study = studyOf(text, method);
  const calculated = new Calculated(await fileOf(study));
  const { start, end } = study.problem;
  agrees(calculated, 'Run 1', study, layGrid(start, end, { h: 0.5 }), 1e-15);
  agrees(calculated, 'Run 3', study, layGrid(start, end, { h: 0.125 }), 1e-15);
  // the requested h of the first rung is beside its number; the rungs below are its halves
  calculated.set1('Ladder', 3, 1, 0.3);
  agrees(calculated, 'Run 1', study, layGrid(start, end, { h: 0.3 }), 1e-15);
  agrees(calculated, 'Run 2', study, layGrid(start, end, { h: 0.15 }), 1e-15);
});

const SDIRK =
  'g = 1 - sqrt(2)/2\nsolve k1 = f(t + g*h, y + g*h*k1)\nsolve k2 = f(t + h, y + h*(1 - g)*k1 + g*h*k2)\ny[n+1] = y + h*(1 - g)*k1 + h*g*k2';

test.each<[string, string, string, string, number]>([
  ['slopes, one after another', SDIRK, TANK, 'k', 0.3],
  ['a value', 'Backward Euler', TANK, 'k', 0.3],
  ['two components', 'Trapezoidal rule', PAIR, 'b', 0.5],
  ['four unknowns of two stages', 'Gauss 2', PAIR, 'b', 0.5],
  ['earlier values and their starting method', 'BDF 2', FALL, 'g', 8.5],
  ['a stiff equation', 'BDF 2', "y' = -s*(y - cos(t)) - sin(t)\ns = 500\ny(0) = 2\n0 <= t <= 3", 's', 40],
])(
  'implicit: %s, by Newton, at the h of the file, at another, and with another parameter',
  async (_, method, text, name, value) => {
    const ladder = { first: 0.5, factor: 2, rungs: 2 };
    const study = studyOf(text, method, { ladder });
    const calculated = new Calculated(await fileOf(study));
    const { start, end } = study.problem;
    // Newton ends at the same root, but for the last places
    const near = 1e-13;
    agrees(calculated, 'Run 1', study, layGrid(start, end, { h: 0.5 }), near);
    calculated.set1('Ladder', 3, 1, 0.3);
    calculated.set(name, value);
    const other = studyOf(text.replace(new RegExp(`\\n${name} = .*`), `\n${name} = ${value}`), method, {
      ladder,
    });
    expect(other.problem.text).not.toBe(study.problem.text);
    agrees(calculated, 'Run 2', other, layGrid(start, end, { h: 0.15 }), near);
    const residuals = Object.entries(calculated.table('Run 2')[0]!).filter(([head]) =>
      /residual of/.test(head),
    );
    expect(residuals.length).toBeGreaterThan(0);
    for (const [, residual] of residuals) expect(Math.abs(Number(residual))).toBeLessThan(1e-11);
  },
  120_000,
);

test('functions of the spreadsheet agree within four units of the last place a step', async () => {
  const text =
    "y' = sin(t)*exp(-y) + ln(1 + t^2) + y^0.3 + atan2(y, 2) + mod(-t, 0.4) + floor(-t) + cbrt(y)\ny(0) = 1\n0 <= t <= 0.5";
  const study = studyOf(text, 'Euler');
  const grid = layGrid(0, 0.5, { h: 0.25 });
  const calculated = new Calculated(await fileOf(study, [grid]));
  agrees(calculated, 'Run 1', study, grid, 4 * LAST_PLACE);
});

/** The rungs of the sheet of the ladder, as many as a study has. */
function holdsLadder(calculated: Calculated, study: Study): void {
  const ladder = calculated.table('Ladder');
  const { rungs } = runStudy(study).methods[0]!;
  const last = componentNames(study.problem)[0]!;
  for (const [i, rung] of rungs.entries()) {
    const row = ladder[i]!;
    const error = Object.entries(row).find(([head]) => /error/.test(head))![1];
    expect([row['N'], row['h'], row[`${last} at the end`]]).toEqual([rung.steps, rung.h, rung.values[0]]);
    expect(Math.abs(Number(error) - rung.error!)).toBeLessThanOrEqual(1e-15 * rung.error!);
    if (i === 0) continue;
    expect(Math.abs(Number(row['ratio']) - rung.ratio!)).toBeLessThan(1e-14 * rung.ratio!);
    expect(Math.abs(Number(row['order']) - rung.order!)).toBeLessThan(1e-13);
  }
}

const EXACT_PAIR =
  "m' = l\nl' = -w^2*m\nw = 1.5\nm(0) = 1\nl(0) = 0\n0 <= t <= 3\nm(t) = cos(w*t)\nl(t) = -w*sin(w*t)";

test.each<[string, string, Partial<StudyDocument>]>([
  ['the end', TANK, {}],
  ['the maximum, relative', EXACT_PAIR, { error: { at: 'max', scale: 'relative' } }],
  ['the mean of one component', EXACT_PAIR, { error: { at: 'rms', of: 'l' } }],
  ['numbers of steps', EXACT_PAIR, { ladder: { counts: [5, 10, 30] } }],
  ['sizes that do not divide', TANK, { ladder: { sizes: [0.7, 0.35, 'pi/10'] } }],
])('errors, ratios and orders of the ladder: %s', async (_, text, more) => {
  const study = studyOf(text, 'Heun', more);
  holdsLadder(new Calculated(await fileOf(study)), study);
});

test('a parameter changed in the file changes everything that hangs on it', async () => {
  const text = TANK.replace('level(0) = 4', 'depth = 4\nlevel(0) = depth').replace('(2 -', '(sqrt(depth) -');
  const calculated = new Calculated(await fileOf(studyOf(text, 'Heun')));
  calculated.set('k', 0.25);
  calculated.set('depth', 2.25);
  holdsLadder(calculated, studyOf(text.replace('0.35', '0.25').replace('depth = 4', 'depth = 2.25'), 'Heun'));
});

test('names that a spreadsheet takes for cells or that differ in case alone get others', async () => {
  const text =
    "a1' = -R*a1 + c*A1\nA1' = r - β*A1\nR = 0.3\nr = 0.2\nc = 0.1\nβ = 0.6\na1(0) = 1\nA1(0) = 2\n0 <= t <= 2";
  const study = studyOf(text, 'RK4');
  const book = await fileOf(study);
  expect(book.Workbook?.Names?.map(({ Name }) => Name).slice(0, 4)).toEqual(['R_', 'r_2', 'c_', 'beta']);
  agrees(new Calculated(book), 'Run 1', study, layGrid(0, 2, { h: 0.5 }), 1e-15);
});

test('parameters named as the step sizes of the file stay apart from these', async () => {
  const names = ['h_1', 'N_1', 'n_1', 'N_2', 'h_of_run', 'N', 'n', 'y_start', 't_end'];
  const text = `y' = ${names.join(' + ')} - y\n${names.map((name, i) => `${name} = ${i}/8`).join('\n')}\ny(0) = 1\n0 <= t <= 2`;
  const study = studyOf(text, 'RK4');
  const book = await fileOf(study);
  const all = book.Workbook!.Names!.map(({ Name }) => Name.toLowerCase());
  expect(new Set(all).size).toBe(all.length);
  const calculated = new Calculated(book);
  agrees(calculated, 'Run 1', study, layGrid(0, 2, { h: 0.5 }), 1e-15);
  agrees(calculated, 'Run 2', study, layGrid(0, 2, { h: 0.25 }), 1e-15);
});

test('without calculating, readers find the numbers and their formats; titles are no formulas', async () => {
  const study = studyOf(TANK, 'Heun');
  const book = read(await xlsx(studyWorkbook('=1+1 <b>& "q"', study, 0)), { cellNF: true });
  const calculated = new Calculated(await fileOf(study));
  const sheet = book.Sheets['Run 2']!;
  const heads = ['n', 't', 'level', 'exact', 'error', 'k1', 'k2'];
  const table = calculated.table('Run 2');
  for (let n = 0; n <= 24; n += 1)
    heads.forEach((head, column) => {
      const cell = sheet[utils.encode_cell({ r: 3 + n, c: column })];
      expect(cell?.v ?? '').toBe(table[n]![head] ?? '');
    });
  // numbers of any size stay distinguishable
  expect(sheet['C5']?.z ?? 'General').toBe('General');
  const title = book.Sheets['Problem']!['A1'];
  expect([title?.v, title?.f, title?.t]).toEqual(['=1+1 <b>& "q"', undefined, 's']);
  const rung = book.Sheets['Ladder']!['I5'];
  expect(Math.abs(rung?.v - runStudy(study).methods[0]!.rungs[1]!.order!)).toBeLessThan(1e-13);
});

test('20,000 steps fit, more do not', async () => {
  const study = studyOf(TANK, 'Euler');
  const sheet = studyWorkbook('Reservoir', study, 0, [layGrid(0, 6, { steps: 20_000 })]);
  expect(sheet.sheets[2]!.rows).toHaveLength(20_004);
  const beyond = studyOf(TANK, 'Euler', { ladder: { counts: [10, 30_000] } });
  expect(studyWorkbook('Reservoir', beyond, 0).sheets[1]!.rows.at(-1)).toEqual([
    { content: 'omitted: N = 30,000, more than 20,000 steps', kind: 'note' },
  ]);
});

test.each<[string, string, string, Partial<StudyDocument>]>([
  ['seven unknowns', CHAIN.replaceAll('1..4', '1..7').replace('u[5]', 'u[8]'), 'Backward Euler', {}],
  ['derivatives of f', TANK, 'Taylor 2', {}],
  ['fifty-one components', CHAIN.replaceAll('1..4', '1..51').replace('u[5]', 'u[52]'), 'Euler', {}],
  ['single precision', TANK, 'Euler', { precision: 'single' }],
  ['errors of one step', TANK, 'Euler', { error: { at: 'local' } }],
  ['runs of more than 20,000 steps', TANK, 'Euler', { ladder: { counts: [20_001] } }],
  ['a last step of another size', TANK, 'Euler', { ladder: { sizes: [0.7] }, lastStep: 'shorten' }],
])('%s are refused with the reason', (_, text, method, more) => {
  expect(() => studyWorkbook('Reservoir', studyOf(text, method, more), 0)).toThrow(Refusal);
});

test('a run has charts of its values and errors, the step sizes have one of the errors on logarithmic axes', async () => {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Tank',
    problem: { title: 'Tank', text: TANK },
    methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
    ladder: { counts: [6, 12] },
  });
  if (!opened.ok) throw new Error('study');
  const { sheets } = studyWorkbook('Tank', opened.study, 0);
  const named = (name: string): (typeof sheets)[number] => {
    const found = sheets.find((sheet) => sheet.name === name);
    if (found === undefined) throw new Error(name);
    return found;
  };
  const { charts = [], rows } = named('Run 1');
  const heads = rows[2]?.map(({ content }) => content) ?? [];
  expect(
    charts.map(({ title, x, series }) => [title, heads[x.column], series.map(({ column }) => heads[column])]),
  ).toEqual([
    ['Solution', 'chart: t', ['chart: level']],
    ['Error', 'chart: t', ['chart: error']],
  ]);
  const [study] = named('Ladder').charts ?? [];
  expect(study).toMatchObject({ logarithmic: true, rows: [3, 4] });
  const written = await readXlsx(await xlsx(studyWorkbook('Tank', opened.study, 0)));
  expect(written.sheets.map((sheet) => sheet.charts?.length ?? 0)).toEqual([0, 1, 2, 2]);
});
