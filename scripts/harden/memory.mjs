import { readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { startServer } from '../programs.mjs';
import { percentile, send, watchHealth } from './requests.mjs';

/** Megabytes that a process holds; null where the system does not tell. */
function megabytes(pid) {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;
  } catch {
    return null;
  }
}

/** A study whose results would fill memory and disk: the job ends with a sentence, and everything else goes on. */
export async function greedyJob(data) {
  const server = await startServer(data);
  const stop = watchHealth(server.address);
  const document = {
    schritt: 1,
    kind: 'study',
    title: 'Greedy',
    problem: {
      title: 'Greedy',
      text: `u[i]' = -u[i] for i = 1..20000\nu[i](0) = 1 for i = 1..20000\nu[i](t) = exp(-t) for i = 1..20000\n0 <= t <= 1`,
    },
    methods: Array.from({ length: 24 }, (_, i) => ({
      title: `Euler ${i}`,
      text: `y[n+1] = y + h*f(t, y) + ${i}*0*h*f(t, y)`,
    })),
    ladder: { counts: Array.from({ length: 40 }, (_, i) => i + 1) },
  };
  try {
    const { body: job } = await send(server.address, 'POST', '/api/jobs', { document });
    let most = 0;
    let now = job;
    while (now.state === 'waiting' || now.state === 'running') {
      most = Math.max(most, megabytes(server.pid) ?? 0);
      await new Promise((done) => setTimeout(done, 100));
      now = (await send(server.address, 'GET', `/api/jobs/${job.id}`)).body;
    }
    const again = await send(server.address, 'POST', '/api/jobs', {
      document: { ...document, problem: { title: 'S', text: "y' = -y\ny(0) = 1\n0 <= t <= 1" } },
    });
    const health = await stop();
    return {
      state: now.state,
      why: now.why,
      megabytes: most,
      database: statSync(join(data, 'schritt.sqlite')).size / 1e6,
      goesOn: again.status === 201 && server.isUp(),
      health: percentile(health, 0.99),
    };
  } finally {
    await server.stop();
  }
}
