import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base } from '@playwright/test';
import { startServer } from '../scripts/programs.mjs';

interface Site {
  /** The address of the server of these tests. */
  readonly site: string;
}

/** Tests of the built product. Those of one process have a server with the demo data of their own. */
export const test = base.extend<object, Site>({
  site: [
    async ({ playwright }, use) => {
      const data = mkdtempSync(join(tmpdir(), 'schritt-e2e-'));
      const server = await startServer(data, {
        // a machine that runs other work beside the tests may be slow
        SCHRITT_REQUEST_SECONDS: '120',
      });
      const asked = await playwright.request.newContext();
      await base.expect(await asked.get(`${server.address}/api/health`)).toBeOK();
      await asked.dispose();
      await use(server.address);
      await server.stop();
      rmSync(data, { recursive: true });
    },
    { scope: 'worker' },
  ],
  baseURL: ({ site }, use) => use(site),
});
