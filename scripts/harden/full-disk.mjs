import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { startServer } from '../programs.mjs';
import { send } from './requests.mjs';

const METHOD = (i) => ({
  schritt: 1,
  kind: 'method',
  title: `Euler ${i}`,
  text: `y[n+1] = y + h*f(t, y)\n${'# '.repeat(9000)}`,
});

/**
 * A server on a disk of a few megabytes that becomes full: it says so, loses nothing, and goes on when there is room.
 */
export async function fullDisk(folder) {
  mkdirSync(folder, { recursive: true });
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=6m', 'tmpfs', folder]);
  if (mounted.status !== 0) return { tried: false };
  const faults = [];
  try {
    const data = join(folder, 'data');
    const ballast = join(folder, 'ballast');
    mkdirSync(data);
    writeFileSync(ballast, Buffer.alloc(1_000_000));
    const server = await startServer(data);
    try {
      let stored = 0;
      let refused = null;
      while (refused === null && stored < 1000) {
        const { status, body } = await send(server.address, 'POST', '/api/methods', {
          document: METHOD(stored),
        });
        if (status === 201) stored += 1;
        else refused = { status, message: body.message };
      }
      if (refused?.status !== 507)
        faults.push(`a full disk is answered ${refused?.status}: ${refused?.message}`);
      const document = {
        schritt: 1,
        kind: 'study',
        title: 'S',
        problem: { title: 'S', text: "y' = -y\ny(0) = 1\n0 <= t <= 1" },
        methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
        ladder: { counts: [10_000_000] },
      };
      await send(server.address, 'POST', '/api/jobs', { document });
      await new Promise((done) => setTimeout(done, 1500));
      const health = await send(server.address, 'GET', '/api/health');
      if (health.status !== 200 || !server.isUp()) faults.push('the server does not answer any more');
      rmSync(ballast);
      const after = await send(server.address, 'POST', '/api/methods', { document: METHOD('after') });
      if (after.status !== 201) faults.push(`with room again a save is answered ${after.status}`);
      const list = await send(server.address, 'GET', '/api/methods?count=1');
      const known = list.body.total;
      await server.stop();
      const again = await startServer(data);
      const there = (await send(again.address, 'GET', '/api/methods?count=1')).body.total;
      await again.stop();
      if (there !== known) faults.push(`${known} methods were there, ${there} are after a new start`);
      return { tried: true, stored, refused, faults };
    } finally {
      if (server.isUp()) await server.stop('SIGKILL');
    }
  } finally {
    spawnSync('umount', ['-l', folder]);
  }
}
