import 'reflect-metadata';
import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { LIBRARY } from '@schritt/core/notation';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { testServer } from '../test-server.ts';

const DEMO = join(__dirname, '../../../demo');

let folder: string;

async function start(demo: string): Promise<NestExpressApplication> {
  const app = await testServer(folder, { demo });
  await app.init();
  return app;
}

async function titles(app: NestExpressApplication, path: string): Promise<readonly string[]> {
  const { body } = await request(app.getHttpServer()).get(`/api/${path}?count=200`).expect(200);
  return body.entries.map(({ title }: { title: string }) => title);
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

test('every demo study is added with its problem, each problem once, and every method of the library', async () => {
  const app = await start(DEMO);
  const files = readdirSync(DEMO);
  const studies = await titles(app, 'studies');
  expect(studies).toHaveLength(files.length);
  expect(studies[0]).toBe('Sluice of the snow lake');
  const problems = await titles(app, 'problems');
  expect(new Set(problems).size).toBe(problems.length);
  expect(problems).toHaveLength(11);
  expect(new Set(await titles(app, 'methods'))).toEqual(new Set(LIBRARY.map(({ title }) => title)));
  await app.close();
});

test('what was deleted stays deleted, a new file comes in at the next start, a bad one is left out', async () => {
  const demo = join(folder, 'demo');
  mkdirSync(demo);
  copyFileSync(join(DEMO, 'sluice.schritt.json'), join(demo, 'sluice.schritt.json'));
  writeFileSync(join(demo, 'bad.schritt.json'), '{"schritt": 1}');
  writeFileSync(join(demo, 'notes.txt'), 'no document');
  const first = await start(demo);
  const { body } = await request(first.getHttpServer()).get('/api/studies');
  expect(body.total).toBe(1);
  await request(first.getHttpServer()).delete(`/api/studies/${body.entries[0].id}`).expect(204);
  await first.close();
  copyFileSync(join(DEMO, 'battery.schritt.json'), join(demo, 'battery.schritt.json'));
  const second = await start(demo);
  expect(await titles(second, 'studies')).toEqual(['Battery of the weather station']);
  await second.close();
});
