import 'reflect-metadata';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { StudyDocument } from '@schritt/core/document';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { testServer } from '../test-server.ts';
import { sluice } from '../test-study.ts';

const KEY = 'a key that nobody guesses';
/** Stands for the program of the page: says what it was given, and how often it has made a picture. */
const PROGRAM = `let made = 0;
export function firstPicture({ title }, { methods }, path) {
  if (title === 'Broken') throw new Error('it makes none of these');
  made += 1;
  return '<p>' + [title, methods.length, methods[0].rungs.at(-1).steps, path, made].join(' ') + '</p>';
}`;

let folder: string;
let app: NestExpressApplication;

async function start(key: string | null = null): Promise<void> {
  app = await testServer(folder, {
    web: join(folder, 'web'),
    access: { host: '127.0.0.1', names: [], key, metricsKey: null, proxies: 0 },
  });
  await app.init();
}

const http = (): ReturnType<typeof request> => request(app.getHttpServer());

/** What is in the root of a page. */
async function picture(path: string, headers: Readonly<Record<string, string>> = {}): Promise<string> {
  const { text, status } = await http().get(path).set('Accept', 'text/html').set(headers);
  expect(status).toBe(200);
  return /<div id="root"(?: inert)?>(.*)<\/div>/s.exec(text)?.[1] ?? 'no root';
}

/** The same, as soon as it is there: the first one may take longer than a page waits. */
async function pictureAtLast(path: string, headers: Readonly<Record<string, string>> = {}): Promise<string> {
  for (;;) {
    const found = await picture(path, headers);
    if (found !== '') return found;
    await new Promise((done) => setTimeout(done, 50));
  }
}

async function added(
  document: StudyDocument,
  headers: Readonly<Record<string, string>> = {},
): Promise<string> {
  const { body } = await http().post('/api/studies').set(headers).send({ document }).expect(201);
  return String(body.id);
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-pictures-'));
  for (const part of ['.vite', '.server']) mkdirSync(join(folder, 'web', part), { recursive: true });
  writeFileSync(
    join(folder, 'web/index.html'),
    '<html><head></head><body><div id="root"></div></body></html>',
  );
  writeFileSync(join(folder, 'web/.vite/manifest.json'), '{}');
  writeFileSync(join(folder, 'web/.server/package.json'), '{"type": "module"}');
  writeFileSync(join(folder, 'web/.server/first-picture.js'), PROGRAM);
});
afterEach(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

test('a page of a study has its picture, which is made once until the study changes', async () => {
  await start();
  const document = sluice([2, 4]);
  const id = await added(document);
  expect(await pictureAtLast(`/studies/${id}`)).toBe('<p>Sluice 2 4 /studies 1</p>');
  expect(await picture(`/studies/${id}`)).toBe('<p>Sluice 2 4 /studies 1</p>');
  const answer = await http().get(`/studies/${id}`).set('Accept', 'text/html');
  expect(answer.headers['cache-control']).toBe('private, no-cache');
  await http()
    .put(`/api/studies/${id}`)
    .send({ version: 1, document: { ...document, ladder: { counts: [2, 8] } } })
    .expect(200);
  expect(await pictureAtLast(`/studies/${id}`)).toBe('<p>Sluice 2 8 /studies 2</p>');
});

test('many who ask at once wait for one picture', async () => {
  await start();
  const id = await added(sluice([2]));
  await Promise.all(Array.from({ length: 20 }, () => picture(`/studies/${id}`)));
  expect(await pictureAtLast(`/studies/${id}`)).toBe('<p>Sluice 2 2 /studies 1</p>');
});

test('a request that may not read a study gets no picture of it, and every request one of a shared study', async () => {
  await start(KEY);
  const login = await http().post('/api/access').send({ key: KEY }).expect(204);
  const cookie = String([login.headers['set-cookie']].flat()[0]).split(';')[0] ?? '';
  const id = await added(sluice([2]), { cookie });
  expect(await pictureAtLast(`/studies/${id}`, { cookie })).toBe('<p>Sluice 2 2 /studies 1</p>');
  expect(await picture(`/studies/${id}`)).toBe('');
  expect(await picture(`/studies/${id}`, { cookie: `${cookie}x` })).toBe('');
  expect(await picture('/shown/nothing')).toBe('');
  const { body } = await http().post(`/api/studies/${id}/shown`).set({ cookie }).expect(200);
  expect(await pictureAtLast(`/shown/${body.shownAt}`)).toBe('<p>Sluice 2 2 /shown 2</p>');
  await http().delete(`/api/studies/${id}/shown`).set({ cookie }).expect(204);
  expect(await picture(`/shown/${body.shownAt}`)).toBe('');
});

test('a page without a picture is the page as it is', async () => {
  await start();
  const good = await added(sluice([2]));
  const broken = await added({ ...sluice([2]), title: 'Broken' });
  const wrong = await added(sluice([2], '-0.35*sqrt(height)'));
  // a second of one core, which no page waits for
  const long = await added(sluice([3e7]));
  await pictureAtLast(`/studies/${good}`);
  for (const path of [
    `/studies/${good}?depth=run`,
    `/studies/${broken}`,
    `/studies/${wrong}`,
    `/studies/${long}`,
    '/studies/0',
    '/studies',
    `/problems/${good}`,
  ]) {
    await picture(path);
    expect([path, await picture(path)]).toEqual([path, '']);
  }
});
