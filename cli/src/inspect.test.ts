import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inspectCommand } from './commands/inspect.ts';
import { Failure } from './failure.ts';

let folder: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

function file(document: object): string {
  const path = join(folder, 'probe.schritt.json');
  writeFileSync(path, JSON.stringify({ schritt: 1, ...document }));
  return path;
}

const HEUN = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h/2*(k1 + k2)';

test('a method is reported in JSON with its kind, tableau, order, first failing condition and limits', () => {
  const [report] = JSON.parse(inspectCommand(file({ kind: 'method', title: 'Heun', text: HEUN }), 'json'));
  expect(report).toEqual({
    title: 'Heun',
    kind: 'explicit Runge-Kutta',
    why: null,
    stages: 2,
    evaluations: 2,
    order: 2,
    orderIsAtLeast: false,
    orderWithinDigits: 2,
    defect: null,
    orderAutonomous: 2,
    orderLinear: 2,
    orderAnyJacobian: null,
    orderWithoutVelocity: null,
    errorConstant: null,
    tableau: {
      c: ['0', '1'],
      A: [
        ['0', '0'],
        ['1', '0'],
      ],
      b: ['1/2', '1/2'],
    },
    embedded: null,
    multistep: null,
    stability: {
      real: 2,
      imaginary: 0,
      aStable: false,
      lStable: false,
      atInfinity: null,
      alpha: null,
      pade: '2/0',
      // |1 + ix - x^2/2|^2 = 1 + x^4/4; ln R(z) - z = -z^3/6 + ...
      dissipation: { power: 4, coefficient: '1/8' },
      dispersion: { power: 3, coefficient: '1/6' },
    },
    stageOrder: 1,
    // of the bushy tree (1/3 - 1/2)/2, of the tall one 1/6
    principalError: expect.closeTo(Math.hypot(1 / 12, 1 / 6), 14),
    symplectic: false,
    symmetric: false,
    ssp: 1,
    sspUnlimited: false,
    oscillation: null,
    zeroStable: null,
    conditions: ['sum b_i c_i^2 = 1/2, should be 1/3'],
    slips: [],
    nearMisses: [],
  });
});

test('slips and near misses come with line and column', () => {
  const text = 'k1 = f(t, y)\nk2 = f(t + h/2, y + k1/2)\ny[n+1] = y + h*k2';
  const [report] = JSON.parse(inspectCommand(file({ kind: 'method', title: 'Slip', text }), 'json'));
  expect(report).toMatchObject({ order: null, tableau: null });
  expect(report.slips).toEqual([
    {
      line: 2,
      column: 21,
      message: 'k1 is a slope and is used without h in the argument of k2; did you mean h*k1?',
      repairs: [
        { from: 33, to: 35, text: 'h*k1' },
        { from: 5, to: 12, text: 'h*f(t, y)' },
      ],
    },
  ]);
});

test('the order and the weights of an embedded formula are reported', () => {
  const text = 'k1 = f(t, y)\nk2 = f(t + h, y + h*k1)\ny[n+1] = y + h*k1\nyhat[n+1] = y + h/2*(k1 + k2)';
  const path = file({ kind: 'method', title: 'Pair', text });
  const [report] = JSON.parse(inspectCommand(path, 'json'));
  expect([report.order, report.embedded.order]).toEqual([1, 2]);
  expect([report.embedded.b, report.embedded.weights]).toEqual([
    ['1', '0'],
    ['1/2', '1/2'],
  ]);
  expect(inspectCommand(path, 'table')).toContain('embedded formula: order 2, weights 1/2  1/2');
});

test('a limit without end is null in JSON, and said so in words', () => {
  const path = file({
    kind: 'method',
    title: 'Backward Euler',
    text: 'solve y[n+1] = y + h*f(t + h, y[n+1])',
  });
  const [report] = JSON.parse(inspectCommand(path, 'json'));
  expect(report.stability).toEqual({
    real: null,
    imaginary: null,
    aStable: true,
    lStable: true,
    atInfinity: 0,
    alpha: 90,
    pade: '0/1',
    // -ln(1 - z) - z = z^2/2 + z^3/3 + ...
    dissipation: { power: 2, coefficient: '-1/2' },
    dispersion: { power: 3, coefficient: '-1/3' },
  });
  expect(inspectCommand(path, 'table')).toContain(
    'stable on the real axis without bound, on the imaginary axis without bound; L-stable',
  );
  expect(inspectCommand(path, 'table')).toContain(
    '|R(ix)| - 1 = -1/2*x^2 + ...; arg R(ix) - x = -1/3*x^3 + ...',
  );
});

test('every method of a study is reported; a problem is refused, and so is a text with errors, with its place', () => {
  const study = {
    kind: 'study',
    title: 'Sluice',
    problem: { title: 'Sluice', text: "level' = -level\nlevel(0) = 1\n0 <= t <= 1" },
    methods: [
      { title: 'Heun', text: HEUN },
      { title: 'Two', text: 'start with Heun\ny[n+1] = y + h/2*(3*f[n] - f[n-1])' },
    ],
    ladder: { counts: [10] },
  };
  const words = inspectCommand(file(study), 'table');
  expect(words).toContain('method "Two": explicit linear multistep, 2 stages, 1 evaluation of f per step');
  expect(words).toContain('order 2, error constant 5/12');
  expect(() => inspectCommand(file({ kind: 'problem', title: 'P', text: "y' = y" }), 'json')).toThrow(
    Failure,
  );
  const broken = file({ kind: 'method', title: 'Broken', text: 'k1 = f(t y)\ny[n+1] = y + h*k1' });
  expect(() => inspectCommand(broken, 'json')).toThrow(/Broken: line 1, column/);
});
