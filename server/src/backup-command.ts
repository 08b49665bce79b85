import { parseArgs } from 'node:util';
import { readSettings } from './settings.ts';
import { startSentence } from './start-failure.ts';
import { backUp, restore } from './store/backup.ts';

const USAGE = `schritt backup FILE    writes a copy of all data to a file, also while the server is running
schritt restore FILE   restores such a copy after verifying it; the data that was there is kept beside it
  --keep-damaged       restores documents that cannot be read as they are
The data folder is that of the server (SCHRITT_DATA).`;

/**
 * The commands that copy all data and put them back.
 *
 * @returns what to print, and whether it went well
 */
export async function backupCommand(
  words: readonly string[],
  environment: NodeJS.ProcessEnv,
  root: string,
): Promise<{ readonly ok: boolean; readonly text: string }> {
  const reading = readSettings(environment, root);
  if (!reading.ok) return { ok: false, text: reading.faults.join('\n') };
  const { data } = reading.settings;
  const { values, positionals } = parseArgs({
    args: [...words],
    options: { 'keep-damaged': { type: 'boolean', default: false } },
    allowPositionals: true,
    strict: false,
  });
  const [command, file, ...more] = positionals;
  if (file === undefined || more.length > 0) return { ok: false, text: USAGE };
  try {
    if (command === 'backup') {
      await backUp(data, file);
      return { ok: true, text: `all data of ${data} is in ${file}` };
    }
    const former = restore(file, data, values['keep-damaged'] === true);
    const kept = former === null ? '' : `; the data that was there is in ${former}`;
    return { ok: true, text: `the data of ${file} is restored in ${data}${kept}` };
  } catch (thrown) {
    const sentence = startSentence(thrown, { data, port: reading.settings.port });
    return { ok: false, text: sentence ?? (thrown instanceof Error ? thrown.message : String(thrown)) };
  }
}
