import { readSettings } from './settings.ts';
import { startSentence } from './start-failure.ts';
import { backUp, restore } from './store/backup.ts';

const USAGE = `schritt backup FILE    writes a copy of all data to a file, also while the server runs
schritt restore FILE   puts such a copy back; the data that were there are kept beside it
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
  const [command, file, ...more] = words;
  if (file === undefined || more.length > 0) return { ok: false, text: USAGE };
  try {
    if (command === 'backup') {
      await backUp(data, file);
      return { ok: true, text: `all data of ${data} are in ${file}` };
    }
    const former = restore(file, data);
    const kept = former === null ? '' : `; what was there is in ${former}`;
    return { ok: true, text: `the data of ${file} are in ${data} again${kept}` };
  } catch (thrown) {
    const sentence = startSentence(thrown, { data, port: reading.settings.port });
    return { ok: false, text: sentence ?? (thrown instanceof Error ? thrown.message : String(thrown)) };
  }
}
