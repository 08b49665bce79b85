import { closeSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { codeOf, StartFailure } from '../start-failure.ts';

const NAME = 'schritt.lock';

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (thrown) {
    // a process of somebody else is alive, too
    return codeOf(thrown) === 'EPERM';
  }
}

/** The process that a lock names, while it is there; null for a lock that was left behind. */
function holder(file: string): number | null {
  const pid = Number(readFileSync(file, 'utf8'));
  return Number.isSafeInteger(pid) && pid > 0 && pid !== process.pid && isAlive(pid) ? pid : null;
}

/**
 * Takes a data folder for this process alone: two servers would run one another's jobs. A lock whose process is gone,
 * as after a crash, is taken over.
 *
 * @returns what gives the folder back
 * @throws StartFailure while another server has it
 */
export function lockFolder(folder: string): () => void {
  const file = join(folder, NAME);
  for (let tries = 0; tries < 2; tries += 1)
    try {
      const handle = openSync(file, 'wx', 0o600);
      writeSync(handle, String(process.pid));
      closeSync(handle);
      return () => rmSync(file, { force: true });
    } catch (thrown) {
      if (codeOf(thrown) !== 'EEXIST') throw thrown;
      const pid = holder(file);
      if (pid !== null)
        throw new StartFailure(
          `another server (process ${pid}) uses the folder ${folder}; end it, or choose another folder with SCHRITT_DATA`,
        );
      rmSync(file, { force: true });
    }
  throw new StartFailure(`the folder ${folder} is being taken by another server`);
}
