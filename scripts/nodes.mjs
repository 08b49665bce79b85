// Runs the unit tests of numbers, files and the terminal on the other versions of Node that the program is for.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { install, root, run } from './fresh.mjs';

/** Versions besides the one that runs this. */
const VERSIONS = ['20.20.2', '22.23.3', '24.9.0'].filter(
  (version) => version.split('.')[0] !== process.versions.node.split('.')[0],
);
/** Folders whose tests hold bits, digests and what the engine reads; the others do not depend on the version. */
const FOLDERS = ['elementary', 'compile', 'run', 'reference', 'study', 'document', 'text']
  .map((folder) => `core/src/${folder}/`)
  .concat('cli/');
/** Where they are kept: not in node_modules, whose programs would take the place of the machine's own node. */
const FOLDER = join(root, '.nodes');

/** The program of a version; the registry has it as a package for every platform. */
function program(version) {
  const folder = join(FOLDER, version);
  const name = `node-${process.platform}-${process.arch}`;
  const file = join(folder, 'node_modules', name, 'bin/node');
  if (existsSync(file)) return file;
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'package.json'), '{ "private": true }\n');
  run('npm', ['install', '--no-audit', '--no-fund', '--silent', `${name}@${version}`], { cwd: folder });
  return file;
}

install();
let failed = 0;
for (const version of VERSIONS) {
  const node = program(version);
  const report = join(FOLDER, `${version}.json`);
  const { status } = spawnSync(
    node,
    [
      join(root, 'node_modules/jest/bin/jest.js'),
      '--silent',
      '--json',
      '--outputFile',
      report,
      '--maxWorkers',
      '100%',
      ...FOLDERS,
    ],
    { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] },
  );
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  rmSync(report);
  console.log(
    `Node ${version}: ${numPassedTests} tests passed, ${numFailedTests + numRuntimeErrorTestSuites} failed`,
  );
  if (status !== 0) failed += 1;
}
process.exit(failed === 0 ? 0 : 1);
