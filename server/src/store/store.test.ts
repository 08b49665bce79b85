import 'reflect-metadata';
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { testServer } from '../test-server.ts';
import { backUp, restore } from './backup.ts';
import { lockFolder } from './lock.ts';
import { lookAtStore, storeFile } from './look-at-store.ts';
import { makeFolder } from './make-folder.ts';

const METHOD = { schritt: 1, kind: 'method', title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' };

let folder: string;
const open: NestExpressApplication[] = [];

async function start(): Promise<ReturnType<typeof request>> {
  const app = await testServer(folder);
  await app.init();
  open.push(app);
  return request(app.getHttpServer());
}

async function close(): Promise<void> {
  for (const app of open.splice(0)) await app.close();
}

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
});
afterEach(async () => {
  await close();
  rmSync(folder, { recursive: true });
});

/** A store with one method in it. */
async function filled(): Promise<string> {
  const api = await start();
  await api.post('/api/methods').send({ document: METHOD }).expect(201);
  await close();
  return storeFile(folder);
}

test('what is acknowledged waits for the disk', async () => {
  const app = await testServer(folder);
  await app.init();
  open.push(app);
  const { DataSource } = await import('typeorm');
  expect(await app.get(DataSource).query('PRAGMA synchronous')).toEqual([{ synchronous: 2 }]);
  expect(await app.get(DataSource).query('PRAGMA journal_mode')).toEqual([{ journal_mode: 'wal' }]);
});

test('a folder belongs to one server; a lock that was left behind is taken over', () => {
  const unlock = lockFolder(folder);
  expect(statSync(join(folder, 'schritt.lock')).mode & 0o777).toBe(0o600);
  unlock();
  expect(existsSync(join(folder, 'schritt.lock'))).toBe(false);
  // process 1 is always there, and not this one
  writeFileSync(join(folder, 'schritt.lock'), '1');
  expect(() => lockFolder(folder)).toThrow(/another server \(process 1\) uses the folder/);
  writeFileSync(join(folder, 'schritt.lock'), '999999999');
  lockFolder(folder)();
});

test('a whole store of this version is opened as it is', async () => {
  expect(lookAtStore(storeFile(folder))).toBeNull();
  const file = await filled();
  chmodSync(file, 0o644);
  expect(lookAtStore(file)).toBeNull();
  expect(statSync(file).mode & 0o777).toBe(0o600);
});

test('a store of a newer version is refused with a sentence', async () => {
  const file = await filled();
  const store = new Database(file);
  store.prepare("INSERT INTO migrations (timestamp, name) VALUES (9, 'FromTheFuture9')").run();
  store.close();
  expect(() => lookAtStore(file)).toThrow('was written by a newer version of Schritt');
});

test('a store of an older version is copied before it gets the new layout, and its lists are there', async () => {
  const file = await filled();
  const store = new Database(file);
  store.exec(`DROP INDEX entries_by_change; DROP INDEX entries_by_shown;
    ALTER TABLE entries DROP COLUMN deletedAt;
    ALTER TABLE entries DROP COLUMN shownAt; ALTER TABLE entries DROP COLUMN methods; ALTER TABLE entries DROP COLUMN excerpt;
    ALTER TABLE jobs DROP COLUMN begun; ALTER TABLE jobs DROP COLUMN bytes;
    DELETE FROM migrations WHERE timestamp > 1700000000001;
    INSERT INTO entries (id, kind, title, document, version) VALUES ('x', 'study', 'Damaged', '{"methods": [', 1)`);
  store.close();
  const copy = lookAtStore(file);
  expect(copy).toMatch(/schritt-before-5-\d+\.sqlite$/);
  expect(statSync(copy ?? '').mode & 0o777).toBe(0o600);
  const old = new Database(copy ?? '');
  expect(old.prepare('SELECT count(*) FROM entries').pluck().get()).toBe(2);
  old.close();
  const api = await start();
  const { body } = await api.get('/api/methods').expect(200);
  expect(body.entries).toMatchObject([{ title: 'Euler', excerpt: METHOD.text }]);
  expect((await api.get('/api/studies').expect(200)).body.entries).toMatchObject([
    { title: 'Damaged', excerpt: '' },
  ]);
});

test.each<[string, (file: string) => void]>([
  ['cut', (file) => truncateSync(file, 20_000)],
  [
    'something else',
    (file) => writeFileSync(file, 'no store at all, but long enough to be looked at'.repeat(50)),
  ],
])('a store that is %s is refused, not emptied', async (_, spoil) => {
  const file = await filled();
  spoil(file);
  const { size } = statSync(file);
  expect(() => lookAtStore(file)).toThrow();
  expect(statSync(file).size).toBe(size);
});

test('all data are copied while the server runs, and put back; what was there is kept', async () => {
  const copy = join(folder, 'copy.sqlite');
  const api = await start();
  await api.post('/api/methods').send({ document: METHOD }).expect(201);
  await backUp(folder, copy);
  expect(statSync(copy).mode & 0o777).toBe(0o600);
  await expect(backUp(folder, copy)).rejects.toThrow('is there already');
  await api
    .post('/api/methods')
    .send({ document: { ...METHOD, title: 'Later' } })
    .expect(201);
  await close();
  const former = restore(copy, folder);
  expect(readdirSync(folder)).toContain(former?.slice(folder.length + 1));
  const again = await start();
  expect((await again.get('/api/methods')).body.entries).toMatchObject([{ title: 'Euler' }]);
  await close();
  writeFileSync(join(folder, 'schritt.lock'), '1');
  expect(() => restore(copy, folder)).toThrow('another server');
});

test('a file that is no copy is not put back', async () => {
  await filled();
  const bad = join(folder, 'bad.sqlite');
  writeFileSync(bad, 'nothing');
  expect(() => restore(bad, folder)).toThrow();
  expect((await (await start()).get('/api/methods')).body.total).toBe(1);
});

test('folders are made one inside the other, for their owner alone', () => {
  const deep = join(folder, 'a/b/c');
  makeFolder(deep);
  expect(statSync(deep).mode & 0o777).toBe(0o700);
  expect(() => makeFolder('/proc/nothing/here')).toThrow();
});
