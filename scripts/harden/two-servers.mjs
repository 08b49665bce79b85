import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { root } from '../fresh.mjs';
import { startServer } from '../programs.mjs';

/**
 * Starts a second server over a folder that one has: in this process namespace, and in one of its own, as a container
 * is.
 */
export async function twoServers(data) {
  const server = await startServer(data);
  const second = (command, args) =>
    spawnSync(command, [...args, process.execPath, join(root, 'server/dist/main.js')], {
      env: { ...process.env, SCHRITT_DATA: data, SCHRITT_PORT: '0' },
      encoding: 'utf8',
      timeout: 20_000,
    });
  const refused = ({ status, stderr }) =>
    status === 1 && stderr.includes('another server is using the folder');
  const faults = [];
  try {
    if (!refused(second('env', []))) faults.push('a second server starts');
    const apart = second('unshare', ['--pid', '--fork', '--mount-proc']);
    const tried = !/unshare failed|Operation not permitted/.test(apart.stderr ?? '');
    if (tried && !refused(apart)) faults.push('a second server in a process namespace of its own starts');
    await server.stop('SIGKILL');
    const after = await startServer(data);
    await after.stop();
    return { apart: tried, faults };
  } finally {
    if (server.isUp()) await server.stop('SIGKILL');
  }
}
