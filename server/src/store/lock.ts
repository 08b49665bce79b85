import { join } from 'node:path';
import Database from 'better-sqlite3';
import { codeOf, StartFailure } from '../start-failure.ts';

/**
 * Takes a data folder for this process alone: two servers would run each other's jobs. SQLite locks a file of its own
 * for it; the operating system holds that lock for all processes on the machine, those in other containers included,
 * and releases it when the process ends, however it ends.
 *
 * @returns what releases the folder
 * @throws StartFailure while another process holds it
 */
export function lockFolder(folder: string): () => void {
  const lock = new Database(join(folder, 'server.lock'), { timeout: 0 });
  try {
    lock.exec('BEGIN EXCLUSIVE');
  } catch (thrown) {
    lock.close();
    if (codeOf(thrown) !== 'SQLITE_BUSY') throw thrown;
    throw new StartFailure(
      `another server is using the folder ${folder}; stop it, or choose another folder with SCHRITT_DATA`,
    );
  }
  return () => lock.close();
}
