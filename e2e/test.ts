import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base } from '@playwright/test';

const MAIN = join(import.meta.dirname, '../server/dist/main.js');

/** The address at which a server says that it is, once it says so. */
function addressOf(server: ChildProcess): Promise<string> {
  return new Promise((found, failed) => {
    let said = '';
    const hear = (text: Buffer): void => {
      said += text.toString();
      const address = /Schritt is at (\S+)/.exec(said)?.[1];
      if (address !== undefined) found(address);
    };
    server.stdout?.on('data', hear);
    server.stderr?.on('data', hear);
    server.on('exit', () => failed(new Error(`the server ended: ${said}`)));
  });
}

interface Site {
  /** The address of the server of these tests. */
  readonly site: string;
}

/** Tests of the built product. Those of one process have a server with the demo data of their own. */
export const test = base.extend<object, Site>({
  site: [
    async ({ playwright }, use) => {
      const data = mkdtempSync(join(tmpdir(), 'schritt-e2e-'));
      const server = spawn(process.execPath, [MAIN], {
        env: {
          ...process.env,
          SCHRITT_PORT: '0',
          SCHRITT_DATA: data,
          // a machine that runs other work beside the tests may be slow
          SCHRITT_REQUEST_SECONDS: '120',
        },
      });
      const site = await addressOf(server);
      const asked = await playwright.request.newContext();
      await base.expect(await asked.get(`${site}/api/health`)).toBeOK();
      await asked.dispose();
      await use(site);
      const gone = new Promise((done) => server.once('exit', done));
      server.kill();
      await gone;
      rmSync(data, { recursive: true });
    },
    { scope: 'worker' },
  ],
  baseURL: ({ site }, use) => use(site),
});
