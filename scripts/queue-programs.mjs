// A queue, a server and workers as processes, for measuring and showing what they do together.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { root } from './fresh.mjs';

const [REDIS, SERVER] = [4795, 4796];

/** Runs a program until it says something. */
async function started(command, args, env, sign) {
  const child = spawn(command, args, { env: { PATH: process.env.PATH, ...env } });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => (said += part));
  while (!said.includes(sign)) {
    if (child.exitCode !== null) throw new Error(said);
    await setTimeout(20);
  }
  return child;
}

async function ended(child) {
  if (child.exitCode !== null) return;
  const gone = once(child, 'exit');
  child.kill('SIGKILL');
  await gone;
}

/** The API of a server at a queue with workers of one thread each. */
export async function withWorkers(count, work) {
  const folder = mkdtempSync(join(tmpdir(), 'schritt-queue-'));
  const url = `redis://127.0.0.1:${REDIS}`;
  const programs = [];
  try {
    const options = ['--port', String(REDIS), '--save', '', '--dir', folder];
    programs.push(await started('redis-server', options, {}, 'Ready to accept connections'));
    const settings = { SCHRITT_QUEUE: url, SCHRITT_WORKER_THREADS: '1' };
    const main = join(root, 'server/dist/main.js');
    const own = { ...settings, SCHRITT_DATA: join(folder, 'data'), SCHRITT_PORT: String(SERVER) };
    programs.push(await started(process.execPath, [main], own, 'Schritt is at'));
    for (let i = 0; i < count; i += 1)
      programs.push(
        await started(process.execPath, [join(root, 'server/dist/worker-main.js')], settings, 'at a time'),
      );
    const api = async (path, body) => {
      const answer = await fetch(`http://127.0.0.1:${SERVER}/api${path}`, {
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
    return await work({ url, json, api, job, server: programs[1].pid });
  } finally {
    for (const program of programs.reverse()) await ended(program);
    rmSync(folder, { recursive: true, force: true });
  }
}
