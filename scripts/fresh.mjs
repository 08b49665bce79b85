// Builds what is missing or older than its sources, and installs what is missing.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Runs a program in the root folder; ends this process with its exit code if it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (error) throw error;
  if (status !== 0) process.exit(status ?? 1);
}

function newest(folder, skip) {
  let time = 0;
  if (!existsSync(folder)) return time;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (skip.has(entry.name)) continue;
    const path = join(folder, entry.name);
    time = Math.max(time, entry.isDirectory() ? newest(path, skip) : statSync(path).mtimeMs);
  }
  return time;
}

const SKIP = new Set(['node_modules', 'dist', 'data']);

/** Installs the packages by the lock file when they are not there or the lock file has changed since. */
export function install() {
  const mark = join(root, 'node_modules/.package-lock.json');
  const lock = join(root, 'package-lock.json');
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync(lock).mtimeMs - 1000) return;
  console.log('Installing packages (about two minutes the first time) ...');
  run('npm', ['ci', '--no-audit', '--no-fund']);
}

/** Builds core, plot, cli and server where a source is newer than the last build. */
export function buildNode(parts = ['core', 'plot', 'cli', 'server'], quiet = false) {
  const stale = parts.some((part) => {
    const mark = join(root, part, 'dist/.tsbuildinfo');
    return !existsSync(mark) || newest(join(root, part), SKIP) > statSync(mark).mtimeMs;
  });
  if (!stale) return;
  const stdio = quiet ? ['ignore', 2, 2] : 'inherit';
  run(process.execPath, [join(root, 'node_modules/typescript/bin/tsc'), '-b', '--force', ...parts], {
    stdio,
  });
}

/** Makes the page's types of the API where the server is newer than they are. */
export function apiTypes() {
  const types = join(root, 'web/src/api/schema.ts');
  const server = join(root, 'server/dist/.tsbuildinfo');
  if (existsSync(types) && statSync(types).mtimeMs >= statSync(server).mtimeMs) return;
  run(process.execPath, [join(root, 'scripts/api-types.mjs')]);
}

/** Builds the web application where a source is newer than the last build. */
export function buildWeb() {
  apiTypes();
  const mark = join(root, 'web/dist/index.html');
  const sources = Math.max(
    newest(join(root, 'web'), SKIP),
    newest(join(root, 'core/src'), SKIP),
    newest(join(root, 'plot/src'), SKIP),
  );
  if (existsSync(mark) && statSync(mark).mtimeMs >= sources) return;
  run('npm', ['run', '--silent', 'build', '-w', 'web']);
}
