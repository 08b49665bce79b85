// A queue, a server and workers as processes, for measuring and showing what they do together.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { root } from './fresh.mjs';
import { freePort, startProgram, startServer } from './programs.mjs';

/** The API of a server at a queue with workers of one thread each. */
export async function withWorkers(count, work) {
  const folder = mkdtempSync(join(tmpdir(), 'schritt-queue-'));
  const port = String(await freePort());
  const url = `redis://127.0.0.1:${port}`;
  const programs = [];
  const started = async (program) => {
    programs.push(await program);
    return program;
  };
  try {
    const options = ['--port', port, '--save', '', '--dir', folder];
    await started(startProgram('redis-server', options, { sign: /Ready to accept connections/ }));
    const settings = { SCHRITT_QUEUE: url, SCHRITT_WORKER_THREADS: '1' };
    const server = await started(startServer(join(folder, 'data'), settings));
    const worker = [join(root, 'server/dist/worker-main.js')];
    for (let i = 0; i < count; i += 1)
      await started(startProgram(process.execPath, worker, { sign: /at a time/, settings }));
    const api = async (path, body) => {
      const answer = await fetch(`${server.address}/api${path}`, {
        ...(body === undefined
          ? {}
          : {
              method: 'POST',
              headers: { 'content-type': 'application/json' },
              body: JSON.stringify(body),
            }),
      });
      if (!answer.ok) throw new Error(await answer.text());
      return answer;
    };
    const json = async (path, body) => (await api(path, body)).json();
    while ((await json('/health')).workers !== count) await setTimeout(100);
    /** Does a job to its end; answers its seconds and its last state. */
    const job = async (path, body) => {
      const from = performance.now();
      const { id } = await json(path, body);
      // the stream of events ends with the job
      await (await api(`/jobs/${id}/events`)).text();
      const last = await json(`/jobs/${id}`);
      if (last.state !== 'done') throw new Error(JSON.stringify(last));
      return { id, last, seconds: (performance.now() - from) / 1000 };
    };
    return await work({ url, json, api, job, server: server.pid });
  } finally {
    for (const program of programs.reverse()) await program.stop('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}
