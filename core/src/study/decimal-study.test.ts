import type { MethodInStudy, StudyDocument } from '../document/document.ts';
import { openStudy } from '../document/open-study.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { studyReport } from '../publish/study-report.ts';
import { fixedRun, lessFixed } from '../../trust/fixed-point.ts';
import { layGrid } from '../run/grid.ts';
import { rowsOf } from '../run/rows.ts';
import { curvesOf } from './curves.ts';
import { withReference } from './rows-against-reference.ts';
import { finish, runStudy } from './run-study.ts';
import { runOf, type Study } from './runs/study.ts';
import type { StudyResult } from './study-result.ts';

type Chosen = Omit<MethodInStudy, 'text'> & { readonly text?: string };

function study(
  text: string,
  methods: readonly Chosen[],
  counts: readonly number[],
  more: Partial<StudyDocument> = {},
): Study {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Probe',
    problem: { title: 'Probe', text },
    methods: methods.map((method) => ({
      ...method,
      text: method.text ?? findInLibrary(method.title)?.text ?? '',
    })),
    ladder: { counts },
    ...more,
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

function errorsOf(result: StudyResult, method = 0): readonly (number | null)[] {
  return result.methods[method]!.rungs.map(({ error }) => error);
}

const DECAY = "y' = -y + t\ny(0) = 1\n0 <= t <= 2\ny(t) = 2*exp(-t) + t - 1";
const FROST = "s' = 0.5/s\ns(0) = 1\n0 <= t <= 3\ns(t) = sqrt(1 + t)";

const GAUSS_3 = [
  'r = sqrt(15)',
  `solve k1, k2, k3 = ${[
    'f(t + (1/2 - r/10)*h, y + h*(5/36*k1 + (2/9 - r/15)*k2 + (5/36 - r/30)*k3))',
    'f(t + h/2, y + h*((5/36 + r/24)*k1 + 2/9*k2 + (5/36 - r/24)*k3))',
    'f(t + (1/2 + r/10)*h, y + h*((5/36 + r/30)*k1 + (2/9 + r/15)*k2 + 5/36*k3))',
  ].join(', ')}`,
  'y[n+1] = y + h*(5/18*k1 + 4/9*k2 + 5/18*k3)',
].join('\n');
const TAYLOR_12 = `y[n+1] = y + ${Array.from(
  { length: 12 },
  (_, i) =>
    `h^${i + 1}/(${Array.from({ length: i + 1 }, (__, k) => k + 1).join('*')})*f${"'".repeat(i)}(t, y)`,
).join(' + ')}`;

test.each([
  ['RK8', FROST, findInLibrary('RK8')!.text, 8, [128, 256, 512]],
  // on the frost line it is exact: s^2 - t is a quadratic invariant
  ['Gauss 3', DECAY, GAUSS_3, 6, [128, 256, 512]],
  ['Taylor 12', FROST, TAYLOR_12, 12, [64, 128, 256]],
] as const)('%s shows its order with 50 digits, to a hundredth', (title, of, text, order, counts) => {
  const result = runStudy(study(of, [{ title, text, precision: { digits: 50 } }], counts));
  const { rungs, promised, order: range } = result.methods[0]!;
  expect(promised).toMatchObject({ order });
  // far below what doubles could show
  expect(rungs.at(-1)!.error).toBeLessThan(1e-16);
  expect(Math.abs((range?.value ?? NaN) - order)).toBeLessThan(0.01);
});

test('Taylor 20 goes on where doubles end, and its derivatives keep all digits', () => {
  const text = `y[n+1] = y + ${Array.from(
    { length: 20 },
    (_, i) =>
      `h^${i + 1}/(${Array.from({ length: i + 1 }, (__, k) => k + 1).join('*')})*f${"'".repeat(i)}(t, y)`,
  ).join(' + ')}`;
  const result = runStudy(study(DECAY, [{ title: 'Taylor 20', text, precision: { digits: 60 } }], [32, 64]));
  const [coarse, fine] = errorsOf(result);
  // exp(-h) less its first 21 terms is h^21/21!*(1 - h/22), and 32 steps of 1/16 add up
  const h = 1 / 16;
  const expected = (32 * 2 * Math.exp(h - 2) * h ** 21 * (1 - h / 22)) / 51090942171709440000;
  expect(coarse! / expected).toBeCloseTo(1, 3);
  expect(Math.log2(coarse! / fine!)).toBeCloseTo(20, 1);
});

test('what rounding makes of errors in double precision is that from a run in 256 binary places', () => {
  const of = study(
    DECAY,
    [
      { title: 'RK4', precision: 'double' },
      { title: 'RK4 with 100 digits', text: findInLibrary('RK4')!.text, precision: { digits: 100 } },
    ],
    [512, 1024, 2048, 4096],
  );
  const result = runStudy(of);
  result.methods[0]!.rungs.forEach(({ steps, values, rounding }) => {
    const fixed = fixedRun(of.problem, of.methods[0]!.method, steps);
    const seen = Math.abs(lessFixed(values[0]!, fixed!));
    expect(Math.abs(rounding!.beside!.difference - seen)).toBeLessThanOrEqual(0.02 * seen);
  });
  const finding = result.findings.find(({ kind, method }) => kind === 'rounding part' && method === 0);
  expect(finding?.sentence).toMatch(
    /^At N = 4,096 the rounding error is .+, compared with an error of .+; it is the difference from the same run with 100 digits\.$/,
  );
});

test('errors are taken with more digits than the runs have, against the exact solution or a reference', () => {
  const withExact = runStudy(study(DECAY, [{ title: 'RK4', precision: { digits: 40 } }], [8, 16]));
  const without = DECAY.split('\n').slice(0, 3).join('\n');
  const reference = runStudy(study(without, [{ title: 'RK4', precision: { digits: 40 } }], [8, 16]));
  errorsOf(withExact).forEach((error, i) => {
    expect(errorsOf(reference)[i]! / error!).toBeCloseTo(1, 13);
  });
  const taken = reference.methods[0]!.rungs[0]!.taken!;
  expect([taken.doubt > 0, taken.doubt < 1e-40]).toEqual([true, true]);
});

test('a maximum over the grid and an error between grid points keep the digits of the runs', () => {
  const method = [{ title: 'Taylor 12', text: TAYLOR_12, precision: { digits: 40 } }];
  const most = runStudy(study(DECAY, method, [16], { error: { at: 'max' } }));
  expect(errorsOf(most)[0]).toBeLessThan(1e-18);
  const between = runStudy(study(DECAY, method, [16, 32], { error: { at: { t: 0.7 } } }));
  const [coarse, fine] = errorsOf(between);
  expect(coarse).toBeLessThan(1e-17);
  expect(Math.log2(coarse! / fine!)).toBeGreaterThan(11);
});

test('a pocket calculator: with four digits smaller steps make it worse, cut off more than rounded', () => {
  const text = findInLibrary('Heun')!.text;
  const result = runStudy(
    study(
      FROST,
      [
        { title: 'to the nearest', text, precision: { digits: 4 } },
        { title: 'chopped', text, precision: { digits: 4 }, rounding: 'chop' },
        { title: 'stored', text, precision: { digits: 4 }, rounded: 'stored' },
      ],
      [8, 32, 128, 512],
    ),
  );
  const last = result.methods.map((_, i) => errorsOf(result, i).at(-1)!);
  expect(last[1]).toBeGreaterThan(last[0]!);
  expect(last[0]).toBeGreaterThan(10 * errorsOf(result)[1]!);
  // each step of h = 3/512 adds less than a unit of the fourth digit and a half
  expect(last[1]).toBeLessThan(512 * 1e-3);
  for (const { rungs } of result.methods)
    for (const { decimals } of rungs) expect(decimals?.[0]).toMatch(/^\d(\.\d{1,3})?$/);
});

test('the report has numbers for doubles, and texts with all digits for decimals', () => {
  const of = study(DECAY, [{ title: 'RK4', precision: { digits: 25 } }, { title: 'Heun' }], [4]);
  const { methods } = studyReport('Probe', of.problem, runStudy(of));
  expect(methods[0]!.rungs[0]!.values['y']).toMatch(/^1\.27\d{22,23}$/);
  expect(typeof methods[1]!.rungs[0]!.values['y']).toBe('number');
});

test('errors along a run have more digits than a difference of doubles', () => {
  const of = study(DECAY, [{ title: 'Taylor 12', text: TAYLOR_12, precision: { digits: 40 } }], [64]);
  const { runs } = finish(curvesOf(of, [{ method: 0, gridRequest: { steps: 64 } }]));
  const { errors, values } = runs[0]!.components[0]!;
  expect(values).toHaveLength(65);
  expect(errors?.[0]).toBe(0);
  const sizes = errors!.slice(1).map(Math.abs);
  expect(Math.max(...sizes)).toBeLessThan(1e-24);
  expect(Math.min(...sizes)).toBeGreaterThan(0);
});

test('rows against a reference have its digits, and errors below those of doubles', () => {
  const without = DECAY.split('\n').slice(0, 3).join('\n');
  const of = study(without, [{ title: 'Taylor 12', text: TAYLOR_12, precision: { digits: 40 } }], [32]);
  const method = of.methods[0]!;
  const grid = layGrid(0, 2, { steps: 32 });
  const { rows } = rowsOf(runOf(of, method), grid, { from: 31, count: 2 });
  expect(rows[1]?.digits?.exact).toEqual([null]);
  const [, last] = withReference(of, method, grid, rows);
  // 2 exp(-2) + 1, by the decimal module
  expect(last?.digits?.exact[0]?.slice(0, 36)).toBe('1.2706705664732253837879989899449688');
  expect(Math.abs(last?.digits?.errors[0] ?? NaN)).toBeLessThan(1e-22);
});

test('a conserved quantity drifts as far as the run does, below the digits of doubles', () => {
  const of = study(
    "x' = v\nv' = -x\nx(0) = 1\nv(0) = 0\n0 <= t <= 1\nconserved E = x^2/2 + v^2/2",
    [{ title: 'RK8', precision: { digits: 40 } }],
    [32, 64],
  );
  const [coarse, fine] = runStudy(of).methods[0]!.rungs.map(({ drift }) => Math.abs(drift['E'] ?? NaN));
  expect(coarse).toBeLessThan(1e-17);
  // of order 9: the energy of RK8 is off by the next even power
  expect(Math.log2(coarse! / fine!)).toBeGreaterThan(8.5);
  const grid = layGrid(0, 1, { steps: 32 });
  const { rows } = rowsOf(runOf(of, of.methods[0]!), grid, { from: 32, count: 1 });
  expect(rows[0]?.digits?.conserved[0]).toMatch(/^0\.(4|5)\d{25,}$/);
});

test('a system too large for decimals is refused for that method alone', () => {
  const many = "u[i]' = -u[i] for i = 1..120\nu[i](0) = 1 for i = 1..120\n0 <= t <= 1";
  const { methods } = runStudy(
    study(many, [{ title: 'Heun' }, { title: 'RK4', precision: { digits: 34 } }], [4]),
  );
  expect(methods.map(({ refused }) => refused)).toEqual([
    null,
    'a run with 34 digits takes up to 100 components, and this problem has 120; take fewer of them, or double precision',
  ]);
});
