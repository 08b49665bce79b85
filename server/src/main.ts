import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serverKey } from './access/server-key.ts';
import { createServer } from './create-server.ts';
import { isLoopback, readSettings, type Settings } from './settings.ts';
import { startSentence } from './start-failure.ts';
import { makeFolder } from './store/make-folder.ts';
import { lockFolder } from './store/lock.ts';
import { checkStore, copyBeforeMigration, createStore, storeFile } from './store/check-store.ts';

const here = dirname(fileURLToPath(import.meta.url));
const root = dirname(dirname(here));

/** The names by which a server at an address is reached; one at every address by those that this machine has. */
function addressesOf(host: string): readonly string[] {
  if (host !== '0.0.0.0' && host !== '::') return [host.includes(':') ? `[${host}]` : host];
  const found = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal);
  return ['127.0.0.1', ...found.map(({ address }) => address)];
}

async function start({
  data,
  host,
  port,
  names,
  key,
  metricsKey,
  proxies,
  queue,
  runMemory,
  jobSeconds,
  requestSeconds,
  logLevel,
}: Settings): Promise<void> {
  // what is written from here on is for its owner alone
  process.umask(0o077);
  makeFolder(data);
  const release = lockFolder(data);
  process.on('exit', release);
  if (checkStore(storeFile(data)) === 'older') {
    const copy = copyBeforeMigration(storeFile(data));
    process.stdout.write(`The data is being migrated to this version; a copy of it as it was is ${copy}\n`);
  }
  createStore(storeFile(data));
  const own = !isLoopback(host) || proxies > 0 || key !== null ? serverKey(data, key) : null;
  const web = join(root, 'web/dist');
  const app = await createServer({
    database: storeFile(data),
    demo: join(root, 'demo'),
    web: existsSync(web) ? web : null,
    threads: {
      workers: join(here, 'threads'),
      limit: jobSeconds,
      requestLimit: requestSeconds,
      memory: runMemory,
    },
    queue,
    access: { host, names, key: own, metricsKey, proxies },
    logLevel,
  });
  // longer than clients keep a connection that they do not use: none is closed just as it is used again
  app.getHttpServer().keepAliveTimeout = 65_000;
  await app.listen(port, host);
  const bound = (await app.getUrl()).replace(/^.*:/, '');
  const addresses = addressesOf(host).map((name) => `http://${name}:${bound}`);
  process.stdout.write(`Schritt is at ${addresses.join(' and ')}\n`);
  if (own !== null) {
    const links = addresses.map((address) => `${address}/open#${own}`);
    process.stdout.write(`To write, open ${links.join(' or ')}\nOthers see only what is shared.\n`);
  }
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
