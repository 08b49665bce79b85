import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const ROOT = join(__dirname, '../..');
const STUDY = join(ROOT, 'demo/sluice.schritt.json');
let folder = '';

function run(command: string, args: readonly string[], cwd = folder): string {
  const { status, stdout, stderr } = spawnSync(command, args, { cwd, encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} ${args.join(' ')}: ${stderr}`);
  return stdout;
}

/** The program as it is installed: what npm packs, with the packages that it names beside it. */
const schritt = (...args: readonly string[]): string =>
  run(process.execPath, [join(folder, 'package/dist/schritt.js'), ...args]);

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-package-'));
  run('npm', ['pack', '--silent', '--pack-destination', folder], ROOT);
  const [packed] = readdirSync(folder);
  run('tar', ['-xzf', packed ?? '']);
  symlinkSync(join(ROOT, 'node_modules'), join(folder, 'node_modules'));
}, 180_000);
afterAll(() => rmSync(folder, { recursive: true }));

test('the packed program needs nothing of this folder, and answers as the one here', () => {
  expect(readdirSync(join(folder, 'package')).sort()).toEqual([
    'LICENSE',
    'NOTICE',
    'README.md',
    'dist',
    'package.json',
  ]);
  expect(schritt('--version')).toBe('0.1.0\n');
  const here = run(process.execPath, [join(ROOT, 'scripts/schritt.mjs'), 'study', STUDY]);
  expect(schritt('study', STUDY)).toBe(here);
  expect(here).toContain('Sluice of the snow lake');
});

test('it names every package that it uses, and writes files of each kind', () => {
  const text = readFileSync(join(folder, 'package/dist/schritt.js'), 'utf8');
  const { dependencies }: { dependencies: Record<string, string> } = JSON.parse(
    readFileSync(join(folder, 'package/package.json'), 'utf8'),
  );
  const used = [...text.matchAll(/^import .*? from "([^".][^"]*)"/gm)].map(([, name = '']) => name);
  const isNamed = (name: string): boolean =>
    name.startsWith('node:') || Object.keys(dependencies).some((known) => `${name}/`.startsWith(`${known}/`));
  expect(used.length).toBeGreaterThan(5);
  expect(used.filter((name) => !isNamed(name))).toEqual([]);
  for (const [what, as, start] of [
    ['plot', 'pdf', '%PDF'],
    ['picture', 'png', '\u{fffd}PNG'],
    ['sheet', 'xlsx', 'PK'],
    ['handout', 'html', '<!doctype html>'],
  ] as const) {
    const file = join(folder, `made.${as}`);
    schritt('export', STUDY, '--what', what, '--as', as, '--method', 'Heun', '--h', '0.5', '--out', file);
    expect(readFileSync(file, 'utf8').slice(0, start.length)).toBe(start);
  }
}, 60_000);
