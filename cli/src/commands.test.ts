import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Refusal } from '@schritt/core/text';
import { checkCommand } from './commands/check.ts';
import { emitCommand } from './commands/emit.ts';
import { runCommand } from './commands/run.ts';
import { Failure } from './failure.ts';
import { errorLines, loadDocument, loadStudy } from './load.ts';
import { pickMethod } from './pick-method.ts';
import { counted, withProgress } from './progress.ts';

function file(value: unknown): string {
  const path = join(mkdtempSync(join(tmpdir(), 'schritt-')), 'probe.schritt.json');
  writeFileSync(path, typeof value === 'string' ? value : JSON.stringify(value));
  return path;
}

const STUDY = {
  schritt: 1,
  kind: 'study',
  title: 'Frost',
  problem: { title: 'Frost', text: "s' = c/s\nc = 2\ns(1) = 2\n1 <= x <= 4\ns(x) = 2*sqrt(x)" },
  methods: [
    { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
    { title: 'AB2', text: 'start with Euler\ny[n+1] = y + h*(3/2*f[n] - 1/2*f[n-1])' },
  ],
  ladder: { counts: [3] },
};
const PATH = file(STUDY);
const FAMILY = file({
  ...STUDY,
  problem: {
    title: 'Soil',
    text: "u[i]' = u[i-1] - 2*u[i] + u[i+1] for i = 1..40\nu[0] = 0\nu[41] = 0\nu[i](0) = 1 for i = 1..40\n0 <= t <= 1",
  },
});

test('the second column bears the name of the problem in tables, and t for programs', () => {
  const options = { method: 'Euler', steps: '3' } as const;
  const [table] = runCommand(PATH, { ...options, format: 'table' }).split('\n');
  expect(table?.trim().split(/\s+/)).toEqual(['n', 'x', 's', 'f', 'exact', 'error']);
  const [csv] = runCommand(PATH, { ...options, format: 'csv' }).split('\r\n');
  expect(csv).toBe('n,x,s,f,exact,error');
  const rows: readonly Record<string, number>[] = JSON.parse(
    runCommand(PATH, { ...options, format: 'json' }),
  );
  // s = 2 at x = 1: the slope is 1
  expect(rows[0]).toMatchObject({ n: 0, t: 1, s: 2, f: 1, exact: 2, error: 0 });
  expect(rows[1]).toMatchObject({ t: 2, s: 3, f: 2 / 3 });
});

test('a window of rows, and the first and last five of a long run', () => {
  const window = runCommand(PATH, { method: 'Euler', steps: '100', from: '40', count: '2', format: 'csv' });
  expect(window.split('\r\n').map((line) => line.split(',')[0])).toEqual(['n', '40', '41', '']);
  const long = runCommand(PATH, { method: 'Euler', steps: '20000', format: 'csv' });
  expect(long.split('\r\n').map((line) => line.split(',')[0])).toEqual(
    ['n', 0, 1, 2, 3, 4, 19996, 19997, 19998, 19999, 20000, ''].map(String),
  );
});

test.each([
  [{ method: 'Nobody', steps: '3' }, 'there is no method "Nobody" in this study; there are Euler, AB2'],
  [{ method: 'Euler' }, 'give either --h, a step size, or --steps, a number of steps'],
  [{ method: 'Euler', h: '1', steps: '3' }, 'give either --h, a step size, or --steps, a number of steps'],
  [{ method: 'Euler', steps: 'many' }, '--steps takes an integer, not many'],
  [{ method: 'Euler', steps: '3', from: '-1' }, '--from takes an integer, not -1'],
])('%j is answered: %s', (options, message) => {
  expect(() => runCommand(PATH, { ...options, format: 'csv' })).toThrow(new Failure([message]));
});

test.each([
  [{ h: '0' }, 'the step size must be a positive number, not 0'],
  [{ h: 'pi/' }, 'the formula is incomplete: a number, a name or ( is missing'],
  [{ steps: '0' }, 'the number of steps must be a positive integer, not 0'],
])('a step size that cannot be had is refused: %j', (gridRequest, message) => {
  const run = (): string => runCommand(PATH, { method: 'Euler', ...gridRequest, format: 'csv' });
  expect(run).toThrow(Refusal);
  expect(run).toThrow(message);
});

test('the generated code of a method, with nothing of the user’s in it but the title', () => {
  const code = emitCommand(PATH, { method: 'AB2' });
  expect(code.split('\n')[0]).toBe('// AB2: s, double precision');
  expect(code).toContain('return function (S, origin, h, first, count) {');
  // values of the step before move up
  expect(code).toContain('q0_0 = ');
  const made: unknown = new Function(`return ${code.slice(code.indexOf('(function'))}`);
  expect(typeof made).toBe('function');
});

test('values of parameters are printed beside the code, which is the same for all of them', () => {
  const [one, other] = ['0.35', '0.36'].map((k) => {
    const text = `s' = -k*s\nk = ${k}\ns(0) = 1\n0 <= t <= 1`;
    return emitCommand(file({ ...STUDY, problem: { title: 'P', text } }), { method: 'AB2' }).split('\n');
  });
  expect(one!.filter((line) => !other!.includes(line))).toEqual([
    '// P holds the values of parameters: 0.35',
  ]);
});

test('a title cannot leave its comment', () => {
  const nasty = file({ ...STUDY, methods: [{ title: 'A\nalert(1)\u2028B', text: STUDY.methods[0]!.text }] });
  const [head, next] = emitCommand(nasty, { method: 'A\nalert(1)\u2028B' }).split(/\r?\n/);
  expect(head).toBe('// A alert(1) B: s, double precision');
  expect(next?.startsWith('// S is the state')).toBe(true);
});

test('large systems are reported with their number of components and inner loops', () => {
  const code = emitCommand(FAMILY, { method: 'Euler' });
  expect(code).toContain('// Euler: 40 components, double precision');
  expect(code).toMatch(/^\/\/ K holds inner loops in WebAssembly: [1-9]$/m);
});

test('what is understood of a problem and of methods', () => {
  const text = checkCommand(PATH);
  expect(text).toContain('problem "Frost": 1 component, 1 <= x <= 4');
  expect(text).toContain("s' = c/s");
  expect(text).toContain('method "AB2": 1 evaluation of f per step');
  expect(text).toMatch(/exact solution satisfies the equation .* and the initial values/);
});

test('faults of files come with their file and place', () => {
  expect(() => loadDocument('/nowhere/at/all.schritt.json')).toThrow('cannot be read');
  const method = file({ schritt: 1, kind: 'method', title: 'A', text: 'y[n+1] = y' });
  expect(() => loadStudy(method)).toThrow('kind: expected a study, found a method');
  expect(errorLines('a.json', 'Heun', [{ line: 2, column: 3, length: 1, message: 'no' }])).toEqual([
    'a.json: Heun: line 2, column 3: no',
  ]);
  expect(pickMethod(loadStudy(PATH).study, 'AB2').title).toBe('AB2');
});

test('work is pulled to its end; without a terminal nothing is reported on the way', () => {
  const write = jest.spyOn(process.stderr, 'write').mockReturnValue(true);
  function* work(): Generator<{ readonly part: number }, string> {
    yield { part: 0.5 };
    yield { part: 1 };
    return 'done';
  }
  expect(withProgress(work())).toBe('done');
  expect(write).not.toHaveBeenCalled();
  write.mockRestore();
});

describe('on a terminal', () => {
  const { isTTY } = process.stderr;
  let now = 0;
  let written: string[] = [];
  beforeEach(() => {
    [now, written] = [0, []];
    process.stderr.isTTY = true;
    jest.spyOn(Date, 'now').mockImplementation(() => now);
    jest.spyOn(process.stderr, 'write').mockImplementation((text) => {
      written.push(String(text));
      return true;
    });
  });
  afterEach(() => {
    jest.restoreAllMocks();
    process.stderr.isTTY = isTTY;
  });

  test('parts are handed on, and the number of parts is reported twice a second', () => {
    const parts: string[] = [];
    for (const part of counted(['a', 'b', 'c', 'd'], 4)) {
      parts.push(part);
      now += 400;
    }
    expect(parts.join('')).toBe('abcd');
    // half a second has passed after two parts and after four
    expect(written).toEqual(['\r50 %', '\r100 %', '\r\u001b[K']);
  });

  test('work that is done at once tells nothing', () => {
    function* work(): Generator<{ readonly part: number }, number> {
      yield { part: 0.5 };
      return 3;
    }
    expect(withProgress(work())).toBe(3);
    expect(written).toEqual([]);
  });
});

test('check reports what a study would be refused for though its texts have no errors', () => {
  const verlet = 'v[n+1] = v + h*a(t, x, v)\nx[n+1] = x + h*v[n+1]';
  const path = file({ ...STUDY, methods: [...STUDY.methods, { title: 'Verlet', text: verlet }] });
  let said: unknown = null;
  try {
    checkCommand(path);
  } catch (thrown) {
    said = thrown;
  }
  expect(said).toBeInstanceOf(Failure);
  expect(String(said)).toContain(": Verlet: this method is for equations x'' = a(t, x, x')");
  expect(String(said)).not.toContain('Euler');
  // the same as what the study itself says
  expect(checkCommand(PATH)).toContain('method "AB2"');
});

test('tables keep to the width that COLUMNS asks for', () => {
  const options = { method: 'AB2', steps: '3', format: 'table' } as const;
  const whole = runCommand(PATH, options);
  process.env['COLUMNS'] = '40';
  try {
    const narrow = runCommand(PATH, options);
    expect(Math.max(...narrow.split('\n').map((line) => line.length))).toBeLessThanOrEqual(40);
    // every number is there, and the number of the row in each part
    const cells = (text: string): readonly string[] => [...new Set(text.split(/\s+/))].sort();
    expect(cells(narrow)).toEqual(cells(whole).map((cell) => cell));
  } finally {
    delete process.env['COLUMNS'];
  }
});
