import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStudy, type StudyDocument, studyReport, studyTable, writeTable } from '@schritt/core/document';
import { variantStudies } from '@schritt/core/marking';
import { type MethodRun, runStudy } from '@schritt/core/study';
import Database from 'better-sqlite3';
import { unzipSync } from 'fflate';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { end, freePort, TestProgram, TestRedis } from '../test-queue.ts';
import { PATIENT, testServer, WORKERS } from '../test-server.ts';
import { sluice } from '../test-study.ts';
import type { ThreadOptions } from '../threads/thread-options.ts';

/** Seconds after which a job is ended where a test waits for that end. */
const IMPATIENT = 3;

let folder: string;
let app: NestExpressApplication;
let address: string;
let url: string | null = null;
let worker: TestProgram | null = null;

async function start(bounds: Partial<ThreadOptions> = {}): Promise<void> {
  app = await testServer(folder, { threads: { workers: WORKERS, limit: PATIENT, ...bounds }, queue: url });
  await app.listen(0, '127.0.0.1');
  address = `${await app.getUrl()}/api`;
}

async function startWorker(settings: Readonly<Record<string, string>> = {}): Promise<void> {
  if (url === null) return;
  if (worker !== null) await end(worker.process);
  worker = new TestProgram('worker-main.js', {
    SCHRITT_QUEUE: url,
    SCHRITT_WORKER_THREADS: '1',
    ...settings,
  });
  await worker.says('runs at a time');
}

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
  await start();
});

afterEach(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

interface JobAnswer {
  readonly id: string;
  readonly state: string;
  readonly part: number;
  readonly done: number;
  readonly of: number;
  readonly workers: number | null;
  readonly why: string | null;
}

async function post(document: unknown): Promise<Response> {
  return fetch(`${address}/jobs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document }),
  });
}

async function created(document: StudyDocument): Promise<JobAnswer> {
  const response = await post(document);
  expect(response.status).toBe(201);
  return JSON.parse(await response.text());
}

/** All server-sent events of a job until it ends. */
async function events(id: string): Promise<readonly JobAnswer[]> {
  const text = await (await fetch(`${address}/jobs/${id}/events`)).text();
  return [...text.matchAll(/^data: (.*)$/gm)].map(([, data]) => JSON.parse(data ?? ''));
}

/** Changes rows of the store while no server is there. */
async function whileClosed(change: (store: Database.Database) => void): Promise<void> {
  await app.close();
  const store = new Database(join(folder, 'schritt.sqlite'));
  change(store);
  store.close();
  await start();
}

interface MarkedJson {
  readonly sheet: number;
  readonly firstWrong: number | null;
  readonly marks: { readonly marks: number };
  readonly mistakes: readonly { readonly sentence: string }[];
}

const PARAMETRIC = `level' = -c*sqrt(level)
c = 0.35
level(0) = 4
0 <= t <= 6
level(t) = (2 - c*t/2)^2`;

async function createdAt(path: string, body: unknown): Promise<JobAnswer> {
  const response = await fetch(`${address}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  const text = await response.text();
  expect([response.status, text]).toEqual([201, expect.any(String)]);
  return JSON.parse(text);
}

/** The texts of the archive that a job has made, by their names. */
async function archive(id: string): Promise<Readonly<Record<string, string>>> {
  const answer = await fetch(`${address}/jobs/${id}/file`);
  expect(answer.headers.get('content-type')).toBe('application/zip');
  const files = Object.entries(unzipSync(new Uint8Array(await answer.arrayBuffer())));
  return Object.fromEntries(files.map(([name, bytes]) => [name, new TextDecoder().decode(bytes)]));
}

/** The same jobs are done on threads of the server, and by a worker at a queue. */
describe.each(['threads', 'queue'] as const)('on %s', (engine) => {
  let redis: TestRedis | null = null;

  beforeAll(async () => {
    if (engine === 'threads') return;
    redis = new TestRedis(await freePort());
    await redis.start();
    ({ url } = redis);
    await startWorker();
  });

  afterAll(async () => {
    if (worker !== null) await end(worker.process);
    await redis?.close();
    [url, worker] = [null, null];
  });

  test('a job reports its progress, leaves the server free, and keeps the same numbers as any other run', async () => {
    const document = sluice([1000, 20_000_000]);
    const job = await created(document);
    expect(['waiting', 'running']).toContain(job.state);
    expect((await fetch(`${address}/health`)).status).toBe(200);
    const meanwhile: JobAnswer = JSON.parse(await (await fetch(`${address}/jobs/${job.id}`)).text());
    expect(['waiting', 'running']).toContain(meanwhile.state);
    const told = await events(job.id);
    expect(told.at(-1)).toEqual({
      id: job.id,
      state: 'done',
      part: 1,
      done: 4,
      of: 4,
      workers: engine === 'threads' ? null : 1,
      isReached: true,
      why: null,
    });
    // rungs are reported as they finish
    expect(told.some(({ state, done }) => state === 'running' && done > 0 && done < 4)).toBe(true);
    const parts = told.map(({ part }) => part);
    expect(parts.some((part) => part > 0 && part < 1)).toBe(true);
    expect(parts).toEqual([...parts].sort((a, b) => a - b));
    const answer = await (await fetch(`${address}/jobs/${job.id}/runs`)).text();
    const runs: readonly MethodRun[] = JSON.parse(answer);
    const opened = openStudy(sluice([1000]));
    const own = opened.ok ? runStudy(opened.study).methods.map(({ rungs }) => rungs[0]?.values) : [];
    expect(runs.map(({ rungs }) => rungs[0]?.values)).toEqual(own);
    // another title or a strike changes no run
    const { id } = await created({
      ...document,
      title: 'Another',
      methods: document.methods.map((method) => ({ ...method, struck: [0] })),
    });
    expect(id).toBe(job.id);
  });

  test('a job is cancelled, and one that takes too long is ended', async () => {
    const long = await created(sluice([100_000_000, 99_000_000, 98_000_000]));
    const waiting = await created(sluice([7]));
    await fetch(`${address}/jobs/${long.id}`, { method: 'DELETE' });
    expect((await events(long.id)).at(-1)).toMatchObject({ state: 'cancelled', why: 'it was cancelled' });
    expect((await events(waiting.id)).at(-1)).toMatchObject({ state: 'done' });
    expect((await fetch(`${address}/jobs/${long.id}/runs`)).status).toBe(404);
    await app.close();
    await start({ limit: IMPATIENT });
    const endless = await created(sluice(Array.from({ length: 40 }, () => 100_000_000)));
    expect((await events(endless.id)).at(-1)).toMatchObject({
      state: 'too long',
      why: `it took more than ${IMPATIENT} seconds`,
    });
  });

  test('a study that is not read in time is refused with that reason, and no job is made', async () => {
    await app.close();
    await start({ requestLimit: 0.001 });
    const response = await post(sluice([7]));
    const { message } = JSON.parse(await response.text());
    expect([response.status, message]).toEqual([
      400,
      'this study was not read within 0.001 seconds; its texts are too large, or the server has too much to do',
    ]);
  });

  test('a job that was under way goes on when the server starts again', async () => {
    const { id } = await created(sluice([30_000_000]));
    await app.close();
    await start();
    expect((await events(id)).at(-1)).toMatchObject({ state: 'done' });
  });

  test.each(['{"schritt": 1, "kind"', '{"schritt": 1, "kind": "method", "title": "M", "text": ""}', ''])(
    'a waiting job whose stored study is damaged fails, and the server starts: %p',
    async (document) => {
      const { id } = await created(sluice([1000]));
      await events(id);
      await whileClosed((store) =>
        store.prepare("UPDATE jobs SET state = 'waiting', runs = NULL, document = ?").run(document),
      );
      expect((await events(id)).at(-1)).toMatchObject({
        state: 'failed',
        why: 'the stored study is damaged',
      });
    },
  );

  test('a job that was begun once is begun again, and counted', async () => {
    const { id } = await created(sluice([1000]));
    await events(id);
    let begun: unknown = null;
    await whileClosed((store) => {
      store.prepare("UPDATE jobs SET state = 'running', runs = NULL").run();
      begun = store.prepare('SELECT begun FROM jobs').pluck().get();
    });
    expect(begun).toBe(1);
    expect((await events(id)).at(-1)).toMatchObject({ state: 'done' });
  });

  test('a thread that asks for too much memory ends its job with a sentence, and the next one runs', async () => {
    await app.close();
    await startWorker({ SCHRITT_RUN_MEMORY: '24' });
    await start({ memory: 24 });
    const family = {
      ...sluice([20_000]),
      problem: {
        title: 'Chain',
        text: `u[i]' = -u[i] for i = 1..20000\nu[i](0) = 1 for i = 1..20000\n0 <= t <= 1\nu[i](t) = exp(-t) for i = 1..20000`,
      },
      ladder: { counts: Array.from({ length: 40 }, (_, i) => 1 + i) },
    };
    const { id } = await created(family);
    expect((await events(id)).at(-1)).toMatchObject({
      state: 'failed',
      why: expect.stringMatching(/^(it needs more memory|its results take more than 32 megabytes)/),
    });
    const next = await created(sluice([7]));
    expect((await events(next.id)).at(-1)).toMatchObject({ state: 'done' });
  });

  test('results that cannot be stored are reported, and the jobs behind go on', async () => {
    const store = new Database(join(folder, 'schritt.sqlite'));
    store.exec(
      "CREATE TRIGGER full BEFORE UPDATE OF runs ON jobs BEGIN SELECT RAISE(ABORT, 'disk is full'); END",
    );
    const job = await created(sluice([5]));
    expect((await events(job.id)).at(-1)).toMatchObject({
      state: 'failed',
      why: 'its results could not be stored',
    });
    store.exec('DROP TRIGGER full');
    store.close();
    const next = await created(sluice([7]));
    expect((await events(next.id)).at(-1)).toMatchObject({ state: 'done' });
  });

  test('results are kept up to a number of bytes; the oldest go', async () => {
    const first = await created(sluice([3]));
    await events(first.id);
    await whileClosed((store) => store.prepare('UPDATE jobs SET bytes = 300000000').run());
    const second = await created(sluice([4]));
    await events(second.id);
    expect((await fetch(`${address}/jobs/${first.id}`)).status).toBe(404);
    expect((await fetch(`${address}/jobs/${second.id}/runs`)).status).toBe(200);
  });

  test('every sheet has its files, made of its own numbers', async () => {
    const variants = { choices: 'c in 0.2, 0.25, ..., 0.4', sheets: 4, seed: 3 };
    const document = { ...sluice([10, 20, 40]), problem: { title: 'Sluice', text: PARAMETRIC } };
    const files = [
      { what: 'rungs', as: 'csv' },
      { what: 'rows', as: 'md', method: 'Euler', steps: '10' },
    ];
    const job = await createdAt('/jobs/sheets', { document, variants, files });
    expect((await events(job.id)).at(-1)).toMatchObject({ state: 'done', done: 4, of: 4 });
    const made = await archive(job.id);
    expect(Object.keys(made).sort()).toEqual(
      [1, 2, 3, 4].flatMap((n) =>
        ['rows.md', 'rungs.csv', 'study.schritt.json'].map((name) => `sheet 00${n}/${name}`),
      ),
    );
    for (const [n, { study, variant }] of variantStudies(document, variants).entries()) {
      const report = studyReport('Sluice', study.problem, runStudy(study));
      expect(made[`sheet 00${n + 1}/rungs.csv`]).toBe(writeTable(studyTable(report, 'rungs'), 'csv'));
      expect(made[`sheet 00${n + 1}/study.schritt.json`]).toContain(`c = ${variant[0]?.value}`);
    }
    expect((await fetch(`${address}/jobs/${job.id}/runs`)).status).toBe(404);
  });

  test('a class is marked, each student by the key of the own sheet', async () => {
    const variants = { choices: 'c in 0.2, 0.25, ..., 0.4', sheets: 5, seed: 3 };
    const document = { ...sluice([10]), problem: { title: 'Sluice', text: PARAMETRIC } };
    const texts = variantStudies(document, variants).map(({ variant }, i) => {
      // Euler's steps typed out; the third student forgets h
      const rows = [4];
      for (let n = 0; n < 6; n += 1)
        rows.push(rows[n]! - (i === 2 ? 1 : 0.6) * Number(variant[0]?.value) * Math.sqrt(rows[n]!));
      const text = ['n;level', ...rows.map((level, n) => `${n};${level.toFixed(6)}`)].join('\n');
      return { name: `student ${i + 1}, sheet ${i + 1}.csv`, text };
    });
    const job = await createdAt('/jobs/markings', {
      ...{ document, variants, method: 'Euler', steps: '10', layout: 'one per file', texts },
      rule: { rowMarks: 5, stepMarks: 5, roundTo: 0.5, rowsAsked: 6 },
    });
    expect((await events(job.id)).at(-1)).toMatchObject({ state: 'done', done: 5, of: 5 });
    const made = await archive(job.id);
    expect(Object.keys(made).sort()).toEqual(['class.csv', 'class.json', 'feedback.html']);
    const students: readonly MarkedJson[] = JSON.parse(made['class.json'] ?? '');
    expect(students.map(({ sheet, firstWrong }) => [sheet, firstWrong])).toEqual(
      [null, null, 1, null, null].map((wrong, i) => [i + 1, wrong]),
    );
    expect(students.map(({ marks }) => marks.marks)).toEqual([10, 10, 0, 10, 10]);
    expect(students[2]?.mistakes[0]?.sentence).toMatch(/h/);
  });

  test('a study that ends elsewhere, or is measured elsewhere, is another job; its title makes none', async () => {
    const jobs: string[] = [];
    const study = sluice([20]);
    for (const document of [
      study,
      { ...study, title: 'The same' },
      { ...study, lastStep: 'overrun' as const },
      { ...study, error: { at: 'max' as const } },
      { ...study, precision: 'single' as const },
    ]) {
      const answer = await fetch(`${address}/jobs`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ document }),
      });
      expect(answer.status).toBe(201);
      const { id }: { readonly id: string } = await answer.json();
      jobs.push(id);
    }
    expect(jobs[1]).toBe(jobs[0]);
    expect(new Set(jobs).size).toBe(4);
  });
});

test('a job during which the server died twice is not begun a third time', async () => {
  const { id } = await created(sluice([30_000_000]));
  await whileClosed((store) => store.prepare("UPDATE jobs SET begun = 2, state = 'running'").run());
  expect((await events(id)).at(-1)).toMatchObject({
    state: 'failed',
    why: 'the server stopped twice while it ran this study; it is not started again',
  });
});

test.each([
  [{ ...sluice([10]), kind: 'problem' }, 'the request is not valid'],
  [sluice([10], '-k*level'), 'the texts of this study have errors'],
])('what cannot be run is refused with a typed body: case %#', async (document, message) => {
  const response = await post(document);
  expect(response.status).toBe(400);
  expect(await response.json()).toMatchObject({ code: 'bad-request', message });
});

test.each<[string, unknown, string]>([
  [
    '/jobs/sheets',
    { variants: { choices: 'k in 1..3', sheets: 3, seed: 1 }, files: [{ what: 'rungs' }] },
    'k',
  ],
  ['/jobs/sheets', { variants: { choices: 'c in', sheets: 3, seed: 1 }, files: [{ what: 'rungs' }] }, 'in'],
  ['/jobs/sheets', { variants: { choices: 'c in 1..3', sheets: 0, seed: 1 }, files: [] }, 'not valid'],
  [
    '/jobs/markings',
    { method: 'Heun', steps: '4', layout: 'one per file', texts: [{ name: 'A', text: '0;1' }] },
    'Heun',
  ],
  [
    '/jobs/markings',
    { method: 'Euler', layout: 'one per file', texts: [{ name: 'A', text: '0;1' }] },
    'step size',
  ],
  [
    '/jobs/sheets',
    { variants: { choices: 'c in 1..3', sheets: 3, seed: 1 }, files: [{ what: 'plot', as: 'csv' }] },
    'plot can be written as svg',
  ],
  [
    '/jobs/sheets',
    { variants: { choices: 'c in 1..3', sheets: 3, seed: 1 }, files: [{ what: 'rows', method: 'Heun' }] },
    'no method "Heun"',
  ],
  ['/jobs/markings', { method: 'Euler', steps: '4', layout: 'by heart', texts: [] }, 'not valid'],
])('what cannot be made is refused at once, with the reason: %s %#', async (path, body, reason) => {
  const document = { ...sluice([10]), problem: { title: 'Sluice', text: PARAMETRIC } };
  const answer = await fetch(`${address}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ document, ...Object(body) }),
  });
  expect(answer.status).toBe(400);
  expect(await answer.json()).toMatchObject({
    code: 'bad-request',
    message: expect.stringContaining(reason),
  });
});

test('a short study is reported while long ones of others wait for one another', async () => {
  const store = async (document: StudyDocument): Promise<string> => {
    const answer = await fetch(`${address}/studies`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ document }),
    });
    const { id }: { readonly id: string } = await answer.json();
    return id;
  };
  const long = await store(sluice([90_000_000, 100_000_000]));
  const short = await store(sluice([4]));
  const ended: string[] = [];
  const report = async (id: string, name: string): Promise<number> => {
    const { status } = await fetch(`${address}/studies/${id}/report`);
    ended.push(name);
    return status;
  };
  const longs = [report(long, 'long'), report(long, 'long')];
  await new Promise((done) => setTimeout(done, 100));
  expect(await report(short, 'short')).toBe(200);
  await Promise.all(longs);
  expect(ended[0]).toBe('short');
});
