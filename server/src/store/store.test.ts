import 'reflect-metadata';
import { spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, readdirSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import Database from 'better-sqlite3';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { DataSource } from 'typeorm';
import { testServer } from '../test-server.ts';
import { backUp, restore } from './backup.ts';
import { lockFolder } from './lock.ts';
import { checkStore, copyBeforeMigration, createStore, storeFile } from './check-store.ts';
import { makeFolder } from './make-folder.ts';
import { MIGRATIONS } from './migrations.ts';

const NOBODY = '00000000-0000-4000-8000-000000000000';
const STUDY = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -sqrt(level)" },
  methods: [],
  ladder: { counts: [4] },
};
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
  expect(await app.get(DataSource).query('PRAGMA synchronous')).toEqual([{ synchronous: 2 }]);
  expect(await app.get(DataSource).query('PRAGMA journal_mode')).toEqual([{ journal_mode: 'wal' }]);
});

/** What another process says that wants the same folder. */
function lockElsewhere(): string {
  const code = `import(${JSON.stringify(pathToFileURL(join(process.cwd(), 'server/dist/store/lock.js')).href)})
    .then(({ lockFolder }) => { lockFolder(${JSON.stringify(folder)}); console.log('locked'); })
    .catch((thrown) => console.log(thrown.message))`;
  return spawnSync(process.execPath, ['-e', code], { encoding: 'utf8' }).stdout.trim();
}

test('a folder belongs to one server, whatever process or process number asks for it', () => {
  const release = lockFolder(folder);
  expect(() => lockFolder(folder)).toThrow(/another server is using the folder/);
  expect(lockElsewhere()).toContain('another server is using the folder');
  release();
  expect(lockElsewhere()).toBe('locked');
  // the other process has ended without releasing it
  lockFolder(folder)();
});

test('a whole store of this version is opened as it is', async () => {
  expect(checkStore(storeFile(folder))).toBe('none');
  const file = await filled();
  chmodSync(file, 0o644);
  expect(checkStore(file)).toBe('current');
  expect(statSync(file).mode & 0o777).toBe(0o600);
});

test('a store of a newer version is refused with a sentence', async () => {
  const file = await filled();
  const store = new Database(file);
  store.prepare("INSERT INTO migrations (timestamp, name) VALUES (9, 'FromTheFuture9')").run();
  store.close();
  expect(() => checkStore(file)).toThrow('was written by a newer version of Schritt');
});

/** The store as the first so many migrations laid it out, with one study in it. */
async function olderStore(file: string, migrations: number): Promise<void> {
  const source = await new DataSource({
    type: 'better-sqlite3',
    database: file,
    migrations: MIGRATIONS.slice(0, migrations),
    migrationsRun: true,
  }).initialize();
  await source.query(
    `INSERT INTO entries (id, kind, title, document, version) VALUES ('${NOBODY}', 'study', 'Sluice', ?, 1)`,
    [JSON.stringify(STUDY)],
  );
  await source.destroy();
}

const LAYOUTS = MIGRATIONS.map((_, i) => i + 1);

test.each(LAYOUTS)('a store of layout %d is migrated, with a copy as it was beside it', async (layout) => {
  const file = storeFile(folder);
  await olderStore(file, layout);
  const isOlder = layout < MIGRATIONS.length;
  expect(checkStore(file)).toBe(isOlder ? 'older' : 'current');
  if (isOlder) {
    const copy = copyBeforeMigration(file);
    expect(statSync(copy).mode & 0o777).toBe(0o600);
    expect(checkStore(copy)).toBe('older');
  }
  const api = await start();
  expect((await api.get('/api/studies').expect(200)).body.entries).toMatchObject([{ title: 'Sluice' }]);
  expect((await api.get(`/api/studies/${NOBODY}`).expect(200)).body.document).toEqual(STUDY);
});

/** Runs code that leaves a store as a kill -9 does: its last transactions are in the write-ahead log alone. */
function killedWhileWriting(file: string, sql: string): void {
  const code = `const Database = require('better-sqlite3'); const store = new Database(process.argv[1]);
    store.pragma('journal_mode = WAL'); store.pragma('wal_autocheckpoint = 0'); store.exec(process.argv[2]);
    process.kill(process.pid, 'SIGKILL');`;
  spawnSync(process.execPath, ['-e', code, file, sql], { cwd: join(process.cwd(), 'server') });
}

test.each(LAYOUTS)(
  'after a kill a store of layout %d is restored with what is in its log',
  async (layout) => {
    const killed = join(folder, 'killed.sqlite');
    await olderStore(killed, layout);
    killedWhileWriting(killed, "UPDATE entries SET title = 'Written last'");
    expect(statSync(`${killed}-wal`).size).toBeGreaterThan(0);
    const target = join(folder, 'data');
    expect(restore(killed, target)).toBeNull();
    expect(readdirSync(target).filter((name) => name.startsWith('schritt'))).toEqual(['schritt.sqlite']);
    const store = new Database(storeFile(target));
    expect(store.prepare('SELECT title FROM entries').pluck().all()).toEqual(['Written last']);
    store.close();
    // what it was restored from is as it was
    expect(statSync(`${killed}-wal`).size).toBeGreaterThan(0);
  },
);

test('data that is replaced after a kill is kept with what is in its log', async () => {
  const copy = join(folder, 'copy.sqlite');
  await filled();
  await backUp(folder, copy);
  killedWhileWriting(storeFile(folder), "UPDATE entries SET title = 'Written last'");
  const former = restore(copy, folder) ?? '';
  const again = restore(former, folder);
  expect(again).not.toBeNull();
  const store = new Database(storeFile(folder));
  expect(store.prepare('SELECT title FROM entries').pluck().all()).toEqual(['Written last']);
  store.close();
});

test('a store of zero bytes is reported, and not replaced by demo data', async () => {
  const file = await filled();
  truncateSync(file, 0);
  expect(() => checkStore(file)).toThrow('is empty (0 bytes)');
  expect(statSync(file).size).toBe(0);
  expect(() => restore(file, join(folder, 'other'))).toThrow(`the file ${file} is empty`);
});

test('a new store holds something before it gets its name', () => {
  createStore(storeFile(folder));
  expect(statSync(storeFile(folder)).size).toBeGreaterThan(0);
  expect(checkStore(storeFile(folder))).toBe('none');
  expect(readdirSync(folder)).toEqual(['schritt.sqlite']);
});

describe('a copy is verified before it replaces anything', () => {
  let copy: string;
  beforeEach(async () => {
    await filled();
    copy = join(folder, 'copy.sqlite');
    await backUp(folder, copy);
  });

  /** Changes the copy, after which restoring it is refused and the data is as it was. */
  async function refused(sql: string, ...rest: readonly string[]): Promise<string> {
    const store = new Database(copy);
    store.prepare(sql).run(...rest);
    store.close();
    let message = '';
    try {
      restore(copy, folder);
    } catch (thrown) {
      message = thrown instanceof Error ? thrown.message : '';
    }
    expect((await (await start()).get('/api/methods')).body.entries).toMatchObject([{ title: 'Euler' }]);
    await close();
    return message;
  }

  test('one row changed', async () => {
    expect(await refused("UPDATE entries SET title = 'Euler, changed'")).toContain('its checksum differs');
  });

  test('one row gone', async () => {
    expect(await refused('DELETE FROM entries')).toContain('its checksum differs');
  });

  test('a document that cannot be read, unless it is wanted as it is', async () => {
    const store = new Database(storeFile(folder));
    store
      .prepare('INSERT INTO entries (id, kind, title, document, version) VALUES (?, ?, ?, ?, 1)')
      .run(NOBODY, 'study', 'Damaged', '{"schritt": 1,');
    store.close();
    const damaged = join(folder, 'damaged.sqlite');
    await backUp(folder, damaged);
    expect(() => restore(damaged, folder)).toThrow('a document that cannot be read: study "Damaged"');
    expect(restore(damaged, folder, true)).not.toBeNull();
  });

  test('another database', () => {
    const other = join(folder, 'other.sqlite');
    const store = new Database(other);
    store.exec('CREATE TABLE marmots (name text)');
    store.close();
    expect(() => restore(other, folder)).toThrow("is not a copy of Schritt's data");
  });

  test('sessions are not restored', async () => {
    const store = new Database(storeFile(folder));
    store.exec("INSERT INTO sessions VALUES ('x', 'y', '2026-11-01')");
    store.close();
    const later = join(folder, 'later.sqlite');
    await backUp(folder, later);
    restore(later, folder);
    const restored = new Database(storeFile(folder));
    expect(restored.prepare('SELECT count(*) FROM sessions').pluck().get()).toBe(0);
    restored.close();
  });
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
  expect(() => checkStore(file)).toThrow();
  expect(statSync(file).size).toBe(size);
});

test('all data is copied while the server is running, and restored; what was there is kept', async () => {
  const copy = join(folder, 'copy.sqlite');
  const api = await start();
  await api.post('/api/methods').send({ document: METHOD }).expect(201);
  await backUp(folder, copy);
  expect(statSync(copy).mode & 0o777).toBe(0o600);
  await expect(backUp(folder, copy)).rejects.toThrow('exists already');
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
  const release = lockFolder(folder);
  expect(() => restore(copy, folder)).toThrow('another server');
  release();
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
