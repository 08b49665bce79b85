import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  timeout: 180_000,
  expect: { timeout: 30_000 },
  // each has a server and a browser of its own, and much of a test is waiting
  workers: 2,
  forbidOnly: true,
  reporter: process.env['SCHRITT_E2E_REPORT']
    ? [['line'], ['json', { outputFile: process.env['SCHRITT_E2E_REPORT'] }]]
    : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] },
  },
});
