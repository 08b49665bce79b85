import 'reflect-metadata';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import request from 'supertest';
import { DataSource } from 'typeorm';
import { testServer } from '../test-server.ts';
import type { AccessOptions } from './access-options.ts';
import { serverKey } from './server-key.ts';

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

async function start(access: Partial<AccessOptions> = {}): Promise<void> {
  app = await testServer(folder, {
    access: { host: '127.0.0.1', names: [], key: null, metricsKey: null, proxies: 0, ...access },
  });
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
  /** The cookie of a new session. */
  async function login(): Promise<string> {
    const answer = await api().post('/api/access').send({ key: KEY }).expect(204);
    const [set] = [answer.headers['set-cookie']].flat();
    expect(set).toMatch(/; HttpOnly; SameSite=Lax$/);
    expect(set).not.toContain(KEY);
    return String(set).split(';')[0] ?? '';
  }

  const statusWith = async (cookie: string): Promise<number> =>
    (await api().get('/api/studies').set('Cookie', cookie)).status;

  beforeEach(() => start({ key: KEY }));

  test('without a session nothing is read but what is shared, and nothing is written', async () => {
    for (const path of ['studies', 'problems', 'methods']) await api().get(`/api/${path}`).expect(401);
    await api().post('/api/studies').send({ document: STUDY }).expect(401);
    await api().post('/api/jobs').send({ document: STUDY }).expect(401);
    await api().get('/api/docs-json').expect(401);
    await api().get('/api/health').expect(200);
    await api().get('/api/access').expect(200, { mayWrite: false, hasKey: true });
    const session = await login();
    const { body } = await api()
      .post('/api/studies')
      .set('Cookie', session)
      .send({ document: STUDY })
      .expect(201);
    const shown = await api().post(`/api/studies/${body.id}/shown`).set('Cookie', session).expect(200);
    await api().get(`/api/studies/${body.id}`).expect(401);
    await api().get(`/api/shown/${shown.body.shownAt}`).expect(200);
    await api().get('/api/access').set('Cookie', session).expect(200, { mayWrite: true, hasKey: true });
  });

  test('a made-up cookie is no session', async () => {
    expect(await statusWith(`schritt-session=${KEY}`)).toBe(401);
    expect(await statusWith('schritt-session=')).toBe(401);
    expect(await statusWith('schritt-key=x; schritt-session=%E0%A4%A')).toBe(401);
  });

  test('logging out revokes the session of this browser, and of all browsers where that is wanted', async () => {
    const [first, second, third] = [await login(), await login(), await login()];
    await api().delete('/api/access').set('Cookie', first).expect(204);
    expect([await statusWith(first), await statusWith(second)]).toEqual([401, 200]);
    await api().delete('/api/access/all').set('Cookie', second).expect(204);
    expect([await statusWith(second), await statusWith(third)]).toEqual([401, 401]);
    await api().delete('/api/access/all').expect(401);
  });

  test('a session outlives the server, but neither another key nor its lifetime', async () => {
    const session = await login();
    await app.close();
    await start({ key: KEY });
    expect(await statusWith(session)).toBe(200);
    await app.close();
    await start({ key: `${KEY}, another` });
    expect(await statusWith(session)).toBe(401);
    await app.close();
    await start({ key: KEY });
    await app.get(DataSource).query(`UPDATE sessions SET createdAt = '2020-01-01 00:00:00.000'`);
    expect(await statusWith(session)).toBe(401);
  });

  test('wrong keys are turned away after a while, and never keep out the owner of the right one', async () => {
    const statuses: number[] = [];
    for (let i = 0; i < 40; i += 1)
      statuses.push(
        (
          await api()
            .post('/api/access')
            .send({ key: `wrong ${i}` })
        ).status,
      );
    expect(statuses.slice(0, 10)).toEqual(Array.from({ length: 10 }, () => 401));
    expect(statuses.slice(10)).toEqual(Array.from({ length: 30 }, () => 429));
    expect(await statusWith(await login())).toBe(200);
  });

  test('the body of a login is bounded before it is read', async () => {
    const body = `{"key": [${'1,'.repeat(450_000)}1]}`;
    const send = (text: string): Promise<{ status: number; text: string }> =>
      api().post('/api/access').set('content-type', 'application/json').send(text).then();
    expect((await send(body)).status).toBe(413);
    const wide = await send('{"key": [1,1,1,1,1,1,1,1]}');
    expect([wide.status, wide.text.includes('has more than 4 values')]).toEqual([400, true]);
  });
});

test('a key is generated once for a folder, for its owner alone to read', async () => {
  await start();
  const generated = serverKey(folder, null);
  expect(generated).toMatch(/^[\w-]{32}$/);
  expect(serverKey(folder, null)).toBe(generated);
  expect(readFileSync(join(folder, 'key'), 'utf8')).toBe(`${generated}\n`);
  expect(statSync(join(folder, 'key')).mode & 0o777).toBe(0o600);
  expect(serverKey(folder, 'my own')).toBe('my own');
});

test.each([
  [0, 'https', false],
  [1, 'https', true],
  [1, 'http', false],
])(
  'behind %d proxies that say %s the session is kept for HTTPS alone: %p',
  async (proxies, protocol, isSecure) => {
    await start({ key: KEY, proxies });
    const { headers } = await api()
      .post('/api/access')
      .set('X-Forwarded-Proto', protocol)
      .send({ key: KEY })
      .expect(204);
    expect(/; Secure/.test(String(headers['set-cookie']))).toBe(isSecure);
  },
);

describe('figures for Prometheus', () => {
  const METRICS = 'figures and nothing else';

  test('are collected with their own key or within a session, and the key opens nothing else', async () => {
    await start({ key: KEY, metricsKey: METRICS });
    await api().get('/api/metrics').expect(401);
    await api().get('/api/metrics').set('Authorization', 'Bearer figures').expect(401);
    const { text } = await api().get('/api/metrics').set('Authorization', `Bearer ${METRICS}`).expect(200);
    expect(text).toMatch(/^schritt_workers 0$/m);
    await api().get('/api/studies').set('Authorization', `Bearer ${METRICS}`).expect(401);
    const login = await api().post('/api/access').send({ key: KEY });
    await api()
      .get('/api/metrics')
      .set('Cookie', login.headers['set-cookie'] ?? '')
      .expect(200);
  });

  test('count answers by route, and name no link of a shared study', async () => {
    await start();
    await api().get('/api/shown/a-secret-link').expect(404);
    await api().get('/api/health').expect(200);
    const { text } = await api().get('/api/metrics').expect(200);
    expect(text).toContain(
      'schritt_request_seconds_count{method="GET",route="/api/shown/:at",status="404"} 1',
    );
    expect(text).toContain('schritt_request_seconds_count{method="GET",route="/api/health",status="200"} 1');
    expect(text).not.toContain('a-secret-link');
  });

  test('count stored jobs by their state', async () => {
    await start();
    const store = app.get(DataSource);
    const insert = `INSERT INTO jobs (id, key, state, document) VALUES (?, 'k', ?, '')`;
    for (const [id, state] of [
      ['a', 'done'],
      ['b', 'done'],
      ['c', 'failed'],
    ])
      await store.query(insert, [id, state]);
    const { text } = await api().get('/api/metrics').expect(200);
    expect(text).toContain('schritt_jobs{state="done"} 2');
    expect(text).toContain('schritt_jobs{state="failed"} 1');
  });
});
