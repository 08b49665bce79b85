import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { root } from '../fresh.mjs';
import { startServer } from '../programs.mjs';
import { send } from './requests.mjs';

/** The instructions of a container file, each with what it is given. */
function instructionsOf(text) {
  return text
    .split('\n')
    .filter((line) => line.trim() !== '' && !line.startsWith('#'))
    .map((line) => {
      const [, name, rest] = /^(\S+)\s+(.*)$/.exec(line);
      return { name, rest };
    });
}

/** Runs the steps of the container file in a folder, without containers; answers whether what they make serves. */
export async function containerSteps() {
  const folder = mkdtempSync(join(tmpdir(), 'schritt-container-'));
  try {
    const files = execFileSync('git', ['ls-files', '-z'], { cwd: root, encoding: 'utf8' }).split('\0');
    for (const file of files.filter((name) => name !== '')) {
      mkdirSync(dirname(join(folder, file)), { recursive: true });
      cpSync(join(root, file), join(folder, file));
    }
    const ran = [];
    for (const { name, rest } of instructionsOf(readFileSync(join(root, 'deploy/Dockerfile'), 'utf8'))) {
      // folders of the image, such as that of its data, are those of this test
      if (name !== 'RUN' || rest.includes('/data')) continue;
      const { status, stderr } = spawnSync('/bin/sh', ['-c', rest], { cwd: folder, encoding: 'utf8' });
      if (status !== 0) throw new Error(`${rest}: ${stderr}`);
      ran.push(rest);
    }
    const server = await startServer(join(folder, 'data'), {}, folder);
    try {
      const { status, body } = await send(server.address, 'GET', '/api/studies');
      const page = await fetch(server.address);
      return { ran, studies: status === 200 ? body.total : 0, hasPage: page.status === 200 };
    } finally {
      await server.stop();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
