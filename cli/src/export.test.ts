import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Refusal } from '@schritt/core/text';
import { exportCommand } from './commands/export.ts';
import type { ExportOptions } from './commands/export-options.ts';
import { runCommand } from './commands/run.ts';
import { Failure } from './failure.ts';

const PATH = join(mkdtempSync(join(tmpdir(), 'schritt-')), 'frost.schritt.json');
writeFileSync(
  PATH,
  JSON.stringify({
    schritt: 1,
    kind: 'study',
    title: 'Frost',
    problem: { title: 'Frost', text: "s' = c/s\nc = 2\ns(1) = 2\n1 <= x <= 4\ns(x) = 2*sqrt(x)" },
    methods: [
      { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
      { title: 'AB2', text: 'start with Euler\ny[n+1] = y + h*(3/2*f[n] - 1/2*f[n-1])' },
    ],
    ladder: { counts: [3] },
  }),
);

async function partsOf(options: ExportOptions): Promise<readonly (string | Uint8Array)[]> {
  const parts: (string | Uint8Array)[] = [];
  for await (const part of exportCommand(PATH, options)) parts.push(part);
  return parts;
}

async function exported(options: ExportOptions): Promise<string> {
  return (await partsOf(options)).map((part) => (typeof part === 'string' ? part : '')).join('');
}

async function bytes(options: ExportOptions): Promise<Buffer> {
  return Buffer.concat((await partsOf(options)).map((part) => Buffer.from(part)));
}

test('a study is written as a table in every format', async () => {
  const rungs = (as: ExportOptions['as']): Promise<string> =>
    exported({ what: 'rungs', ...(as === undefined ? {} : { as }) });
  // Euler from s = 2 with h = 1: 3, 3 + 2/3, and on; against 4 at the end
  const end = 3 + 2 / 3 + 2 / (3 + 2 / 3);
  const [header, line] = (await rungs(undefined)).split('\r\n');
  expect(header).toBe('h,N,Euler: error,Euler: ratio,Euler: order,AB2: error,AB2: ratio,AB2: order');
  expect(Number(line!.split(',')[2])).toBeCloseTo(end - 4, 14);
  expect(await rungs('md')).toContain('| h | N | Euler: error |');
  expect(await rungs('tex')).toContain('\\multicolumn{6}{c}{Euler}');
  expect(await rungs('html')).toContain('<caption>Frost</caption>');
  expect((await rungs('txt')).split('\n')[0]).toMatch(/^h +N +Euler: error/);
  expect((await exported({ what: 'cost', as: 'csv' })).split('\r\n')[1]).toMatch(/^Euler,1,3,3,0,/);
});

test('rows are written some at a time, the chosen columns alone, to a file as well', async () => {
  const options = { what: 'rows', as: 'csv', method: 'Euler', steps: '12000', columns: 's' } as const;
  const parts = await partsOf(options);
  expect(parts).toHaveLength(3);
  const lines = parts.join('').trimEnd().split('\r\n');
  expect(lines).toHaveLength(12_002);
  expect(lines[0]).toBe('n,x,s');
  const whole = runCommand(PATH, {
    method: 'Euler',
    steps: '12000',
    from: '11999',
    count: '2',
    format: 'csv',
  });
  expect(lines.at(-1)!.split(',')).toEqual(whole.trimEnd().split('\r\n').at(-1)!.split(',').slice(0, 3));
  const some = (await partsOf({ ...options, every: '3000' })).join('').trimEnd().split('\r\n');
  expect(some.slice(1)).toEqual([0, 3000, 6000, 9000, 12000].map((n) => lines[n + 1]));
  // more rows than are written at a time, and not every one of them
  const second = (await partsOf({ ...options, every: '2' })).join('').trimEnd().split('\r\n');
  expect(second.slice(1).map((line) => line.split(',')[0])).toEqual(
    Array.from({ length: 6001 }, (_, i) => String(2 * i)),
  );
  const out = join(mkdtempSync(join(tmpdir(), 'schritt-')), 'rows.csv');
  expect(await exported({ ...options, out, bom: true })).toBe('');
  expect(readFileSync(out, 'utf8')).toBe(`\ufeff${parts.join('')}`);
});

test('programs, sheets, plots, formulas and handouts are what their names say', async () => {
  const program = await exported({ what: 'program', method: 'AB2', h: '0.5' });
  expect(program).toContain('# Frost: AB2');
  expect(program).toContain('def first_step(t, y, h):');
  expect((await bytes({ what: 'sheet', method: 'AB2' })).subarray(0, 2).toString()).toBe('PK');
  expect(await exported({ what: 'plot' })).toMatch(/^<svg .*<title>Frost. Order: error.* vs h, log-log</s);
  const size = async (scale: string): Promise<readonly [number, number]> => {
    const png = await bytes({ what: 'plot', as: 'png', plot: 'solution', steps: '6', scale });
    expect(png.subarray(1, 4).toString()).toBe('PNG');
    return [png.readUInt32BE(16), png.readUInt32BE(20)];
  };
  expect([await size('1'), await size('2')]).toEqual([
    [1280, 720],
    [2560, 1440],
  ]);
  const formulas = await exported({ what: 'formulas', method: 'Euler', h: '1', step: '0' });
  // s(2) = 2 + 2/2
  expect(formulas).toMatch(/y_\{1\} &= .*&= 3 /s);
  const handout = { what: 'handout', of: 'rows', method: 'Euler', h: '1', blanks: 'cells 1 s' } as const;
  expect((await exported(handout)).match(/<td class="blank">/g)).toHaveLength(1);
  const key = await exported({ ...handout, key: true, room: true });
  expect(key).toContain('<td class="answer">3</td>');
  expect(key).toMatch(/<div class="drawn">\n<svg [^]*<\/svg>\n\n<\/div>/);
});

test.each<[ExportOptions, string]>([
  [
    { what: 'program', as: 'md', method: 'AB2', h: '1' },
    'program can be written as py, c, js, f90, m, jl, not as md',
  ],
  [{ what: 'rungs', as: 'c' }, 'rungs can be written as csv, md, tex, html, txt, not as c'],
  [{ what: 'rows', as: 'csv', method: 'Euler' }, 'give either h'],
  [{ what: 'rows', method: 'Euler', steps: '3', columns: 's,q' }, 'there is no column q; there are s, f'],
  [{ what: 'rows', as: 'md', method: 'Euler', steps: '300000' }, 'writes CSV of any length'],
  [{ what: 'rows', as: 'md', method: 'Euler', steps: '3', digits: '201' }, 'from 1 to 200'],
  [{ what: 'plot', as: 'png', scale: '5' }, 'scale takes an integer from 1 to 4'],
  [{ what: 'plot', plot: 'solution' }, 'give either h'],
  [{ what: 'sheet', method: 'Heun' }, 'there is no method "Heun" in this study; there are Euler, AB2'],
  [{ what: 'formulas', step: '9', steps: '3' }, 'there is no step from 9 to 10'],
  [{ what: 'handout', blanks: 'everything' }, 'not a blank'],
  [{ what: 'handout', variants: 'q in 1..3' }, 'no parameter and no initial value q'],
])('what does not go together is refused in words: %j', async (options, words) => {
  const refused = await exported(options).then(
    () => 'written',
    (thrown: unknown) => {
      if (thrown instanceof Failure || thrown instanceof Refusal) return thrown.message;
      throw thrown;
    },
  );
  expect(refused).toContain(words);
});
