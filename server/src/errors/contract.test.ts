import 'reflect-metadata';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { Ajv } from 'ajv';
import request from 'supertest';
import { apiDocument } from '../create-server.ts';
import { testServer } from '../test-server.ts';

const STUDY = {
  schritt: 1,
  kind: 'study',
  title: 'Sluice',
  problem: { title: 'Sluice', text: "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 6" },
  methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
  ladder: { counts: [4, 8] },
};
const NOBODY = '00000000-0000-4000-8000-000000000000';

let folder: string;
let app: NestExpressApplication;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
  const web = join(folder, 'web');
  mkdirSync(join(web, 'assets'), { recursive: true });
  writeFileSync(join(web, 'index.html'), '<!doctype html><title>Schritt</title>');
  writeFileSync(join(web, 'assets/index-abc.js'), 'export {};');
  writeFileSync(join(web, 'assets/compute.worker-abc.js'), 'export {};');
  app = await testServer(folder, { web });
  await app.init();
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

interface Answer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: unknown;
}

type Method = 'get' | 'post' | 'put' | 'delete' | 'patch';

async function ask(method: Method, path: string, body?: unknown, type = 'application/json'): Promise<Answer> {
  const call = request(app.getHttpServer())[method](path);
  const sent =
    body === undefined
      ? call
      : call.set('content-type', type).send(typeof body === 'string' ? body : JSON.stringify(body));
  const { status, headers, body: answered } = await sent;
  return { status, headers, body: answered };
}

type Described = ReturnType<typeof apiDocument>;

/** The description of the API, and its schemas ready to be held against bodies. */
let description: Described;
let schemas: Ajv;

beforeAll(() => {
  description = JSON.parse(JSON.stringify(apiDocument(app)));
  schemas = new Ajv({ strict: false, allErrors: true });
  schemas.addSchema({ $id: 'api', components: description.components });
});

/** Holds an answer against what the description of the API says of it. */
function declared(path: string, method: Method, { status, body, headers }: Answer): string | null {
  const answer = description.paths[path]?.[method]?.responses[status];
  if (answer === undefined) return `${method} ${path} answers ${status}, which is not declared`;
  if ('$ref' in answer) return 'declared elsewhere';
  if (answer.content === undefined) return status === 204 ? null : 'declared without a body';
  const type = (headers['content-type'] ?? '').split(';')[0] ?? '';
  const schema = answer.content[type]?.schema;
  if (schema === undefined) return `${method} ${path} answers ${type}, which is not declared for ${status}`;
  if (type !== 'application/json') return null;
  const check = schemas.compile(JSON.parse(JSON.stringify(schema).replaceAll('"#/', '"api#/')));
  return check(body) ? null : schemas.errorsText(check.errors);
}

test('every answer is one that the description declares, with a body of the declared form', async () => {
  const created = await ask('post', '/api/studies', { document: STUDY });
  const { id }: { id: string } = JSON.parse(JSON.stringify(created.body));
  const job = await ask('post', '/api/jobs', { document: STUDY });
  const { id: jobId }: { id: string } = JSON.parse(JSON.stringify(job.body));
  const one = '/api/studies/{id}';
  const calls: readonly (readonly [string, Method, Promise<Answer> | Answer, number])[] = [
    ['/api/studies', 'post', created, 201],
    ['/api/jobs', 'post', job, 201],
    ['/api/studies', 'get', ask('get', '/api/studies'), 200],
    ['/api/studies', 'get', ask('get', '/api/studies?count=x'), 400],
    [one, 'get', ask('get', `/api/studies/${id}`), 200],
    [one, 'get', ask('get', `/api/studies/${NOBODY}`), 404],
    [one, 'get', ask('get', '/api/studies/x'), 404],
    [one, 'put', ask('put', `/api/studies/${id}`, { version: 9, document: STUDY }), 409],
    [one, 'put', ask('put', `/api/studies/${id}`, { version: 1, document: STUDY }), 200],
    [`${one}/report`, 'get', ask('get', `/api/studies/${id}/report`), 200],
    [`${one}/tables/{what}/{as}`, 'get', ask('get', `/api/studies/${id}/tables/rungs/csv`), 200],
    [`${one}/tables/{what}/{as}`, 'get', ask('get', `/api/studies/${id}/tables/rungs/xls`), 400],
    [`${one}/tables/{what}/{as}`, 'get', ask('get', `/api/studies/${NOBODY}/tables/cost/md`), 404],
    [`${one}/taken/{what}/{as}`, 'get', ask('get', `/api/studies/${id}/taken/plot/svg`), 200],
    [`${one}/taken/{what}/{as}`, 'get', ask('get', `/api/studies/${id}/taken/plot/xls`), 400],
    [`${one}/taken/{what}/{as}`, 'get', ask('get', `/api/studies/${id}/taken/rows/csv`), 400],
    [`${one}/taken/{what}/{as}`, 'get', ask('get', `/api/studies/${NOBODY}/taken/sheet/xlsx`), 404],
    [`${one}/file`, 'get', ask('get', `/api/studies/${id}/file`), 200],
    [`${one}/shown`, 'post', ask('post', `/api/studies/${id}/shown`), 200],
    [`${one}/restored`, 'post', ask('post', `/api/studies/${id}/restored`), 204],
    [`${one}/restored`, 'post', ask('post', `/api/studies/${NOBODY}/restored`), 404],
    [`${one}/permanently`, 'delete', ask('delete', `/api/studies/${id}/permanently`), 409],
    [`${one}/permanently`, 'delete', ask('delete', `/api/studies/${NOBODY}/permanently`), 404],
    ['/api/access', 'delete', ask('delete', '/api/access'), 204],
    ['/api/access/all', 'delete', ask('delete', '/api/access/all'), 204],
    ['/api/studies', 'get', ask('get', '/api/studies?bin=true'), 200],
    [`${one}/shown`, 'delete', ask('delete', `/api/studies/${id}/shown`), 204],
    ['/api/shown/{at}', 'get', ask('get', '/api/shown/nothing'), 404],
    ['/api/methods', 'post', ask('post', '/api/methods', '{"document":'), 400],
    ['/api/methods', 'post', ask('post', '/api/methods', { document: 'x'.repeat(1_100_000) }), 413],
    ['/api/methods', 'post', ask('post', '/api/methods', '{"__proto__": 1}'), 400],
    ['/api/methods', 'post', ask('post', '/api/methods', 'a=b', 'application/x-www-form-urlencoded'), 400],
    ['/api/jobs/{id}', 'get', ask('get', `/api/jobs/${jobId}`), 200],
    ['/api/jobs/{id}/events', 'get', ask('get', `/api/jobs/${jobId}/events`), 200],
    ['/api/jobs/{id}/runs', 'get', ask('get', `/api/jobs/${NOBODY}/runs`), 404],
    ['/api/jobs/{id}', 'delete', ask('delete', `/api/jobs/${jobId}`), 204],
    ['/api/health', 'get', ask('get', '/api/health'), 200],
    ['/api/access', 'get', ask('get', '/api/access'), 200],
    ['/api/access', 'post', ask('post', '/api/access', { key: 3 }), 400],
    ['/api/access', 'post', ask('post', '/api/access', { key: 'any' }), 204],
  ];
  for (const [path, method, call, status] of calls) {
    const answer = await call;
    expect([path, method, answer.status]).toEqual([path, method, status]);
    expect(declared(path, method, answer)).toBeNull();
  }
  expect((await ask('delete', `/api/studies/${id}`)).status).toBe(204);
});

test.each<[Method, string, number, string]>([
  ['get', '/studies', 200, 'text/html'],
  ['get', '/studies/abc', 200, 'text/html'],
  ['get', '/shown/abc', 200, 'text/html'],
  ['get', '/marking', 200, 'text/html'],
  ['get', '/assets/index-abc.js', 200, 'text/javascript'],
  ['get', '/assets/missing.js', 404, 'application/json'],
  ['get', '/api/nothing', 404, 'application/json'],
  ['post', '/studies', 404, 'application/json'],
  ['patch', '/api/studies', 405, 'application/json'],
  ['post', `/api/studies/${NOBODY}`, 405, 'application/json'],
  ['get', '/api/studies/%E0%A4%A', 400, 'application/json'],
  ['get', '/assets/../../schritt.sqlite', 404, 'application/json'],
])('with pages served too, %s %s is answered %d as %s', async (method, path, status, type) => {
  const answer = await ask(method, path);
  expect([answer.status, (answer.headers['content-type'] ?? '').split(';')[0]]).toEqual([status, type]);
  if (status === 405) expect(answer.headers['allow']).toBeDefined();
});

test('pages may not make code out of text; the workers that compute may, by the policy of their own file', async () => {
  const policy = async (path: string): Promise<string> =>
    (await ask('get', path)).headers['content-security-policy'] ?? '';
  expect(await policy('/studies')).toMatch(/script-src 'self';/);
  expect(await policy('/assets/index-abc.js')).toContain("default-src 'none'");
  expect((await ask('get', '/assets/index-abc.js')).headers['x-content-type-options']).toBe('nosniff');
  expect(await policy('/assets/compute.worker-abc.js')).toContain("script-src 'self' 'unsafe-eval'");
});
