import { compileWithStart } from '../compile/compile-with-start.ts';
import type { StudyDocument } from '../document/document.ts';
import { openStudy } from '../document/open-study.ts';
import { randomFrom } from '../elementary/random.ts';
import { LIBRARY } from '../method/library/library.ts';
import { layGrid } from '../run/grid.ts';
import { rowsOf } from '../run/rows.ts';
import type { Study } from '../study/runs/study.ts';
import { randomStudy } from '../../trust/random-study.ts';
import { markClass } from './mark-class.ts';
import { markColumn, type Marking } from './mark-column.ts';
import { markingJson } from './marking-json.ts';
import { markingText } from './marking-text.ts';
import type { MistakeKind } from './mistakes/change.ts';

const TANK = "level' = -k*sqrt(level) + t\nk = 0.35\nlevel(0) = 4\n0 <= t <= 2";
const SOIL = "s' = c/s - s^2*t/9\nc = 0.5\ns(0) = 1\n0 <= t <= 3";
const SWAY = "a' = b + t/4\nb' = -2*a - b/3\na(0) = 1\nb(0) = 0.5\n0 <= t <= 2";

const textOf = (title: string): string => LIBRARY.find((known) => known.title === title)?.text ?? title;
const HEUN = textOf('Heun');
const RK4 = textOf('RK4');
const MIDPOINT = textOf('Midpoint');
const AB2 = textOf('Adams-Bashforth 2');

function studyOf(text: string, method: string, more: Partial<StudyDocument> = {}): Study {
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Reservoir',
    problem: { title: 'Reservoir', text },
    methods: [{ title: 'Own', text: method }],
    ladder: { counts: [10] },
    ...more,
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

/** The values of a run, by the loops that studies are made with. */
function run(text: string, method: string, steps: number): readonly (readonly number[])[] {
  const study = studyOf(text, method);
  const { problem } = study;
  const compiled = compileWithStart(problem, study.methods[0]!.method, study.start);
  return rowsOf(compiled, layGrid(problem.start, problem.end, { steps }), {
    from: 0,
    count: steps + 1,
  }).rows.map(({ values }) => values);
}

function column(rows: readonly (readonly number[])[], decimals = 4): string {
  return rows.map((values, n) => [n, ...values.map((value) => value.toFixed(decimals))].join(';')).join('\n');
}

function mark(text: string, method: string, given: string, steps = 10): Marking {
  const study = studyOf(text, method);
  const { start, end } = study.problem;
  return markColumn({ study, method: 0, grid: layGrid(start, end, { steps }) }, given);
}

describe('rows', () => {
  test('right rows agree, whatever they are written like', () => {
    const rows = run(TANK, RK4, 10);
    const right = mark(TANK, RK4, column(rows));
    expect([right.firstWrong, right.mistakes, markingText(right)]).toEqual([
      null,
      [],
      ['All 11 rows agree to 4 decimal places.'],
    ]);
    const times = rows.map(([y], n) => `${(0.2 * n).toFixed(1)}\t${y!.toFixed(5).replace('.', ',')}`);
    expect(mark(TANK, RK4, `t\tlevel (m)\n${times.join('\n')}`).firstWrong).toBeNull();
    const bare = rows.slice(1).map(([y]) => y!.toPrecision(6));
    const behindStart = mark(TANK, RK4, bare.join('\n'));
    expect([behindStart.firstWrong, behindStart.rows[0]?.n]).toEqual([null, 1]);
  });

  test('stages are marked, too', () => {
    const study = studyOf(TANK, HEUN);
    const compiled = compileWithStart(study.problem, study.methods[0]!.method, study.start);
    const { rows } = rowsOf(compiled, layGrid(0, 2, { steps: 10 }), { from: 0, count: 11 });
    const text = (wrong: number): string =>
      [
        'n;level;k1;k2',
        ...rows.map(({ n, values, stages }) =>
          [
            n,
            values[0]!.toFixed(4),
            ...(stages ?? [[], []]).map(([k], i) =>
              k === undefined ? '' : (k + (n === 3 && i === 1 ? wrong : 0)).toFixed(4),
            ),
          ].join(';'),
        ),
      ].join('\n');
    expect(mark(TANK, HEUN, text(0)).firstWrong).toBeNull();
    expect(mark(TANK, HEUN, text(0.01)).firstWrong).toBe(3);
  });

  test('one slip of arithmetic is one bad row: later steps are right, from a wrong value', () => {
    const [, ...right] = run(TANK, RK4, 10);
    // Heun by hand from a wrong fourth value on
    const f = (t: number, y: number): number => -0.35 * Math.sqrt(y) + t;
    let y = 4;
    const rows = [[4], ...right.map(() => [0])];
    for (let n = 0; n < 10; n += 1) {
      const k1 = f(0.2 * n, y);
      y += 0.1 * (k1 + f(0.2 * (n + 1), y + 0.2 * k1));
      if (n === 3) y += 0.0321;
      rows[n + 1] = [y];
    }
    const marking = mark(TANK, HEUN, column(rows, 6));
    const { firstWrong, rows: verdicts, mistakes } = marking;
    const sentences = markingText(marking);
    expect(firstWrong).toBe(4);
    expect(verdicts.filter(({ agreesWithOwn }) => agreesWithOwn === false).map(({ n }) => n)).toEqual([4]);
    expect(verdicts.filter(({ agrees }) => !agrees).map(({ n }) => n)).toEqual([4, 5, 6, 7, 8, 9, 10]);
    expect(sentences[0]).toBe('Rows 0–3 agree to 6 decimal places.');
    expect(sentences[2]).toBe('From row 5 on, each step is right, starting from a wrong value.');
    expect([mistakes, marking.slip]).toEqual([[], 4]);
  });

  test('JSON has a line for each row, and mistakes with their lines', () => {
    const wrong = column(run(TANK, HEUN.replace('t + h', 't'), 10));
    const json = markingJson(mark(TANK, HEUN, wrong));
    expect(json.firstWrong).toBe(1);
    expect(json.digits).toBe(5);
    expect(json.rows[0]).toEqual({ n: 0, given: 4, right: 4, fromOwn: null, agrees: true });
    expect(json.mistakes).toContainEqual({
      kind: 'time of a stage',
      line: 2,
      given: 'k2 = f(t, y + h*k1)',
      right: 'k2 = f(t + h, y + h*k1)',
      explains: 11,
      sentence: 'In line 2 of the method, f is evaluated at t instead of t + h: k2 = f(t, y + h*k1).',
    });
  });
});

/** A mistake in a text: what is right, and what a student has written for it. */
type Planted = readonly [kind: MistakeKind, problem: string, method: string, from: string, to: string];

const PLANTED: readonly Planted[] = [
  ['missing h', TANK, RK4, 'y + h/2*k2', 'y + 1/2*k2'],
  ['missing h', SOIL, HEUN, 'y + h*k1', 'y + k1'],
  ['missing h', SWAY, MIDPOINT, 'y + h*k2', 'y + k2'],
  ['power of h', TANK, HEUN, 'y + h*k1', 'y + h^2*k1'],
  ['power of h', SOIL, MIDPOINT, 'y + h/2*k1', 'y + h*k1'],
  ['power of h', SWAY, RK4, 'y + h*k3', 'y + h/2*k3'],
  ['time of a stage', TANK, RK4, 't + h, y', 't, y'],
  ['time of a stage', SOIL, HEUN, 't + h', 't'],
  ['time of a stage', SWAY, MIDPOINT, 't + h/2', 't + h'],
  ['stage', TANK, HEUN, '(k1 + k2)', '(k1 + k1)'],
  ['stage', SOIL, RK4, 'h/2*k2', 'h/2*k1'],
  ['stage', SWAY, MIDPOINT, 'y + h*k2', 'y + h*k1'],
  ['exchanged', TANK, RK4, 'k1 + 2*k2', 'k2 + 2*k1'],
  ['exchanged', SOIL, textOf('Kutta 3'), 'k1 + 4*k2', 'k2 + 4*k1'],
  ['exchanged', SWAY, textOf('Ralston 2'), '1/4*k1 + 3/4*k2', '1/4*k2 + 3/4*k1'],
  ['weights', TANK, AB2, '3*f[n] - f[n-1]', 'f[n] - 3*f[n-1]'],
  ['weights', SOIL, textOf('Adams-Bashforth 3'), '23*f[n] - 16*f[n-1]', '16*f[n] - 23*f[n-1]'],
  ['weights', SWAY, textOf('Adams-Bashforth 4'), '55*f[n] - 59*f[n-1]', '59*f[n] - 55*f[n-1]'],
  ['index', TANK, textOf('Adams-Bashforth 4'), '37*f[n-2]', '37*f[n-1]'],
  ['index', SOIL, textOf('Adams-Bashforth 3'), '16*f[n-1]', '16*f[n]'],
  ['index', SWAY, textOf('Adams-Bashforth 3'), '16*f[n-1]', '16*f[n-2]'],
  ['coefficient', TANK, RK4, 'h/6', 'h/8'],
  ['coefficient', SOIL, textOf('Adams-Bashforth 4'), '59', '95'],
  ['coefficient', SWAY, textOf('Kutta 3'), '4*k2', '5*k2'],
  ['sign', TANK, RK4, 'k1 + 2*k2', 'k1 - 2*k2'],
  ['sign', SOIL, HEUN, 'k1 + k2', 'k1 - k2'],
  ['sign', SWAY, AB2, '- f[n-1]', '+ f[n-1]'],
  ['missing term', TANK, RK4, '2*k3 + k4', '2*k3'],
  ['missing term', SOIL, HEUN, 'k1 + k2', 'k1'],
  ['missing term', SWAY, textOf('Kutta 3'), 'y - h*k1', '-h*k1'],
  ['missing factor', TANK, RK4, '2*k3', 'k3'],
  ['missing factor', SOIL, textOf('Kutta 3'), '4*k2', 'k2'],
  ['missing factor', SWAY, textOf('Kutta 3'), '2*h*k2', 'h*k2'],
  ['bracket', TANK, HEUN, 'h/2*(k1 + k2)', 'h/2*k1 + k2'],
  ['bracket', SOIL, RK4, 'h/6*(k1 + 2*k2 + 2*k3 + k4)', '(h/6*(k1 + 2*k2 + 2*k3) + k4)'],
  ['bracket', SWAY, AB2, '(3*f[n] - f[n-1])', '3*f[n] - f[n-1]'],
  [
    'corrector',
    TANK,
    'p = y + h*f(t, y)\ny[n+1] = y + h/2*(f(t, y) + f(t + h, p))',
    'y[n+1] = y + h/2*(f(t, y) + f(t + h, p))',
    'y[n+1] = p',
  ],
  [
    'corrector',
    SOIL,
    'p = y + h*f(t, y)\ny[n+1] = y + h/2*(f(t, y) + f(t + h, p))',
    'y[n+1] = y + h/2*(f(t, y) + f(t + h, p))',
    'y[n+1] = p',
  ],
  [
    'corrector',
    SWAY,
    'p = y + h*f(t, y)\ny[n+1] = y + h*f(t + h, p)',
    'y[n+1] = y + h*f(t + h, p)',
    'y[n+1] = p',
  ],
];

/** Mistakes in the equation. */
const IN_PROBLEM: readonly Planted[] = [
  ['sign', TANK, RK4, '+ t', '- t'],
  ['sign', SOIL, HEUN, 'c/s - s^2', 'c/s + s^2'],
  ['sign', SWAY, AB2, '-2*a', '2*a'],
  ['missing factor', TANK, RK4, '-k*sqrt', '-sqrt'],
  ['missing term', SOIL, HEUN, ' - s^2*t/9', ''],
  ['power', SOIL, MIDPOINT, 's^2*t', 's*2*t'],
  ['power', SOIL.replace('s^2', 's^3'), RK4, 's^3', 's'],
  ['power', "y' = t - y^2/4\ny(0) = 2\n0 <= t <= 2", HEUN, 'y^2', 'y*2'],
  ['negative base', "y' = -y^2/3 + t\ny(0) = 1\n0 <= t <= 1", HEUN, '-y^2/3', '(-y)^2/3'],
  ['negative base', "y' = -t^2 + y\ny(0) = 1\n0 <= t <= 1", RK4, '-t^2', '(-t)^2'],
  ['negative base', "y' = 2*t - y^2\ny(0) = 1\n0 <= t <= 1", MIDPOINT, '- y^2', '+ y^2'],
  ['degrees', "y' = sin(t) - y\ny(0) = 1\n0 <= t <= 2", HEUN, 'sin(t)', 'sin(t*pi/180)'],
  ['degrees', "y' = y*cos(3*t)\ny(0) = 1\n0 <= t <= 2", RK4, 'cos(3*t)', 'cos(3*t*pi/180)'],
  ['degrees', "y' = tan(t/2) - y\ny(0) = 1\n0 <= t <= 1", MIDPOINT, 'tan(t/2)', 'tan(t/2*pi/180)'],
  ['logarithm', "y' = ln(2 + t) - y\ny(0) = 1\n0 <= t <= 2", HEUN, 'ln', 'log10'],
  ['logarithm', "y' = y*ln(1 + t)\ny(0) = 1\n0 <= t <= 2", RK4, 'ln', 'log10'],
  ['logarithm', "y' = 1 - ln(y + 1)\ny(0) = 2\n0 <= t <= 2", MIDPOINT, 'ln', 'log10'],
  ['integer division', "y' = 3/2*t - y\ny(0) = 1\n0 <= t <= 2", HEUN, '3/2', '1'],
  ['integer division', "y' = 1/4 - y\ny(0) = 1\n0 <= t <= 2", RK4, '1/4', '0'],
  ['integer division', "y' = y*(7/3 - y)\ny(0) = 1\n0 <= t <= 2", MIDPOINT, '7/3', '2'],
  ['name', SWAY, RK4, '-2*a', '-2*b'],
  ['name', SWAY, HEUN, 'b + t/4', 'a + t/4'],
  [
    'name',
    "m' = p*m - q*m*l\nl' = q*m*l - l\np = 1.1\nq = 0.4\nm(0) = 2\nl(0) = 1\n0 <= t <= 2",
    MIDPOINT,
    "m' = p*m",
    "m' = q*m",
  ],
  ['coefficient', SOIL, AB2, 't/9', 't/6'],
];

/** What was planted in a text: replaced once. */
const planted = (text: string, from: string, to: string): string => {
  if (text.split(from).length < 2) throw new Error(`${from} is not in ${text}`);
  return text.replace(from, to);
};

const isFound = ({ mistakes }: Marking, kind: MistakeKind): boolean =>
  mistakes.some(({ kinds }) => kinds.length === 1 && kinds[0] === kind);

describe('a mistake in a text is found from rows with four decimals, alone or among equals', () => {
  test.each(PLANTED.map((one) => [one[0], one[3], one[4], one] as const))(
    '%s: %s as %s',
    (kind, from, to, [, problem, method]) => {
      const wrong = column(run(problem, planted(method, from, to), 10));
      const marking = mark(problem, method, wrong);
      expect(marking.mistakes.map(({ kinds }) => kinds.join())).toContain(kind);
    },
  );

  test.each(IN_PROBLEM.map((one) => [one[0], one[3], one[4], one] as const))(
    'in the equation, %s: %s as %s',
    (kind, from, to, [, problem, method]) => {
      const wrong = column(run(planted(problem, from, to), method, 10));
      const marking = mark(problem, method, wrong);
      // y^2 with another sign is also a sign
      const kinds = kind === 'negative base' ? [kind, 'sign'] : [kind];
      expect(kinds.some((one) => marking.mistakes.some((found) => found.kinds.join() === one))).toBe(true);
    },
  );
});

type F = (t: number, y: readonly number[]) => readonly number[];
const tank: F = (t, [level]) => [-0.35 * Math.sqrt(level!) + t];
const soil: F = (t, [s]) => [0.5 / s! - (s! * s! * t) / 9];
const sway: F = (t, [a, b]) => [b! + t / 4, -2 * a! - b! / 3];
const CASES: readonly (readonly [text: string, f: F, start: readonly number[], end: number])[] = [
  [TANK, tank, [4], 2],
  [SOIL, soil, [1], 3],
  [SWAY, sway, [1, 0.5], 2],
];

/** Heun's method by a loop of its own, with times and values as a student has them. */
function heun(
  f: F,
  start: readonly number[],
  h: number,
  steps: number,
  { time = (n: number) => n * h, keep = (y: number) => y } = {},
): readonly (readonly number[])[] {
  const rows: number[][] = [start.map(keep)];
  for (let n = 0; n < steps; n += 1) {
    const y = rows[n]!;
    const k1 = f(time(n), y);
    const k2 = f(
      time(n) + h,
      y.map((v, j) => v + h * k1[j]!),
    );
    rows.push(y.map((v, j) => keep(v + (h / 2) * (k1[j]! + k2[j]!))));
  }
  return rows;
}

describe.each(CASES)('a mistake in a run of %j is found', (text, f, start, end) => {
  const h = end / 10;
  test.each<[MistakeKind, () => readonly (readonly number[])[], number]>([
    ['time constant', () => heun(f, start, h, 10, { time: () => 0 }), 4],
    [
      'time in single precision',
      () => {
        const times = [0];
        for (let n = 0; n < 10; n += 1) times.push(Math.fround(times[n]! + Math.fround(h)));
        return heun(f, start, h, 10, { time: (n) => times[n]! });
      },
      10,
    ],
    ['time ahead', () => heun(f, start, h, 10, { time: (n) => (n + 1) * h }), 4],
    ['step size', () => heun(f, start, h / 2, 10), 4],
    ['number of steps', () => heun(f, start, end / 9, 9), 4],
    ['rounded rows', () => heun(f, start, h, 10, { keep: (y) => Math.round(y * 100) / 100 }), 2],
    [
      'initial value',
      () =>
        heun(
          f,
          start.map((y) => y + 0.25),
          h,
          10,
        ),
      4,
    ],
    ['shifted rows', () => heun(f, start, h, 11).slice(1), 4],
    ['method', () => run(text, textOf('Euler'), 10), 4],
  ])('%s', (kind, rows, decimals) => {
    expect(isFound(mark(text, HEUN, column(rows(), decimals)), kind)).toBe(true);
  });

  test('single precision', () => {
    const rows: number[][] = [start.map(Math.fround)];
    const study = studyOf(text, HEUN, { precision: 'single' });
    const compiled = compileWithStart(study.problem, study.methods[0]!.method, study.start);
    const single = rowsOf(compiled, layGrid(0, end, { steps: 10 }), { from: 0, count: 11 }).rows;
    rows.push(...single.slice(1).map(({ values }) => [...values]));
    expect(isFound(mark(text, HEUN, column(rows, 10)), 'single precision')).toBe(true);
  });

  test('other starting values', () => {
    const method = AB2.replace(/start with .*/, 'start with Euler');
    const wrong = column(run(text, method, 10));
    expect(isFound(mark(text, AB2, wrong), 'starting method')).toBe(true);
  });
});

test('components updated one after the other', () => {
  const euler = textOf('Euler');
  for (const [text, f, start] of [
    [SWAY, sway, [1, 0.5]],
    ["a' = b\nb' = -a\na(0) = 1\nb(0) = 0\n0 <= t <= 2", (_t, [a, b]) => [b!, -a!], [1, 0]],
    [
      "a' = a - a*b/2\nb' = a*b/2 - b\na(0) = 1\nb(0) = 2\n0 <= t <= 2",
      (_t, [a, b]) => [a! - (a! * b!) / 2, (a! * b!) / 2 - b!],
      [1, 2],
    ],
  ] satisfies readonly (readonly [string, F, readonly number[]])[]) {
    const rows: number[][] = [[...start]];
    for (let n = 0; n < 10; n += 1) {
      const mixed = [...rows[n]!];
      for (let j = 0; j < 2; j += 1) mixed[j]! += 0.2 * f(0.2 * n, mixed)[j]!;
      rows.push(mixed);
    }
    expect(isFound(mark(text, euler, column(rows)), 'one after the other')).toBe(true);
  }
});

test('components updated from the last to the first', () => {
  const euler = textOf('Euler');
  for (const [text, f] of [
    [SWAY, sway],
    ["a' = b\nb' = -a\na(0) = 1\nb(0) = 0.5\n0 <= t <= 2", (_t, [a, b]) => [b!, -a!]],
    [
      "a' = a - a*b/2\nb' = a*b/2 - b\na(0) = 1\nb(0) = 0.5\n0 <= t <= 2",
      (_t, [a, b]) => [a! - (a! * b!) / 2, (a! * b!) / 2 - b!],
    ],
  ] satisfies readonly (readonly [string, F])[]) {
    const rows: number[][] = [[1, 0.5]];
    for (let n = 0; n < 10; n += 1) {
      const mixed = [...rows[n]!];
      for (const j of [1, 0]) mixed[j]! += 0.2 * f(0.2 * n, mixed)[j]!;
      rows.push(mixed);
    }
    expect(isFound(mark(text, euler, column(rows)), 'one after the other')).toBe(true);
  }
});

test('components updated together where one needs the new value of the other', () => {
  const method = 'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]\n';
  for (const [text, a] of [
    ["x'' = -x\nx(0) = 1\nx'(0) = 0.5\n0 <= t <= 2", (x: number) => -x],
    ["x'' = -2*x - x'/4\nx(0) = 1\nx'(0) = 0.5\n0 <= t <= 2", (x: number, v: number) => -2 * x - v / 4],
    ["x'' = -sin(x)\nx(0) = 1\nx'(0) = 0.5\n0 <= t <= 2", (x: number) => -Math.sin(x)],
  ] satisfies readonly (readonly [string, (x: number, v: number) => number])[]) {
    const rows = [[1, 0.5]];
    for (let n = 0; n < 10; n += 1) {
      const [x = 0, v = 0] = rows[n]!;
      rows.push([x + 0.2 * v, v + 0.2 * a(x, v)]);
    }
    expect(isFound(mark(text, method, column(rows)), 'together')).toBe(true);
  }
});

describe('the end of the interval', () => {
  const shortened = (text: string, method: string): Study => studyOf(text, method, { lastStep: 'shorten' });

  test.each(CASES)('a last step that is shorter, in %j', (text, f, start, end) => {
    const study = shortened(text, HEUN);
    const h = (end / 10) * 1.2;
    const grid = layGrid(0, end, { h }, 'shorten');
    expect(grid.shorter).not.toBeNull();
    const full = heun(f, start, h, grid.steps);
    const before = full.at(-2)!;
    const last = grid.shorter!;
    const t = h * (grid.steps - 1);
    const k1 = f(t, before);
    const k2 = f(
      t + last,
      before.map((v, j) => v + last * k1[j]!),
    );
    const end_ = before.map((v, j) => v + (last / 2) * (k1[j]! + k2[j]!));
    const request = { study, method: 0, grid };
    const right = markColumn(request, column([...full.slice(0, -1), end_], 6));
    expect(right.firstWrong).toBeNull();
    expect(right.rows.at(-1)?.t).toBeCloseTo(end, 12);
    // the last step has the full size
    const over = markColumn(request, column(full, 6));
    expect(over.firstWrong).toBe(grid.steps);
    expect(isFound(over, 'past the end')).toBe(true);
  });

  test.each(CASES)('rows past the end, in %j', (text, f, start, end) => {
    const over = mark(text, HEUN, column(heun(f, start, end / 10, 12)));
    expect(over.firstWrong).toBe(11);
    expect(isFound(over, 'past the end')).toBe(true);
  });
});

describe.each(CASES)('digits that are cut off, in %j', (text, f, start, end) => {
  const cut = (rows: readonly (readonly number[])[]): string =>
    column(rows.map((row) => row.map((y) => Math.trunc(y * 1e4) / 1e4)));

  test('are right, and reported', () => {
    const { firstWrong, digits, mistakes } = mark(text, HEUN, cut(heun(f, start, end / 10, 10)));
    expect([firstWrong, digits.areCut, mistakes]).toEqual([null, true, []]);
  });

  test('with a mistake it is found', () => {
    expect(isFound(mark(text, HEUN, cut(heun(f, start, end / 20, 10))), 'step size')).toBe(true);
  });
});

test('exact values, and right-hand sides at exact values', () => {
  for (const [text, exact, f] of [
    [
      "y' = -y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t)",
      (t: number) => Math.exp(-t),
      (_: number, y: number) => -y,
    ],
    [
      "y' = -2*t*y\ny(0) = 1\n0 <= t <= 2\ny(t) = exp(-t^2)",
      (t: number) => Math.exp(-t * t),
      (t: number, y: number) => -2 * t * y,
    ],
    [
      "y' = y/2\ny(0) = 3\n0 <= t <= 2\ny(t) = 3*exp(t/2)",
      (t: number) => 3 * Math.exp(t / 2),
      (_: number, y: number) => y / 2,
    ],
  ] as const) {
    const values = Array.from({ length: 11 }, (_, n) => [exact(0.2 * n)]);
    expect(isFound(mark(text, textOf('Euler'), column(values)), 'exact values')).toBe(true);
    const rows = [[exact(0)]];
    for (let n = 0; n < 10; n += 1) rows.push([rows[n]![0]! + 0.2 * f(0.2 * n, exact(0.2 * n))]);
    expect(isFound(mark(text, textOf('Euler'), column(rows)), 'exact arguments')).toBe(true);
  }
});

test('a line that is computed too early has the stage of the step before', () => {
  for (const [text, f, start, end] of CASES) {
    const h = end / 10;
    let k1 = start.map(() => 0);
    const rows: number[][] = [[...start]];
    for (let n = 0; n < 10; n += 1) {
      const y = rows[n]!;
      const k2 = f(
        (n + 1) * h,
        y.map((v, j) => v + h * k1[j]!),
      );
      k1 = [...f(n * h, y)];
      rows.push(y.map((v, j) => v + (h / 2) * (k1[j]! + k2[j]!)));
    }
    expect(isFound(mark(text, HEUN, column(rows)), 'order of lines')).toBe(true);
  }
});

test('two mistakes together are found where none explains the rows alone', () => {
  const wrong = column(run(TANK.replace('+ t', '- t'), RK4.replace('y + h/2*k2', 'y + h*k2'), 10));
  const { mistakes } = mark(TANK, RK4, wrong);
  expect(mistakes.length).toBeGreaterThan(0);
  expect(mistakes[0]).toMatchObject({ kinds: ['power of h', 'sign'], explains: 11 });
  expect(mistakes.every(({ kinds }) => kinds.length === 2)).toBe(true);
});

test('right columns of random studies are right, and noise is explained by nothing', () => {
  const random = randomFrom(28);
  let marked = 0;
  for (let i = 0; i < 200; i += 1) {
    const document = randomStudy(random);
    const opened = openStudy(document);
    if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
    const { study } = opened;
    const { problem, start } = study;
    const grid = layGrid(problem.start, problem.end, { steps: 12 });
    const { method } = study.methods[0]!;
    const compiled = compileWithStart(problem, method, start);
    const { rows, stopped } = rowsOf(compiled, grid, { from: 0, count: 13 });
    if (stopped !== null) continue;
    marked += 1;
    const values = rows.map((row) => row.values);
    const decimals = 2 + (i % 5);
    const right = markColumn({ study, method: 0, grid }, column(values, decimals));
    expect([i, right.firstWrong]).toEqual([i, null]);
    if (i % 20 !== 0) continue;
    const noisy = values.map((row, n) => row.map((value) => value + (n === 0 ? 0 : (random() - 0.5) * 0.2)));
    const noise = markColumn({ study, method: 0, grid }, column(noisy, 4));
    expect(noise.firstWrong).not.toBeNull();
    expect(noise.mistakes).toEqual([]);
  }
  expect(marked).toBeGreaterThan(150);
}, 240_000);

test('a class has a column for each student', () => {
  const right = run(TANK, HEUN, 10).map(([y]) => y!.toFixed(4));
  const wrong = run(TANK, HEUN.replace('t + h', 't'), 10).map(([y]) => y!.toFixed(4));
  const lines = right.map((value, n) => `${n};${value};${wrong[n]};${n === 4 ? '' : value}`);
  const study = studyOf(TANK, HEUN);
  const request = { study, method: 0, grid: layGrid(0, 2, { steps: 10 }) };
  const students = markClass(request, ['n;Anna;Ben;Cem', ...lines].join('\n'));
  expect(
    students.map(({ student, marking }) => [student, marking?.firstWrong, marking?.rows.length]),
  ).toEqual([
    ['Anna', null, 11],
    ['Ben', 1, 11],
    ['Cem', null, 10],
  ]);
  expect(students[1]?.marking?.mistakes[0]?.kinds).toEqual(['time of a stage']);
});
