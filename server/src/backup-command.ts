import { readSettings } from './settings.ts';
import { startSentence } from './start-failure.ts';
import { backUp, restore } from './store/backup.ts';

/** What a command prints, and whether it went well. */
export interface CommandAnswer {
  readonly ok: boolean;
  readonly text: string;
}

/** Runs a command on the data folder of the server; what fails is reported as when the server starts. */
async function onData(
  environment: NodeJS.ProcessEnv,
  root: string,
  work: (data: string) => Promise<string> | string,
): Promise<CommandAnswer> {
  const reading = readSettings(environment, root);
  if (!reading.ok) return { ok: false, text: reading.faults.join('\n') };
  const { data, port } = reading.settings;
  try {
    return { ok: true, text: await work(data) };
  } catch (thrown) {
    const sentence = startSentence(thrown, { data, port });
    return { ok: false, text: sentence ?? (thrown instanceof Error ? thrown.message : String(thrown)) };
  }
}

/** Writes a copy of all data to a file. */
export function backupCommand(
  file: string,
  environment: NodeJS.ProcessEnv,
  root: string,
): Promise<CommandAnswer> {
  return onData(environment, root, async (data) => {
    await backUp(data, file);
    return `the data of ${data} is copied to ${file}`;
  });
}

/** Restores such a copy after verifying it. */
export function restoreCommand(
  file: string,
  { keepDamaged = false }: { readonly keepDamaged?: boolean },
  environment: NodeJS.ProcessEnv,
  root: string,
): Promise<CommandAnswer> {
  return onData(environment, root, (data) => {
    const former = restore(file, data, keepDamaged);
    const kept = former === null ? '' : `; the data that was there is in ${former}`;
    return `the data of ${file} is restored in ${data}${kept}`;
  });
}
