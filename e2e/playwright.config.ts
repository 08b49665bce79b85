import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

const port = 4777;

export default defineConfig({
  testDir: '.',
  timeout: 180_000,
  expect: { timeout: 30_000 },
  workers: 1,
  forbidOnly: true,
  reporter: process.env['SCHRITT_E2E_REPORT']
    ? [['line'], ['json', { outputFile: process.env['SCHRITT_E2E_REPORT'] }]]
    : [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] },
  },
  webServer: {
    command: 'node ../server/dist/main.js',
    url: `http://127.0.0.1:${port}/api/health`,
    reuseExistingServer: false,
    env: {
      SCHRITT_PORT: String(port),
      SCHRITT_DATA: mkdtempSync(join(tmpdir(), 'schritt-e2e-')),
      // a machine that runs other work beside the tests may be slow
      SCHRITT_REQUEST_SECONDS: '120',
    },
  },
});
