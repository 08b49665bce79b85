import { chmodSync, copyFileSync, existsSync, renameSync, rmSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import { StartFailure } from '../start-failure.ts';
import { makeFolder } from './make-folder.ts';
import { lockFolder } from './lock.ts';
import { lookAtStore, storeFile } from './look-at-store.ts';

function mustBeNew(file: string): void {
  if (existsSync(file)) throw new StartFailure(`${file} is there already; choose another name`);
}

/**
 * Writes a copy of all data to one file, also while a server runs.
 *
 * @throws StartFailure where there are no data, or the file is there already
 */
export async function backUp(folder: string, into: string): Promise<void> {
  const from = storeFile(folder);
  if (!existsSync(from)) throw new StartFailure(`there are no data in ${folder}`);
  mustBeNew(into);
  const store = new Database(from, { readonly: true });
  try {
    await store.backup(into);
    chmodSync(into, 0o600);
  } finally {
    store.close();
  }
}

/**
 * Puts a copy back. The data that were there are kept beside it.
 *
 * @returns the file in which the former data are; null where there were none
 * @throws StartFailure for a file that is no whole copy, or while a server uses the folder
 */
export function restore(from: string, folder: string): string | null {
  if (!existsSync(from)) throw new StartFailure(`there is no file ${from}`);
  makeFolder(folder);
  const unlock = lockFolder(folder);
  const [file, fresh] = [storeFile(folder), `${storeFile(folder)}.new`];
  try {
    copyFileSync(from, fresh);
    lookAtStore(fresh);
    const former = existsSync(file) ? `${dirname(file)}/schritt-former-${Date.now()}.sqlite` : null;
    // the write-ahead log belongs to the file beside it
    for (const end of ['', '-wal', '-shm'])
      if (former !== null && existsSync(file + end)) renameSync(file + end, former + end);
    renameSync(fresh, file);
    chmodSync(file, 0o600);
    return former;
  } finally {
    for (const end of ['', '-wal', '-shm']) rmSync(fresh + end, { force: true });
    unlock();
  }
}
