import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { ServerOptions } from './app.module.ts';
import { createServer } from './create-server.ts';

/** Folder of this server's compiled workers: threads run compiled files only. */
export const WORKERS = join(process.cwd(), 'server/dist/threads');
/** Seconds that a task may take: more than any test's task takes on a slow machine. */
export const PATIENT = 200;

/** A server over a data folder as tests want it: without demo data, pages and key, unless they say otherwise. */
export async function testServer(
  folder: string,
  more: Partial<ServerOptions> = {},
): Promise<NestExpressApplication> {
  return createServer({
    database: join(folder, 'schritt.sqlite'),
    demo: null,
    web: null,
    threads: { workers: WORKERS, limit: PATIENT },
    queue: null,
    access: { host: '127.0.0.1', names: [], key: null, metricsKey: null, proxies: 0 },
    logLevel: 'silent',
    ...more,
  });
}
