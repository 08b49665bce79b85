import 'reflect-metadata';
import { mkdtempSync, rmSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import Database from 'better-sqlite3';
import { apiDocument } from '../create-server.ts';
import { contentChecksum } from '../store/checksum.ts';
import { testServer } from '../test-server.ts';

const KEY = 'a key that nobody guesses';
const SECRET = 'Unpublished exam of the snow lake';
const STUDY = {
  schritt: 1,
  kind: 'study',
  title: SECRET,
  problem: { title: 'Sluice', text: "level' = -sqrt(level)\nlevel(0) = 4\n0 <= t <= 1" },
  methods: [],
  ladder: { counts: [4] },
};
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS'];
/** What needs no session, by method and path. */
const PUBLIC = ['GET /api/health', 'GET /api/access', 'POST /api/access', 'GET /api/shown/{at}'];

/** A path spelled in ways that a guard and a router may read differently. */
const SPELLINGS: readonly ((path: string) => string)[] = [
  (path) => path,
  (path) => path.toUpperCase(),
  (path) => path.replace('/api', '/Api'),
  (path) => path.replace('/api', '/aPI'),
  (path) =>
    path.replace(/\/([^/]+)$/, (_, last: string) => `/${last.slice(0, 1).toUpperCase()}${last.slice(1)}`),
  (path) => `/${path}`,
  (path) => path.replace('/api/', '/api//'),
  (path) => `${path}/`,
  (path) => `${path}//`,
  (path) => `/.${path}`,
  (path) => `/x/..${path}`,
  (path) => path.replace('/api/', '/api/health/../'),
  (path) => path.replace('/api/', '/api/./'),
  (path) => path.replace('/api/', '/api%2f'),
  (path) => path.replace('/api/', '%2Fapi/'),
  (path) => path.replace('/api', '/%61pi'),
  (path) => path.replace('/api/', '/api%252f'),
  (path) => path.replace('/api/', '/api;v=1/'),
  (path) => path.replace('/api/', '/api\\'),
  (path) => `${path};`,
  (path) => `${path}.`,
  (path) => `${path}.json`,
  (path) => `${path}%20`,
  (path) => `${path}%00`,
  (path) => `${path}?path=/api/health&_method=GET`,
  (path) => path.replace('s', '%c5%bf'),
  (path) => `http://127.0.0.1${path}`,
];

/** Headers by which some servers take another method or path than that of the request line. */
const OVERRIDES: readonly Readonly<Record<string, string>>[] = [
  {},
  { 'X-HTTP-Method-Override': 'GET', 'X-HTTP-Method': 'GET', 'X-Method-Override': 'GET' },
  { 'X-Original-URL': '/api/health', 'X-Rewrite-URL': '/api/health', 'X-Forwarded-Prefix': '/api/health' },
];

let folder: string;
let app: NestExpressApplication;
let port: number;

interface Answer {
  readonly status: number;
  readonly text: string;
}

/** Sends a request whose path is written as given. */
function send(
  method: string,
  path: string,
  headers: Readonly<Record<string, string>>,
  body = '',
): Promise<Answer> {
  return new Promise((done, fail) => {
    const call = request(
      { host: '127.0.0.1', port, method, path, headers: { 'content-type': 'application/json', ...headers } },
      (response) => {
        let text = '';
        response.setEncoding('utf8').on('data', (part: string) => (text += part));
        response.on('end', () => done({ status: response.statusCode ?? 0, text }));
      },
    );
    call.on('error', fail);
    call.end(body);
  });
}

async function login(): Promise<string> {
  const answer = await fetch(`http://127.0.0.1:${port}/api/access`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ key: KEY }),
  });
  return answer.headers.get('set-cookie')?.split(';')[0] ?? '';
}

function checksum(): string {
  const store = new Database(join(folder, 'schritt.sqlite'), { readonly: true });
  try {
    return contentChecksum(store);
  } finally {
    store.close();
  }
}

let id: string;
let cookie: string;
let paths: readonly string[];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
  app = await testServer(folder, {
    access: { host: '127.0.0.1', names: [], key: KEY, metricsKey: null, proxies: 0 },
  });
  await app.listen(0, '127.0.0.1');
  port = Number(new URL(await app.getUrl()).port);
  cookie = await login();
  const created = await send('POST', '/api/studies', { cookie }, JSON.stringify({ document: STUDY }));
  ({ id } = JSON.parse(created.text));
  const described = Object.keys(apiDocument(app).paths);
  paths = [...described, '/api/docs', '/api/docs-json', '/api/docs/swagger-ui-init.js'];
});
afterAll(async () => {
  await app.close();
  rmSync(folder, { recursive: true });
});

/** A path of the description with values for its parameters. */
const written = (path: string): string =>
  path.replace('{id}', id).replace('{what}', 'rungs').replace('{as}', 'csv').replace('{at}', 'nothing');

test('the walk covers every route: with a session none of them says that one is needed', async () => {
  expect(paths.length).toBeGreaterThan(25);
  for (const path of paths.filter((one) => !one.startsWith('/api/access')))
    expect([path, (await send('GET', written(path), { cookie })).status]).not.toEqual([path, 401]);
});

test('without a session no route is reached by another spelling, method or header, and nothing changes', async () => {
  const before = checksum();
  const body = JSON.stringify({ document: { ...STUDY, title: 'Overwritten' }, version: 1 });
  const reached: string[] = [];
  for (const path of paths)
    for (const spelling of SPELLINGS)
      for (const method of METHODS)
        for (const override of OVERRIDES) {
          const spelled = spelling(written(path));
          const { status, text } = await send(method, spelled, override, method === 'GET' ? '' : body);
          if (text.includes(SECRET)) reached.push(`${method} ${spelled} tells the study`);
          const isPublic = PUBLIC.includes(`${method === 'HEAD' ? 'GET' : method} ${path}`);
          // the router answers OPTIONS by itself, with the methods of a path and nothing else
          const isOptions = method === 'OPTIONS' && /^(GET|HEAD|POST|PUT|DELETE|, )*$/.test(text);
          if (status < 400 && !isPublic && !isOptions)
            reached.push(`${method} ${spelled} is answered ${status}`);
        }
  expect(reached).toEqual([]);
  expect(checksum()).toBe(before);
});
