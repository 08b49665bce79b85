import { chmodSync, existsSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { StartFailure } from '../start-failure.ts';
import { MIGRATIONS } from './migrations.ts';

/** The file of all data in a data folder. */
export function storeFile(folder: string): string {
  return join(folder, 'schritt.sqlite');
}

/**
 * Creates a store where there is none. It gets its name when it holds something, so that a store of zero bytes is
 * always a damaged one, never one that was just being created.
 */
export function createStore(file: string): void {
  if (existsSync(file)) return;
  const fresh = `${file}.new`;
  const store = new Database(fresh);
  store.pragma('user_version = 1');
  store.close();
  chmodSync(fresh, 0o600);
  renameSync(fresh, file);
}

function migrationsIn(store: Database.Database): readonly string[] {
  const has = store.prepare("SELECT 1 FROM sqlite_schema WHERE type = 'table' AND name = 'migrations'").get();
  if (has === undefined) return [];
  return store
    .prepare<[], { readonly name: string }>('SELECT name FROM migrations')
    .all()
    .map(({ name }) => name);
}

/** Which layout a store has: none yet, that of this version, or that of an older one. */
export type StoreLayout = 'none' | 'current' | 'older';

/**
 * Checks a store before it is used: it is complete, and no newer version wrote it.
 *
 * @param name what messages call the file
 * @throws StartFailure for a store that is empty, damaged or of a newer version
 */
export function checkStore(file: string, name = file): StoreLayout {
  if (!existsSync(file)) return 'none';
  if (statSync(file).size === 0)
    throw new StartFailure(
      `the file ${name} is empty (0 bytes), its data is lost; restore a copy with: npm run schritt -- restore FILE, or delete the file to start anew`,
    );
  // one that was made before files were for their owner alone
  for (const part of ['', '-wal', '-shm']) if (existsSync(file + part)) chmodSync(file + part, 0o600);
  const store = new Database(file);
  try {
    const faults = store.pragma('quick_check(1)', { simple: true });
    if (faults !== 'ok')
      throw new StartFailure(
        `the file ${name} is damaged (${String(faults)}); restore a copy with: npm run schritt -- restore FILE`,
      );
    const done = migrationsIn(store);
    const known = MIGRATIONS.map(({ name }) => name);
    if (done.some((name) => !known.includes(name)))
      throw new StartFailure(
        `the file ${name} was written by a newer version of Schritt; install that version, or choose another folder with SCHRITT_DATA`,
      );
    if (done.length === 0) return 'none';
    return done.length === known.length ? 'current' : 'older';
  } finally {
    store.close();
  }
}

/** Keeps a copy of a store of an older layout beside it, before it is migrated. */
export function copyBeforeMigration(file: string): string {
  const copy = file.replace(/\.sqlite$/, `-before-${MIGRATIONS.length}-${Date.now()}.sqlite`);
  const store = new Database(file);
  try {
    store.prepare('VACUUM INTO ?').run(copy);
  } finally {
    store.close();
  }
  chmodSync(copy, 0o600);
  return copy;
}
