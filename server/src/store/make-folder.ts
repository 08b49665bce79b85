import { existsSync, mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';

/**
 * Makes a folder and those around it, for its owner alone. One after another: where a file system refuses, asking for
 * all of them at once may never come back.
 */
export function makeFolder(path: string): void {
  const folder = resolve(path);
  if (existsSync(folder)) return;
  makeFolder(dirname(folder));
  mkdirSync(folder, { mode: 0o700 });
}
