import { chmodSync, existsSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { StartFailure } from '../start-failure.ts';
import { MIGRATIONS } from './migrations.ts';

/** The file of all data in a data folder. */
export function storeFile(folder: string): string {
  return join(folder, 'schritt.sqlite');
}

function migrationsIn(store: Database.Database): readonly string[] {
  const has = store.prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'migrations'").get();
  if (has === undefined) return [];
  return store
    .prepare<[], { readonly name: string }>('SELECT name FROM migrations')
    .all()
    .map(({ name }) => name);
}

/**
 * Looks at a store before the server opens it: it is whole, it was written by no newer version, and before an older
 * one is changed to the present layout a copy is kept beside it.
 *
 * @returns the copy that was kept; null where none was needed
 * @throws StartFailure for a store of a newer version or with damage
 */
export function lookAtStore(file: string): string | null {
  if (!existsSync(file)) return null;
  // one that was made before files were for their owner alone
  for (const end of ['', '-wal', '-shm']) if (existsSync(file + end)) chmodSync(file + end, 0o600);
  const store = new Database(file);
  try {
    const faults = store.pragma('quick_check(1)', { simple: true });
    if (faults !== 'ok')
      throw new StartFailure(
        `the file ${file} is damaged (${String(faults)}); put a copy back with: npm run schritt -- restore FILE`,
      );
    const done = migrationsIn(store);
    const known = MIGRATIONS.map(({ name }) => name);
    if (done.some((name) => !known.includes(name)))
      throw new StartFailure(
        `the file ${file} was written by a newer version of Schritt; install that version, or choose another folder with SCHRITT_DATA`,
      );
    if (done.length === 0 || done.length === known.length) return null;
    const copy = file.replace(/\.sqlite$/, `-before-${known.length}-${Date.now()}.sqlite`);
    store.prepare('VACUUM INTO ?').run(copy);
    chmodSync(copy, 0o600);
    return copy;
  } finally {
    store.close();
  }
}
