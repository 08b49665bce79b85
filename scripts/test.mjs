// One command from a fresh clone to all tests: installs, builds, runs unit and end-to-end tests, counts them.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildNode, buildWeb, install, root } from './fresh.mjs';
import './test-programs.mjs';

install();
buildNode();
buildWeb();

const folder = mkdtempSync(join(tmpdir(), 'schritt-tests-'));
const unitReport = join(folder, 'unit.json');
const pageReport = join(folder, 'pages.json');

function runTests(args, cwd, env = {}) {
  return (
    spawnSync(process.execPath, args, { cwd, stdio: 'inherit', env: { ...process.env, ...env } }).status ?? 1
  );
}

function read(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

const unitStatus = runTests(
  [
    join(root, 'node_modules/jest/bin/jest.js'),
    '--json',
    '--outputFile',
    unitReport,
    '--silent',
    // more than there are cores would leave too little to the servers that some of these tests start
    '--maxWorkers',
    '100%',
  ],
  root,
);
const pageStatus = runTests([join(root, 'node_modules/@playwright/test/cli.js'), 'test'], join(root, 'e2e'), {
  SCHRITT_E2E_REPORT: pageReport,
});
const unit = read(unitReport);
const pages = read(pageReport)?.stats;
rmSync(folder, { recursive: true });

// a runner that broke off without a report counts as one failure
const passed = (unit?.numPassedTests ?? 0) + (pages?.expected ?? 0) + (pages?.flaky ?? 0);
const reported =
  (unit?.numFailedTests ?? 0) + (unit?.numRuntimeErrorTestSuites ?? 0) + (pages?.unexpected ?? 0);
const broken = (unitStatus !== 0 || pageStatus !== 0) && reported === 0 ? 1 : 0;
console.log(`${passed} passed, ${reported + broken} failed`);
process.exit(unitStatus === 0 && pageStatus === 0 ? 0 : 1);
