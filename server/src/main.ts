import 'reflect-metadata';
import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createServer } from './create-server.ts';

const here = dirname(fileURLToPath(import.meta.url));
const root = dirname(dirname(here));
const data = process.env['SCHRITT_DATA'] ?? join(root, 'data');
const host = process.env['SCHRITT_HOST'] ?? '127.0.0.1';
const port = Number(process.env['SCHRITT_PORT'] ?? 4600);
const web = join(root, 'web/dist');

mkdirSync(data, { recursive: true });
const app = await createServer({
  database: join(data, 'schritt.sqlite'),
  demo: join(root, 'demo'),
  web: existsSync(web) ? web : null,
  jobs: {
    worker: join(here, 'jobs/run-method.worker.js'),
    limit: Number(process.env['SCHRITT_JOB_SECONDS'] ?? 900),
  },
  logLevel: process.env['SCHRITT_LOG'] === 'info' ? 'info' : 'warn',
});
await app.listen(port, host);
process.stdout.write(`Schritt is at ${await app.getUrl()}\n`);
