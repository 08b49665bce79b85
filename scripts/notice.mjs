// Writes the list of bundled packages and their licences at the end of NOTICE.
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './fresh.mjs';

const listed = execFileSync('npm', ['ls', '--workspace', 'web', '--omit=dev', '--all', '--parseable'], {
  cwd: root,
  encoding: 'utf8',
});
const packages = listed
  .split('\n')
  .filter((path) => path.includes('/node_modules/') && !path.includes('/@schritt/'))
  .map((path) => JSON.parse(readFileSync(join(path, 'package.json'), 'utf8')))
  .map(
    ({ name, version, license }) =>
      `  ${name} ${version}: ${typeof license === 'string' ? license : 'see its package'}`,
  );
const file = join(root, 'NOTICE');
const text = readFileSync(file, 'utf8');
const mark = 'each under its own licence:\n';
const head = text.slice(0, text.indexOf(mark) + mark.length);
writeFileSync(file, `${head}\n${[...new Set(packages)].sort().join('\n')}\n`);
