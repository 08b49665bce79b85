// Sees to it that Debian's Chromium is there for the tests of the interface.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

export function chromium() {
  if (existsSync('/usr/bin/chromium')) return;
  if (process.getuid?.() !== 0) {
    console.error('The tests need Chromium. Install it with: sudo apt-get install chromium');
    process.exit(1);
  }
  console.log('Installing Chromium ...');
  for (const args of [['update'], ['install', '-y', '--no-install-recommends', 'chromium']]) {
    const { status } = spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    if (status !== 0) {
      console.error('Chromium could not be installed; install the package chromium by hand.');
      process.exit(1);
    }
  }
}
