import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DecimalPrecision, Rounding } from '../../decimal/decimal-precision.ts';
import { openStudy } from '../../document/open-study.ts';
import { findInLibrary } from '../../method/library/find-method.ts';
import { layGrid } from '../../run/grid.ts';
import { rowsOf } from '../../run/rows.ts';
import { runOf, type Study } from '../../study/runs/study.ts';
import type { LanguageName } from './language.ts';
import { programOf } from './program-of.ts';

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-decimal-programs-'));
});
afterAll(() => {
  rmSync(folder, { recursive: true });
});

function study(text: string, how: string, precision: DecimalPrecision): Study {
  const { digits, rounding, rounded } = precision;
  const opened = openStudy({
    schritt: 1,
    kind: 'study',
    title: 'Almbach',
    problem: { title: 'Probe', text },
    methods: [{ title: 'own', text: findInLibrary(how)?.text ?? how }],
    ladder: { counts: [8] },
    ...{ precision: { digits }, rounding, rounded },
  });
  if (!opened.ok) throw new Error(JSON.stringify(opened.errors));
  return opened.study;
}

function decimal(digits: number, rounding: Rounding = 'half-even'): DecimalPrecision {
  return { digits, rounding, rounded: 'operations' };
}

function program(of: Study, steps: number, language: LanguageName): string {
  const grid = layGrid(of.problem.start, of.problem.end, { steps });
  return programOf('Almbach', of, { method: 0, grid }, language);
}

/** The values that a run has at its last grid point, with all digits. */
function lastOf(of: Study, steps: number): readonly string[] {
  const grid = layGrid(of.problem.start, of.problem.end, { steps });
  return rowsOf(runOf(of, of.methods[0]!), grid, { from: steps, count: 1 }).rows[0]?.digits?.values ?? [];
}

function lastRow(printed: string): readonly string[] {
  return printed.trim().split('\n').at(-1)?.split(',').slice(2) ?? [];
}

/** The same number in one way of writing it: as an integer and a power of ten. */
function canonical(text: string): string {
  const [mantissa = '', power = '0'] = text.toLowerCase().split('e');
  const [whole = '', decimals = ''] = mantissa.split('.');
  const digits = `${whole}${decimals}`.replace(/^(-?)0+(?=\d)/, '$1');
  const kept = digits.replace(/0+$/, '');
  return `${kept}e${Number(power) - decimals.length + digits.length - kept.length}`;
}

const SLUICE = "y' = -k*sqrt(y)\nk = 0.35\ny(0) = 4\n0 <= t <= 8";
const PAIR =
  "m' = a*m - b*m*l\nl' = c*m*l - d*l\na = 1.1\nb = 0.4\nc = 1/3\nd = 0.4\nm(0) = 2\nl(0) = 5\n0 <= t <= 3";
const CIRCLE = "y' = pi*y*(1 - y/3)\ny(0) = 1/7\n0 <= t <= 1";
const LAYERS =
  "u[i]' = 2.5*(u[i-1] - 2*u[i] + u[i+1]) + i/10 for i = 1..5\nu[0] = 4\nu[6] = 1\nu[i](0) = i/3 for i = 1..5\n0 <= t <= 1";

test.each([
  [SLUICE, 'Heun', decimal(4), 20],
  [SLUICE, 'RK4', decimal(4, 'chop'), 20],
  [SLUICE, 'Adams-Bashforth 3', decimal(6, 'half-up'), 20],
  [PAIR, 'RK4', decimal(34), 25],
  [PAIR, 'Taylor 3', decimal(50), 10],
  [CIRCLE, 'Kutta 3', decimal(100), 8],
  [LAYERS, 'Midpoint', decimal(12), 30],
] as const)('%s by %s in the decimal module of Python, digit by digit', (text, how, precision, steps) => {
  const of = study(text, how, precision);
  const file = join(folder, 'program.py');
  writeFileSync(file, program(of, steps, 'py'));
  const printed = lastRow(execFileSync('python3', [file], { encoding: 'utf8' }));
  expect(printed.map(canonical)).toEqual(lastOf(of, steps).map(canonical));
});

test.each([
  [SLUICE, 'RK4', 34],
  [PAIR, 'Heun', 30],
  [LAYERS, 'Kutta 3', 25],
  ["y' = sin(t)*exp(-y) + atan2(y, 2)\ny(0) = 1\n0 <= t <= 2", 'RK4', 32],
] as const)('%s by %s in numbers of 128 bits in C, to about the digits asked for', (text, how, digits) => {
  const of = study(text, how, decimal(digits));
  const [file, out] = [join(folder, 'program.c'), join(folder, 'program')];
  writeFileSync(file, program(of, 16, 'c'));
  execFileSync('gcc', ['-Wall', '-Wextra', '-O2', '-ffp-contract=off', '-o', out, file, '-lquadmath', '-lm']);
  const printed = lastRow(execFileSync(out, { encoding: 'utf8' }));
  const agree = (one: string, other: string): number => {
    const [a, b] = [one, other].map((each) => canonical(each).split('e')[0]!.padEnd(40, '0'));
    return Array.from(a!).findIndex((sign, i) => sign !== b![i]);
  };
  lastOf(of, 16).forEach((value, j) => {
    const first = agree(printed[j]!, value);
    expect(first < 0 || first >= digits - 3).toBe(true);
  });
});

test('numbers of a program in Julia are BigFloat, none of them a double', () => {
  const text = program(study(CIRCLE, 'RK4', decimal(40)), 8, 'jl');
  expect(text).toContain('setprecision(BigFloat, 137)');
  expect(text).toContain('big"3.141592653589793238462643383279502884197"');
  expect(text).toContain('h = 8, (T_END - T_START)/8');
  const step = text.slice(text.indexOf('function f('), text.indexOf('function solve('));
  expect(step).not.toMatch(/\d\.\d(?![\d]*")/);
});

test.each([
  ['js', decimal(34), 'the standard library of JavaScript has no arithmetic with 34 digits; choose Python'],
  ['m', decimal(5), 'the standard library of MATLAB/Octave has no arithmetic with 5 digits'],
  ['c', decimal(50), '__float128 of C has 113 binary digits'],
  ['c', decimal(20, 'chop'), '__float128 of C has 113 binary digits'],
  ['jl', decimal(4), 'BigFloat of Julia rounds to the nearest binary number'],
  ['py', { ...decimal(4), rounded: 'stored' }, 'a program rounds every operation'],
] as const)('what %s has no arithmetic for is refused with what to choose', (language, precision, why) => {
  expect(() => program(study(SLUICE, 'Heun', precision), 8, language)).toThrow(why);
});

test('a function that the decimal module lacks, and implicit methods, are refused', () => {
  const sine = "y' = sin(t)\ny(0) = 0\n0 <= t <= 1";
  expect(() => program(study(sine, 'Heun', decimal(20)), 8, 'py')).toThrow(
    "Python's decimal module has no sin; choose Julia or C",
  );
  expect(() => program(study(SLUICE, 'Backward Euler', decimal(20)), 8, 'py')).toThrow(
    'a program with decimal digits is written for explicit methods',
  );
});
