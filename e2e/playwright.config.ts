import { defineConfig } from '@playwright/test';

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
    viewport: { width: 1280, height: 800 },
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] },
  },
});
