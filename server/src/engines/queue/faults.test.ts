import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import type { StudyDocument } from '@schritt/core/document';
import type { MethodRun } from '@schritt/core/study';
import { Redis } from 'ioredis';
import { end, freePort, TestProgram, TestRedis, type Wire, wireTo } from '../../test-queue.ts';
import { sluice } from '../../test-study.ts';

/** How often every fault is tried; the table of faults tries each more often. */
const ROUNDS = Number(process.env['SCHRITT_FAULT_ROUNDS'] ?? 1);

/** About six seconds of work; every study that is run is another one, so that none is known already. */
function study(round: number): StudyDocument {
  return sluice(Array.from({ length: 12 }, (_, i) => 12_000_000 + 12 * round + i));
}

/** Runs as text, but for the time that they took. */
function bits(runs: readonly Pick<MethodRun, 'title' | 'rungs'>[]): string {
  return JSON.stringify(
    runs.map(({ title, rungs }) => ({
      title,
      rungs: rungs.map(({ cost: { f, newton }, rung, h, t, values, taken, rounding }) => ({
        ...{ rung, h, t, values, taken, rounding },
        cost: { f, newton },
      })),
    })),
  );
}

/** Runs a study by one call, in a process that knows nothing of tasks and servers. */
const ALONE = `
import { openStudy } from '@schritt/core/document';
import { runStudy } from '@schritt/core/study';
const { study } = openStudy(JSON.parse(process.argv[1]));
process.stdout.write(JSON.stringify(runStudy(study).methods));
`;
const known = new Map<number, string>();

/** What comes of a study without tasks and without a server. */
function alone(round: number): string {
  const before = known.get(round);
  if (before !== undefined) return before;
  const args = ['--input-type=module', '-e', ALONE, JSON.stringify(study(round))];
  const text = execFileSync(process.execPath, args, { encoding: 'utf8', maxBuffer: 1e8 });
  const own = bits(JSON.parse(text));
  known.set(round, own);
  return own;
}

interface JobNow {
  readonly id: string;
  readonly state: string;
  readonly done: number;
  readonly of: number;
  readonly workers: number;
  readonly isReached: boolean;
}

let folder: string;
let port: number;
let redis: TestRedis;
let wire: Wire;
let server: TestProgram;
let workers: TestProgram[];

async function startServer(): Promise<void> {
  server = new TestProgram('main.js', {
    SCHRITT_QUEUE: redis.url,
    SCHRITT_DATA: folder,
    SCHRITT_PORT: String(port),
  });
  await server.says('Schritt is at');
}

/** A worker beside the server, or at the other end of a wire. */
async function startWorker(
  at: { readonly url: string; readonly before?: readonly string[] } = redis,
): Promise<TestProgram> {
  const worker = new TestProgram(
    'worker-main.js',
    { SCHRITT_QUEUE: at.url, SCHRITT_WORKER_THREADS: '1' },
    at.before,
  );
  await worker.says('runs at a time');
  workers.push(worker);
  return worker;
}

async function api<T>(path: string, body?: unknown): Promise<T> {
  const answer = await fetch(`http://127.0.0.1:${port}/api${path}`, {
    ...(body === undefined
      ? {}
      : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
  if (!answer.ok) throw new Error(await answer.text());
  const value: T = JSON.parse(await answer.text());
  return value;
}

/** Waits until so many workers are at the queue. */
async function untilThere(count: number): Promise<void> {
  while ((await api<{ readonly workers: number }>('/health')).workers !== count) await setTimeout(100);
}

/** Waits until a job is as it is expected. */
async function until(id: string, isSo: (now: JobNow) => boolean): Promise<JobNow> {
  for (;;) {
    const now = await api<JobNow>(`/jobs/${id}`);
    if (isSo(now)) return now;
    if (!['waiting', 'running'].includes(now.state)) throw new Error(JSON.stringify(now));
    await setTimeout(100);
  }
}

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
  [port, redis, workers] = [await freePort(), new TestRedis(await freePort(), true), []];
  await redis.start();
  wire = await wireTo(redis.port);
  await startServer();
  await Promise.all([startWorker(), startWorker(), startWorker(wire)]);
  await untilThere(3);
});

afterEach(async () => {
  wire.heal();
  await Promise.all([server, ...workers].map((program) => end(program.process, 'SIGKILL')));
  wire.close();
  await redis.close();
  rmSync(folder, { recursive: true });
});

/** What is done to a job under way. */
const FAULTS: Readonly<Record<string, (id: string) => Promise<void>>> = {
  'a worker is killed': async () => {
    await end(workers[0]!.process, 'SIGKILL');
  },
  'a worker is stopped by SIGTERM': async () => {
    await end(workers[0]!.process, 'SIGTERM');
  },
  'all workers are killed, and others started': async () => {
    await Promise.all(workers.map(({ process }) => end(process, 'SIGKILL')));
    await startWorker();
  },
  'Redis is killed, and started again with its log': async (id) => {
    await redis.kill();
    await until(id, ({ isReached }) => !isReached);
    await redis.start();
  },
  'Redis is killed, and started again without any memory': async () => {
    const again = new TestRedis(redis.port);
    await redis.close();
    redis = again;
    await redis.start();
  },
  'the server is killed, and started again': async () => {
    await end(server.process, 'SIGKILL');
    await startServer();
  },
  'the server is killed, and started again when all is done': async () => {
    await end(server.process, 'SIGKILL');
    await setTimeout(12_000);
    await startServer();
  },
  'a worker is cut off until its runs are done by others, and comes back': async (id) => {
    wire.cut();
    await untilThere(2);
    await until(id, ({ state }) => state === 'done');
    wire.heal();
    await untilThere(3);
  },
};

/** What lies in the queue, apart from who is there and the news that it keeps. */
async function left(): Promise<readonly string[]> {
  const client = new Redis(redis.url);
  const keys = await client.keys('schritt:tasks-*');
  client.disconnect();
  return keys.filter((key) => !/:(meta|events|id|marker|stalled-check|pc|completed)$/.test(key));
}

jest.setTimeout(60_000);

const table: string[] = [];

describe.each(Object.keys(FAULTS))('%s', (name) => {
  test.each(Array.from({ length: ROUNDS }, (_, round) => round))(
    'and the result is the same: %i',
    async (round) => {
      const document = study(round);
      const { id } = await api<JobNow>('/jobs', { document });
      const at = 1 + ((7 * round) % 16);
      const before = await until(id, ({ done }) => done >= at);
      expect(before).toMatchObject({ state: 'running', of: 24, isReached: true });
      await FAULTS[name]!(id);
      const after = await until(id, ({ state }) => state === 'done');
      expect(after).toMatchObject({ done: 24, of: 24 });
      const runs = await api<readonly MethodRun[]>(`/jobs/${id}/runs`);
      expect(bits(runs)).toBe(alone(round));
      // no job of it is there twice, here or in the queue
      expect(await api<JobNow>('/jobs', { document })).toMatchObject({ id, state: 'done' });
      for (let i = 0; i < 100 && (await left()).length > 0; i += 1) await setTimeout(200);
      expect(await left()).toEqual([]);
      table.push(`${name} | after ${before.done} of 24 runs | nothing lost`);
    },
  );
});

afterAll(() => {
  if (ROUNDS > 1) process.stdout.write(`${table.join('\n')}\n`);
});

test('a study that is cancelled leaves nothing in the queue, and its workers take the next one', async () => {
  const { id } = await api<JobNow>('/jobs', { document: study(50) });
  await until(id, ({ done }) => done > 0);
  await fetch(`http://127.0.0.1:${port}/api/jobs/${id}`, { method: 'DELETE' });
  for (let i = 0; i < 100 && (await left()).length > 0; i += 1) await setTimeout(200);
  expect(await left()).toEqual([]);
  const next = await api<JobNow>('/jobs', { document: study(51) });
  await until(next.id, ({ done }) => done > 0);
});

test('a worker whose numbers are of another version takes nothing, and says so', async () => {
  await Promise.all(workers.map(({ process }) => end(process)));
  const other = new TestProgram(
    'worker-main.js',
    { SCHRITT_QUEUE: redis.url, SCHRITT_WORKER_THREADS: '1' },
    [],
    ['--import', join(process.cwd(), 'scripts/other-numbers.mjs')],
  );
  workers.push(other);
  await other.says(/takes nothing: its numbers are of version \d+-[0-9a-f]{12}, those of the server/);
  const { id } = await api<JobNow>('/jobs', { document: study(99) });
  await setTimeout(3000);
  expect(await api<JobNow>(`/jobs/${id}`)).toMatchObject({ state: 'waiting', done: 0, workers: 0 });
  await startWorker();
  await until(id, ({ done }) => done > 0);
});
