import 'reflect-metadata';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { testServer } from '../test-server.ts';
import { KeyHolder, keyOf } from './key-holder.ts';
import type { DoorOptions } from './door.ts';

const KEY = 'a key that nobody guesses';
const STUDY = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -sqrt(level)" },
  methods: [],
  ladder: { counts: [4] },
};

let folder: string;
let app: NestExpressApplication;

async function start(door: Partial<DoorOptions> = {}): Promise<void> {
  app = await testServer(folder, { door: { host: '127.0.0.1', names: [], key: null, ...door } });
  await app.init();
}

const api = (): ReturnType<typeof request> => request(app.getHttpServer());

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
});
afterEach(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

test.each([
  ['127.0.0.1:4600', 200],
  ['localhost', 200],
  ['[::1]:4600', 200],
  ['board.example:80', 200],
  ['evil.example', 421],
  ['127.0.0.1.evil.example', 421],
  ['localhost.evil.example:4600', 421],
  ['', 421],
])('a request under the name %p is answered %d', async (host, status) => {
  await start({ names: ['board.example'] });
  await api().get('/api/studies').set('Host', host).expect(status);
});

test.each<[string, Record<string, string>, number]>([
  ['no page', {}, 201],
  ['a page of this server', { Origin: 'http://localhost:4600', 'Sec-Fetch-Site': 'same-origin' }, 201],
  ['a page of another site', { Origin: 'http://evil.example' }, 403],
  ['a page on another port', { Origin: 'http://localhost:9999' }, 403],
  ['a page without an origin', { Origin: 'null' }, 403],
  ['a form of another site', { 'Sec-Fetch-Site': 'cross-site' }, 403],
])('a change asked for by %s is answered %p %d', async (_, headers, status) => {
  await start();
  await api()
    .post('/api/studies')
    .set('Host', 'localhost:4600')
    .set(headers)
    .send({ document: STUDY })
    .expect(status);
});

describe('with a key', () => {
  /** The cookie that the right key brings. */
  async function cookie(): Promise<string> {
    const answer = await api().post('/api/access').send({ key: KEY }).expect(204);
    const [set] = [answer.headers['set-cookie']].flat();
    expect(set).toMatch(/; HttpOnly; SameSite=Lax$/);
    expect(set).not.toContain(KEY);
    return String(set).split(';')[0] ?? '';
  }

  beforeEach(() => start({ key: new KeyHolder(KEY) }));

  test('others read nothing but what is shown, and write nothing', async () => {
    for (const path of ['studies', 'problems', 'methods']) await api().get(`/api/${path}`).expect(401);
    await api().post('/api/studies').send({ document: STUDY }).expect(401);
    await api().post('/api/jobs').send({ document: STUDY }).expect(401);
    await api().get('/api/docs-json').expect(401);
    await api().get('/api/health').expect(200);
    await api().get('/api/access').expect(200, { mayWrite: false });
    const kept = await cookie();
    const { body } = await api()
      .post('/api/studies')
      .set('Cookie', kept)
      .send({ document: STUDY })
      .expect(201);
    const shown = await api().post(`/api/studies/${body.id}/shown`).set('Cookie', kept).expect(200);
    await api().get(`/api/studies/${body.id}`).expect(401);
    await api().get(`/api/shown/${shown.body.shownAt}`).expect(200);
    await api().get('/api/access').set('Cookie', kept).expect(200, { mayWrite: true });
  });

  test('a cookie that is made up opens nothing', async () => {
    await api().get('/api/studies').set('Cookie', `schritt-key=${KEY}`).expect(401);
    await api().get('/api/studies').set('Cookie', 'schritt-key=').expect(401);
  });

  test('wrong keys wait longer and longer, and a right one waits with them', async () => {
    const wrong = (): Promise<unknown> => api().post('/api/access').send({ key: 'wrong' }).expect(401).then();
    const took = async (work: () => Promise<unknown>): Promise<number> => {
      const from = performance.now();
      await work();
      return performance.now() - from;
    };
    await wrong();
    const second = await took(wrong);
    const third = await took(wrong);
    expect(second).toBeGreaterThan(240);
    expect(third).toBeGreaterThan(490);
    expect(await took(cookie)).toBeGreaterThan(990);
  });

  test('too many that wait at once are turned away', async () => {
    await api().post('/api/access').send({ key: 'wrong' }).expect(401);
    const all = await Promise.all(
      Array.from({ length: 30 }, () =>
        api()
          .post('/api/access')
          .send({ key: 'wrong' })
          .then(({ status }) => status),
      ),
    );
    expect(all.filter((status) => status === 429).length).toBeGreaterThanOrEqual(10);
    expect(all.filter((status) => status === 401)).toHaveLength(20);
  });
});

test('a key is made once for a folder, for its owner alone to read', async () => {
  await start();
  const made = keyOf(folder, null);
  expect(made).toMatch(/^[\w-]{32}$/);
  expect(keyOf(folder, null)).toBe(made);
  expect(readFileSync(join(folder, 'key'), 'utf8')).toBe(`${made}\n`);
  expect(statSync(join(folder, 'key')).mode & 0o777).toBe(0o600);
  expect(keyOf(folder, 'my own')).toBe('my own');
});
