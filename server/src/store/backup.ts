import { chmodSync, copyFileSync, existsSync, renameSync, rmSync } from 'node:fs';
import { readDocumentText } from '@schritt/core/format';
import Database from 'better-sqlite3';
import { StartFailure } from '../start-failure.ts';
import { dropChecksum, isUnchanged, writeChecksum } from './checksum.ts';
import { lockFolder } from './lock.ts';
import { checkStore, storeFile } from './check-store.ts';
import { makeFolder } from './make-folder.ts';

/** The parts of a store in write-ahead mode. */
const PARTS = ['', '-wal', '-shm'];

function removeStore(file: string): void {
  for (const part of PARTS) rmSync(file + part, { force: true });
}

/** Work on an opened store, which is closed afterwards in any case. */
function withStore<T>(file: string, work: (store: Database.Database) => T): T {
  const store = new Database(file, { fileMustExist: true });
  try {
    return work(store);
  } finally {
    store.close();
  }
}

/** Makes one file of a store: what is in its write-ahead log is moved into it. */
function mergeLog(store: Database.Database): void {
  store.pragma('journal_mode = DELETE');
}

/**
 * Writes a copy of all data to one file, with its checksum, also while a server is running.
 *
 * @throws StartFailure where there is no data, or the file exists already
 */
export async function backUp(folder: string, into: string): Promise<void> {
  const from = storeFile(folder);
  if (!existsSync(from)) throw new StartFailure(`there is no data in ${folder}`);
  if (existsSync(into)) throw new StartFailure(`${into} exists already; choose another name`);
  // a copy that is not finished has no name that one would restore it by
  const fresh = `${into}.part`;
  removeStore(fresh);
  try {
    const store = new Database(from, { readonly: true });
    try {
      await store.backup(fresh);
    } finally {
      store.close();
    }
    withStore(fresh, (copy) => {
      mergeLog(copy);
      writeChecksum(copy);
    });
    chmodSync(fresh, 0o600);
    renameSync(fresh, into);
  } finally {
    removeStore(fresh);
  }
}

/** Documents of a copy that cannot be read, by kind and title. */
function unreadable(copy: Database.Database): readonly string[] {
  const entries = copy
    .prepare<[], { readonly kind: string; readonly title: string; readonly document: string }>(
      'SELECT kind, title, document FROM entries',
    )
    .iterate();
  return [...entries]
    .filter(({ document }) => !readDocumentText(document).ok)
    .map(({ kind, title }) => `${kind} "${title}"`);
}

/** @throws StartFailure for a copy that is damaged, was changed, or holds documents that cannot be read */
function verify(copy: Database.Database, name: string, keepDamaged: boolean): void {
  const faults = copy.pragma('integrity_check(1)', { simple: true });
  if (faults !== 'ok') throw new StartFailure(`${name} is damaged (${String(faults)}); nothing was changed`);
  if (isUnchanged(copy) === false)
    throw new StartFailure(
      `${name} was changed after it was made (its checksum differs); nothing was changed`,
    );
  const lost = keepDamaged ? [] : unreadable(copy);
  if (lost.length > 0)
    throw new StartFailure(
      `${name} holds ${lost.length === 1 ? 'a document' : `${lost.length} documents`} that cannot be read: ${lost.slice(0, 5).join(', ')}; nothing was changed. Add --keep-damaged to restore it as it is`,
    );
}

/** Moves the present store aside as one file where it can be opened, or in its parts where it cannot. */
function setAside(file: string, former: string): void {
  try {
    withStore(file, mergeLog);
  } catch {
    // a store that cannot be opened is kept as it is, with its log
  }
  for (const part of PARTS) if (existsSync(file + part)) renameSync(file + part, former + part);
}

/**
 * Restores a copy. It is verified before anything is replaced; the data that was there is kept beside it. Sessions are
 * not restored: one that was revoked since stays revoked.
 *
 * @param from the file; where its write-ahead log lies beside it, as after a crash, that is restored with it
 * @param keepDamaged whether documents that cannot be read are restored as they are
 * @returns the file that holds the former data; null where there was none
 * @throws StartFailure for a file that is not a complete copy, or while a server is using the folder
 */
export function restore(from: string, folder: string, keepDamaged = false): string | null {
  if (!existsSync(from)) throw new StartFailure(`there is no file ${from}`);
  makeFolder(folder);
  const release = lockFolder(folder);
  const [file, fresh] = [storeFile(folder), `${storeFile(folder)}.new`];
  try {
    removeStore(fresh);
    for (const part of ['', '-wal']) if (existsSync(from + part)) copyFileSync(from + part, fresh + part);
    if (checkStore(fresh, from) === 'none') throw new StartFailure(`${from} is not a copy of Schritt's data`);
    withStore(fresh, (copy) => {
      mergeLog(copy);
      verify(copy, from, keepDamaged);
      dropChecksum(copy);
      const hasSessions = copy.prepare("SELECT 1 FROM sqlite_schema WHERE name = 'sessions'").get();
      if (hasSessions !== undefined) copy.exec('DELETE FROM sessions');
    });
    const former = existsSync(file) ? file.replace(/\.sqlite$/, `-former-${Date.now()}.sqlite`) : null;
    if (former !== null) setAside(file, former);
    chmodSync(fresh, 0o600);
    renameSync(fresh, file);
    return former;
  } finally {
    removeStore(fresh);
    release();
  }
}
