import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { KeyHolder, keyOf } from './access/key-holder.ts';
import { needsKey } from './access/door.ts';
import { createServer } from './create-server.ts';
import { readSettings, type Settings } from './settings.ts';
import { startSentence } from './start-failure.ts';
import { makeFolder } from './store/make-folder.ts';
import { lockFolder } from './store/lock.ts';
import { lookAtStore, storeFile } from './store/look-at-store.ts';

const here = dirname(fileURLToPath(import.meta.url));
const root = dirname(dirname(here));

async function start({ data, host, port, names, key, jobSeconds, logLevel }: Settings): Promise<void> {
  // what is written from here on is for its owner alone
  process.umask(0o077);
  makeFolder(data);
  const unlock = lockFolder(data);
  process.on('exit', unlock);
  const copy = lookAtStore(storeFile(data));
  if (copy !== null) process.stdout.write(`The data get a new layout; a copy as they were is in ${copy}\n`);
  const own = needsKey(host) || key !== null ? keyOf(data, key) : null;
  const web = join(root, 'web/dist');
  const app = await createServer({
    database: storeFile(data),
    demo: join(root, 'demo'),
    web: existsSync(web) ? web : null,
    threads: { workers: join(here, 'threads'), limit: jobSeconds },
    door: { host, names, key: own === null ? null : new KeyHolder(own) },
    logLevel,
  });
  await app.listen(port, host);
  const address = await app.getUrl();
  process.stdout.write(`Schritt is at ${address}\n`);
  if (own !== null)
    process.stdout.write(`To write, open ${address}/open#${own}\nOthers see only what is marked as shown.\n`);
}

const reading = readSettings(process.env, root);
if (reading.ok)
  try {
    await start(reading.settings);
  } catch (thrown) {
    const sentence = startSentence(thrown, reading.settings);
    if (sentence === null) throw thrown;
    process.stderr.write(`Schritt cannot start: ${sentence}\n`);
    process.exit(1);
  }
else {
  process.stderr.write(`Schritt cannot start:\n${reading.faults.map((fault) => `  ${fault}\n`).join('')}`);
  process.exit(1);
}
