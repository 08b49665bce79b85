import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openStudy, type StudyDocument } from '@schritt/core/document';
import { type MethodRun, runStudy } from '@schritt/core/study';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { createServer } from '../create-server.ts';

/** Seconds after which a job is ended. */
const LIMIT = 3;

function sluice(intervals: readonly number[], rate = '-0.35*sqrt(level)'): StudyDocument {
  return {
    schritt: 1,
    kind: 'study',
    title: 'Sluice',
    problem: {
      title: 'Sluice',
      text: `level' = ${rate}\nlevel(0) = 4\n0 <= t <= 6\nlevel(t) = (2 - 0.35*t/2)^2`,
    },
    methods: [
      { title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' },
      { title: 'Midpoint', text: 'k = f(t, y)\ny[n+1] = y + h*f(t + h/2, y + h/2*k)' },
    ],
    ladder: { counts: intervals },
  };
}

let folder: string;
let app: NestExpressApplication;
let address: string;

async function start(): Promise<void> {
  app = await createServer({
    database: join(folder, 'schritt.sqlite'),
    demo: null,
    web: null,
    // threads run compiled files only
    jobs: { worker: join(__dirname, '../../dist/jobs/run-method.worker.js'), limit: LIMIT },
    logLevel: 'silent',
  });
  await app.listen(0, '127.0.0.1');
  address = `${await app.getUrl()}/api`;
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
  readonly rungs: number;
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

test('a job tells how far it is, leaves the server free, and keeps the same numbers as any other run', async () => {
  const document = sluice([1000, 20_000_000]);
  const job = await created(document);
  expect(['waiting', 'running']).toContain(job.state);
  const from = performance.now();
  expect((await fetch(`${address}/health`)).status).toBe(200);
  expect(performance.now() - from).toBeLessThan(500);
  const told = await events(job.id);
  expect(told.at(-1)).toEqual({ id: job.id, state: 'done', part: 1, rungs: 4, why: null });
  // rungs are told of as they are finished
  expect(told.some(({ state, rungs }) => state === 'running' && rungs > 0 && rungs < 4)).toBe(true);
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
  const endless = await created(sluice(Array.from({ length: 40 }, () => 100_000_000)));
  expect((await events(endless.id)).at(-1)).toMatchObject({
    state: 'too long',
    why: `it took more than ${LIMIT} seconds`,
  });
}, 20_000);

test('a job that was under way goes on when the server starts again', async () => {
  const { id } = await created(sluice([30_000_000]));
  await app.close();
  await start();
  expect((await events(id)).at(-1)).toMatchObject({ state: 'done' });
}, 20_000);

test.each([
  [{ ...sluice([10]), kind: 'problem' }, 'what was sent is not as it should be'],
  [sluice([10], '-k*level'), 'the texts of this study have errors'],
])('what cannot be run is refused with a typed body: case %#', async (document, message) => {
  const response = await post(document);
  expect(response.status).toBe(400);
  expect(await response.json()).toMatchObject({ code: 'bad-request', message });
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
