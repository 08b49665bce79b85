import { broken } from './fortran-lines.ts';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { compileWithStart } from '../../compile/compile-with-start.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import type { Method } from '../../method/method.ts';
import { parseMethod } from '../../method/parse-method.ts';
import { exactSolution } from '../../run/exact-solution.ts';
import { type LastStep, layGrid } from '../../run/grid.ts';
import { integrate } from '../../run/integrate.ts';
import { rowsOf } from '../../run/rows.ts';
import type { LanguageName } from './language.ts';
import { runJulia } from '../../../trust/julia-meaning.ts';
import { writeProgram } from './write-program.ts';
import { problem } from '../../test-texts.ts';

function method(text: string): Method {
  const known = findInLibrary(text);
  if (known !== null) return known;
  const reading = parseMethod(text);
  if (!reading.ok) throw new Error(JSON.stringify(reading.errors));
  return reading.value;
}

const DECAY = "y' = -k*y^2\nk = 0.35\ny(0) = 2\n0 <= t <= 4\ny(t) = 2/(1 + 2*k*t)";
const PAIR =
  "m' = a*m - b*m*l\nl' = c*m*l - d*l\na = 1.1\nb = 0.4\nc = 0.1\nd = 0.4\nm(0) = 10\nl(0) = 5\n0 <= t <= 6";
const SWAY = "x'' = -(w^2)*x - c*x'\nw = 1.7\nc = 0.2\nx(0) = 0.8\nx'(0) = 0\n0 <= t <= 5";
const LAYERS =
  "u[i]' = q*(u[i-1] - 2*u[i] + u[i+1]) + i/10 for i = 1..9\nq = 2.5\nu[0] = 4\nu[10] = sqrt(2)\nu[i](0) = i/3 for i = 1..9\n0 <= t <= 1";
const SWITCH =
  "T' = -a*(T - if(t < 1/3, 4, 20)) + max(0, 1 - t, -t)*sign(t - 1)\na = 1.2\nT(0) = 12\n0 <= t <= 2";

/** Problem, method, steps: algebraic, so that all bits are the same. */
const SAME: readonly (readonly [problem: string, method: string, steps: number])[] = [
  [DECAY, 'Euler', 10],
  [DECAY, 'RK4', 25],
  [DECAY, 'Adams-Bashforth 4', 20],
  [
    DECAY,
    's = sqrt(2)/2\nk1 = f(t, y)\nk2 = f(t + s*h, y + s*h*k1)\ny[n+1] = y + h*((1 - 1/(2*s))*k1 + 1/(2*s)*k2)',
    12,
  ],
  [PAIR, 'Heun', 30],
  [PAIR, 'RK4', 30],
  [PAIR, 'Adams-Moulton 3, predicted', 24],
  [PAIR, 'Leapfrog', 60],
  [SWAY, 'Velocity Verlet', 40],
  [SWAY, 'Nystrom 4', 20],
  [SWAY, 'Midpoint', 20],
  [LAYERS, 'Kutta 3', 40],
  [DECAY, 'Backward Euler', 20],
  [DECAY, 'Trapezoidal rule', 20],
  [DECAY, 'Implicit midpoint', 12],
  [DECAY, 'Gauss 2', 10],
  [DECAY, 'BDF 2', 20],
  [PAIR, 'Backward Euler', 60],
  [PAIR, 'Implicit midpoint', 40],
  [PAIR, 'Gauss 2', 24],
  [LAYERS, 'Trapezoidal rule', 20],
  [LAYERS.replaceAll('1..9', '1..40').replace('u[10]', 'u[41]'), 'Backward Euler', 12],
  [DECAY, 'Taylor 3', 12],
  [
    "y' = t*y - y^3/(1 + t)\ny(0) = 1\n0 <= t <= 2",
    'y[n+1] = y + h*f(t, y) + h^2/2*(f_t(t, y) + f_y(t, y)*f(t, y))',
    16,
  ],
  [PAIR, 'k = f(t, y)\ny[n+1] = y + h*k + h^2/2*(f_t(t, y) + f_y(t, y)*k)', 16],
  [PAIR, 'Taylor 2', 30],
  [PAIR, 'Taylor 4', 20],
  ["y' = sqrt(y + t^2)/(1 + y) - k*y^3\nk = 0.7\ny(0) = 1\n0 <= t <= 2", 'Taylor 5', 16],
  ["level' = -k*sqrt(level)\nlevel'' = k^2/2\nk = 0.35\nlevel(0) = 4\n0 <= t <= 6", 'Taylor 2', 16],
  [SWITCH, 'RK4', 24],
  // a sum that is substituted where a product or a difference goes on
  [
    "y' = t^2 - y\ny(0) = 0.5\n0 <= t <= 2",
    'd2(t, y) = 2*t - (t^2 - y)\ny[n+1] = y + h*f(t, y) + h^2/2*d2(t, y)',
    16,
  ],
  [
    "y' = t^2 - y\ny(0) = 0.5\n0 <= t <= 2",
    'd(t, y) = y - t^2\nk = f(t, y) - d(t, y)/(1 + h) - d(t + h, y - h*d(t, y))\ny[n+1] = y + h/3*k',
    16,
  ],
  // parameters of one value, and one that is 0
  ["y' = -a*y + b*t - c*y^2\na = 0.7\nb = 0.7\nc = 0\ny(0) = 1\n0 <= t <= 2", 'Taylor 3', 12],
  ["y' = mod(3*t, 1) - floor(y)/7 - (-y)^3/9\ny(0) = 1\n0 <= t <= 2", 'Ralston 2', 16],
  [DECAY, 'Heun 3', 12],
  [DECAY, 'RK8', 8],
  [PAIR, '3/8 rule', 18],
  [PAIR, 'SSP 3', 24],
  [PAIR, 'RK6', 16],
  [PAIR, 'Adams-Bashforth 6', 40],
  [PAIR, 'BDF 2', 30],
  [SWAY, 'Semi-implicit Euler', 30],
  [SWAY, 'Semi-implicit Euler, position first', 30],
  [SWAY, 'Adams-Moulton 4, predicted', 40],
  [SWAY, 'Gauss 2', 20],
  [LAYERS, 'Adams-Bashforth 3', 60],
  [LAYERS, 'Leapfrog', 60],
  [SWITCH, 'Heun', 24],
];

/** Functions of the language's own library: the last places may differ. */
const NEAR: readonly (readonly [problem: string, method: string, steps: number])[] = [
  ["y' = -50*(y - cos(t)) + exp(-t)*ln(t + 2)\ny(0) = 0\n0 <= t <= 1", 'RK4', 60],
  ["y' = sin(t*y) - exp(-y)\ny(0) = 1\n0 <= t <= 2", 'Taylor 4', 16],
  ["y' = tanh(y) + atan(t) - y^1.5/4 + cbrt(t)\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(t)", 'Heun', 20],
];

/** Languages whose programs are run here; there is no package of Julia for the machines that test. */
const RUNNING = ['py', 'c', 'js', 'f90', 'm'] as const satisfies readonly LanguageName[];
type Running = (typeof RUNNING)[number];

/** How a program is run, with step sizes where they are given. */
type Command = (
  file: string,
  folder: string,
  sizes: readonly string[],
) => readonly [string, readonly string[]];

const COMPILE: Readonly<Record<Running, Command>> = {
  c: (file, folder, sizes) => {
    const out = join(folder, 'c-program');
    execFileSync('gcc', [
      '-std=c99',
      '-Wall',
      '-Wextra',
      '-Werror',
      '-O2',
      '-ffp-contract=off',
      '-o',
      out,
      file,
      '-lm',
    ]);
    return [out, sizes];
  },
  f90: (file, folder, sizes) => {
    const out = join(folder, 'f-program');
    execFileSync(
      'gfortran',
      ['-std=f2008', '-Wall', '-Wextra', '-Werror', '-O2', '-ffp-contract=off', '-o', out, file],
      { cwd: folder },
    );
    return [out, sizes];
  },
  py: (file, _, sizes) => ['python3', [file, ...sizes]],
  js: (file, _, sizes) => [process.execPath, [file, ...sizes]],
  m: (_, __, sizes) => [
    'octave-cli',
    [
      '--no-gui',
      '--quiet',
      '--norc',
      '--eval',
      sizes.length === 0 ? 'program' : `program(${sizes.join(', ')})`,
    ],
  ],
};

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-programs-'));
});
afterAll(() => {
  rmSync(folder, { recursive: true });
});

function starterOf(of: Method): { readonly title: string; readonly method: Method } | null {
  const name = of.startWith?.name;
  return name === undefined ? null : { title: name, method: method(name) };
}

/** How a program is made and run beside what is usual. */
interface How {
  readonly sizes?: readonly string[];
  readonly h?: number;
  readonly lastStep?: LastStep;
  /** What a person edits in it. */
  readonly edit?: (program: string) => string;
}

/** What a program prints, and how it ends. */
function ran(
  [text, how, steps]: readonly [string, string, number],
  language: Running,
  { sizes = [], h, lastStep = 'fit', edit = (program) => program }: How = {},
): { readonly rows: readonly (readonly string[])[]; readonly status: number | null; readonly said: string } {
  const of = method(how);
  const p = problem(text);
  const grid = layGrid(p.start, p.end, h === undefined ? { steps } : { h }, lastStep);
  const program = writeProgram(
    {
      title: 'Almbach */ "valley" \\ %d',
      problem: p,
      method: of,
      methodTitle: how.split('\n')[0]!,
      starter: starterOf(of),
      grid,
      lastStep,
      decimal: null,
    },
    language,
  );
  const file = join(folder, `program.${language}`);
  writeFileSync(file, edit(program));
  const [run, inputs] = COMPILE[language](file, folder, sizes);
  const { stdout, stderr, status } = spawnSync(run, inputs, { encoding: 'utf8', cwd: folder });
  return {
    rows: stdout
      .trimEnd()
      .split('\n')
      .map((line) => line.split(',')),
    status,
    said: stderr,
  };
}

function printed(
  one: readonly [string, string, number],
  language: Running,
  sizes: readonly string[] = [],
): readonly (readonly string[])[] {
  const { rows, status, said } = ran(one, language, { sizes });
  if (status !== 0) throw new Error(said);
  return rows;
}

function ownRows([text, how, steps]: readonly [string, string, number]): readonly (readonly number[])[] {
  const p = problem(text);
  const run = compileWithStart(p, method(how), { find: findInLibrary, instead: null });
  const { rows } = rowsOf(run, layGrid(p.start, p.end, { steps }), { from: 0, count: steps + 1 });
  return rows.map(({ n, t, values }) => [n, t, ...values]);
}

describe.each(RUNNING)('%s', (language) => {
  test.each(SAME.map((one) => [one[0].split('\n')[0]!, one[1].split('\n')[0]!, one] as const))(
    'the same bits: %s by %s',
    (_, __, one) => {
      const [header, ...rows] = printed(one, language);
      expect(header![0]).toBe('n');
      expect(rows.map((row) => row.map(Number))).toEqual(ownRows(one));
    },
    30_000,
  );

  test.each(NEAR.map((one) => [one[0].split('\n')[0]!, one] as const))(
    'but for the last places: %s',
    (_, one) => {
      const [, ...rows] = printed(one, language);
      const own = ownRows(one);
      rows.forEach((row, n) =>
        row.forEach((cell, i) => {
          expect(Math.abs(Number(cell) - own[n]![i]!)).toBeLessThanOrEqual(
            1e-13 * Math.max(1, Math.abs(own[n]![i]!)),
          );
        }),
      );
    },
    30_000,
  );

  test('with step sizes it prints errors and orders; one that does not divide is made the nearest that does', () => {
    const [header, ...rows] = printed([DECAY, 'Heun', 10], language, ['0.4', '0.2', '0.07']);
    expect(header!.join()).toBe('h,N,error,order');
    const p = problem(DECAY);
    const run = compileWithStart(p, method('Heun'), { find: findInLibrary, instead: null });
    const exact = exactSolution(p);
    const errors = [10, 20, 57].map((steps) => {
      const { values } = integrate(run, layGrid(0, 4, steps === 57 ? { steps } : { h: 4 / steps }));
      return Math.abs(values[0]! - exact.value(0, 4));
    });
    expect(rows.map((row) => Number(row[1]))).toEqual([10, 20, 57]);
    rows.forEach((row, i) => expect(Math.abs(Number(row[2]) - errors[i]!)).toBeLessThan(1e-15));
    expect(rows[0]![3]).toBe('');
    expect(Number(rows[1]![3])).toBeCloseTo(Math.log(errors[0]! / errors[1]!) / Math.log(2), 5);
  }, 30_000);
});

/** What a person edits in a program of each language: from, to. */
type Edit = Readonly<Record<Running, readonly [from: string, to: string]>>;

const RATE: Edit = {
  py: ['\nrate = 0.5', '\nrate = 0.75'],
  c: ['double rate = 0.5', 'double rate = 0.75'],
  js: ['const rate = 0.5', 'const rate = 0.75'],
  f90: ['rate = 0.5d0', 'rate = 0.75d0'],
  m: ['p.rate = 0.5', 'p.rate = 0.75'],
};
const INITIAL: Edit = {
  py: ['y = 10*rate', 'y = 3*rate'],
  c: ['y = 10*rate', 'y = 3*rate'],
  js: ['y = 10*rate', 'y = 3*rate'],
  f90: ['y = 10*rate', 'y = 3*rate'],
  m: ['y = 10*p.rate', 'y = 3*p.rate'],
};
const STEP: Edit = {
  py: ['steps_for(0.25)', 'steps_for(0.3)'],
  c: ['double h = 0.25', 'double h = 0.3'],
  js: ['stepsFor(0.25)', 'stepsFor(0.3)'],
  f90: ['h = 0.25d0', 'h = 0.3d0'],
  m: ['steps_for(0.25, p)', 'steps_for(0.3, p)'],
};

describe.each(RUNNING)('edited in %s', (language) => {
  const TEXT =
    "y' = twice*y - part*t\nrate = 0.5\ntwice = 2*rate\npart = 1/4\ny(0) = 10*rate\n0 <= t <= 8*rate";
  const edited = (edit: Edit): ((program: string) => string) => {
    const [from, to] = edit[language];
    return (program) => {
      if (program.split(from).length !== 2) throw new Error(`${from} is not once in the program`);
      return program.replace(from, to);
    };
  };
  const numbers = (rows: readonly (readonly string[])[]): readonly (readonly number[])[] =>
    rows.slice(1).map((row) => row.map(Number));

  test('a parameter changes what depends on it: others, an initial value, the end', () => {
    const { rows } = ran([TEXT, 'RK4', 16], language, { edit: edited(RATE) });
    // h stays as it is, so there are more steps
    expect(numbers(rows)).toEqual(ownRows([TEXT.replace('rate = 0.5', 'rate = 0.75'), 'RK4', 24]));
  }, 30_000);

  test('an initial value, and a step size that does not divide the interval', () => {
    const first = ran([TEXT, 'Heun', 16], language, { edit: edited(INITIAL) });
    expect(numbers(first.rows)).toEqual(ownRows([TEXT.replace('10*rate', '3*rate'), 'Heun', 16]));
    const other = ran([TEXT, 'Heun', 16], language, { edit: edited(STEP) });
    // 4/0.3 is nearest to 13 steps
    expect(numbers(other.rows)).toEqual(ownRows([TEXT, 'Heun', 13]));
  }, 60_000);

  test('a run that goes past the end goes past it, with other step sizes, too', () => {
    const { rows } = ran(["y' = -y\ny(0) = 1\n0 <= t <= 1", 'Euler', 4], language, {
      h: 0.3,
      lastStep: 'overrun',
    });
    expect(numbers(rows).map(([, t]) => t)).toEqual([0, 1, 2, 3, 4].map((n) => n * 0.3));
    const sizes = ran(["y' = -y\ny(0) = 1\n0 <= t <= 1\ny(t) = exp(-t)", 'Euler', 4], language, {
      sizes: ['0.4'],
      lastStep: 'overrun',
    });
    const [row] = numbers(sizes.rows);
    expect(row!.slice(0, 2)).toEqual([0.4, 3]);
    expect(row![2]).toBeCloseTo(Math.abs(0.6 ** 3 - Math.exp(-1.2)), 14);
  }, 30_000);

  test('a run that becomes non-finite ends with one line', () => {
    const { rows, status, said } = ran(["y' = y^2\ny(0) = 1\n0 <= t <= 4", 'Euler', 40], language);
    expect(status).not.toBe(0);
    expect(said).toMatch(/^(?:error: )?stops in step \d+ from t = .*: not a finite number\n/);
    // all rows before it are there, and none behind it
    const steps = Number(/step (\d+)/.exec(said)![1]);
    expect(rows).toHaveLength(1 + steps);
    expect(rows.every((row) => !/nan|inf/i.test(row.slice(1).join()) || row[0] === 'n')).toBe(true);
  }, 30_000);

  test('names that mean something to the language are others in a program', () => {
    const names = ['process', 'stderr', 'erf', 'gamma', 'nint', 'sum', 'console', 'y1', 'length'];
    const text = `p' = ${names.join(' + ')} - p\n${names.map((name, i) => `${name} = ${i}/8`).join('\n')}\np(0) = 1\n0 <= t <= 1`;
    expect(numbers(ran([text, 'RK4', 8], language).rows)).toEqual(ownRows([text, 'RK4', 8]));
  }, 30_000);

  test('a family of 300', () => {
    const text = LAYERS.replaceAll('1..9', '1..300').replace('u[10]', 'u[301]');
    expect(numbers(ran([text, 'Euler', 2], language).rows)).toEqual(ownRows([text, 'Euler', 2]));
  }, 30_000);
});

test('a derivative that is written out keeps every parameter under its own name, whatever its value', () => {
  const p = problem("y' = -p*y + q*t - s*y^2\np = 0.7\nq = 0.7\ns = 0\ny(0) = 1\n0 <= t <= 2");
  const of = method('Taylor 3');
  const grid = layGrid(0, 2, { steps: 8 });
  const text = writeProgram(
    {
      title: 'P',
      problem: p,
      method: of,
      methodTitle: 'Taylor 3',
      starter: null,
      grid,
      lastStep: 'fit',
      decimal: null,
    },
    'js',
  );
  const step = text.slice(text.indexOf('function step('), text.indexOf('function advance('));
  expect(['p', 'q', 's'].map((name) => new RegExp(`\\b${name}\\b`).test(step))).toEqual([true, true, true]);
});

test('what no program is made of is refused with the reason', () => {
  const p = problem(DECAY);
  const write = (how: string, more: { readonly h?: number } = {}): string => {
    const of = method(how);
    const grid = layGrid(0, 4, more.h === undefined ? { steps: 8 } : { h: more.h }, 'shorten');
    return writeProgram(
      {
        title: 'P',
        problem: p,
        method: of,
        methodTitle: how,
        starter: starterOf(of),
        grid,
        lastStep: 'fit',
        decimal: null,
      },
      'c',
    );
  };
  expect(() => write('Euler', { h: 0.3 })).toThrow('a constant step size');
  expect(() => write('Velocity Verlet')).toThrow("equations x'' = a(t, x, x')");
});

test('systems that are too large to be solved or derived in a program are refused', () => {
  const long = problem(LAYERS.replaceAll('1..9', '1..201').replace('u[10]', 'u[202]'));
  const write = (how: string): string => {
    const of = method(how);
    const grid = layGrid(0, 1, { steps: 8 });
    return writeProgram(
      {
        title: 'P',
        problem: long,
        method: of,
        methodTitle: how,
        starter: null,
        grid,
        lastStep: 'fit',
        decimal: null,
      },
      'py',
    );
  };
  expect(() => write('Backward Euler')).toThrow('solves for up to 200 numbers, and this method needs 201');
  expect(() => write('Taylor 2')).toThrow('up to 8 components');
  expect(write('RK4')).toContain('for j in range');
});

test('a program whose equations have no solution says so', () => {
  // y = 1*(y^2 + 1) has none
  const text = "y' = y^2 + 1\ny(0) = 0\n0 <= t <= 10";
  for (const language of RUNNING) {
    let said = '';
    try {
      printed([text, 'Backward Euler', 10], language);
    } catch (thrown) {
      said = String(thrown);
    }
    expect(said).toContain("Newton's method does not converge for y[n+1]");
  }
}, 30_000);

test('a statement of very many terms is continued in Fortran, or refused where the standard has no room for it', () => {
  const sum = (terms: number): string =>
    `    y = ${Array.from({ length: terms }, (_, i) => `k(${i})*w(${i})`).join(' + ')}`;
  const lines = broken(sum(400));
  expect(Math.max(...lines.map((line) => line.length))).toBeLessThanOrEqual(132);
  const joined = lines.map((line, i) => (i === 0 ? line : line.trim().slice(1)).replace(/&$/, '')).join('');
  expect(joined).toBe(sum(400));
  expect(() => broken(sum(4_000))).toThrow('takes more than 255 lines of Fortran');
});

describe('jl', () => {
  const written = ([text, how, steps]: readonly [string, string, number]): string => {
    const of = method(how);
    const p = problem(text);
    const grid = layGrid(p.start, p.end, { steps });
    const request = {
      title: 'Almbach "valley" $k',
      problem: p,
      method: of,
      methodTitle: how.split('\n')[0]!,
    };
    return writeProgram({ ...request, starter: starterOf(of), grid, lastStep: 'fit', decimal: null }, 'jl');
  };
  const rows = (printed: readonly string[]): readonly (readonly string[])[] =>
    printed.map((line) => line.split(','));

  test.each(SAME.map((one) => [one[0].split('\n')[0]!, one[1].split('\n')[0]!, one] as const))(
    'means the same bits: %s by %s',
    async (_, __, one) => {
      const { printed, errors } = await runJulia(written(one));
      expect(errors).toEqual([]);
      expect(rows(printed.slice(1)).map((row) => row.map(Number))).toEqual(ownRows(one));
    },
    30_000,
  );

  test('errors and orders for step sizes, and the end of a run that becomes non-finite', async () => {
    const { printed } = await runJulia(written([DECAY, 'Heun', 10]), [0.4, 0.2]);
    const [, first, second] = rows(printed);
    expect(first!.slice(0, 2)).toEqual(['0.4', '10']);
    expect(second![3]).toBe(String(Math.log(Number(first![2]) / Number(second![2])) / Math.log(2)));
    const early = await runJulia(written(["y' = y^2\ny(0) = 1\n0 <= t <= 4", 'Euler', 40]));
    expect(early.errors.join()).toMatch(/^stops in step \d+ from t = .*: not a finite number$/);
    expect(early.printed).toHaveLength(1 + Number(/step (\d+)/.exec(early.errors.join())![1]));
  });
});
