import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { request } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { end, freePort, TestProgram } from './test-queue.ts';

const DEPLOY = join(process.cwd(), 'deploy');
const KEY = 'a key that nobody guesses';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

interface Answer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | readonly string[] | undefined>>;
  readonly text: string;
}

describe('the configuration of nginx', () => {
  let nginx: ChildProcess;
  let server: TestProgram;
  let port: number;

  /** Asks by HTTPS under the name of the certificate. */
  function ask(path: string, headers: Readonly<Record<string, string>> = {}, body?: string): Promise<Answer> {
    return new Promise((done, fail) => {
      const sent = request(
        {
          ...{ host: '127.0.0.1', port, path, method: body === undefined ? 'GET' : 'POST' },
          ca: readFileSync(join(folder, 'fullchain.pem')),
          servername: 'schritt.example',
          headers: { host: `schritt.example`, ...headers },
        },
        (answer) => {
          let text = '';
          answer.on('data', (part: Buffer) => (text += part.toString()));
          answer.on('end', () => done({ status: answer.statusCode ?? 0, headers: answer.headers, text }));
        },
      );
      sent.on('error', fail);
      sent.end(body);
    });
  }

  beforeEach(async () => {
    port = await freePort();
    const [inner, plain] = [await freePort(), await freePort()];
    execFileSync(
      'openssl',
      [
        ...[
          'req',
          '-x509',
          '-newkey',
          'ec',
          '-pkeyopt',
          'ec_paramgen_curve:prime256v1',
          '-nodes',
          '-days',
          '2',
        ],
        ...['-subj', '/CN=schritt.example', '-addext', 'subjectAltName=DNS:schritt.example'],
        ...['-keyout', join(folder, 'privkey.pem'), '-out', join(folder, 'fullchain.pem')],
      ],
      { stdio: 'ignore' },
    );
    // as it is given, at other ports and with the certificate of this test
    const own = readFileSync(join(DEPLOY, 'nginx.conf'), 'utf8')
      .replace('127.0.0.1:4600', `127.0.0.1:${inner}`)
      .replace('listen 80;', `listen 127.0.0.1:${plain};`)
      .replace('listen 443 ssl;', `listen 127.0.0.1:${port} ssl;`)
      .replaceAll('/etc/schritt/', `${folder}/`);
    const paths = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi']
      .map((name) => `${name}_temp_path ${join(folder, name)};`)
      .join(' ');
    writeFileSync(
      join(folder, 'nginx.conf'),
      `daemon off; pid ${folder}/pid; error_log ${folder}/error.log; events {} http { access_log off; ${paths}\n${own}\n}`,
    );
    server = new TestProgram('main.js', {
      SCHRITT_DATA: join(folder, 'data'),
      SCHRITT_PORT: String(inner),
      SCHRITT_NAMES: 'schritt.example',
      SCHRITT_PROXIES: '1',
      SCHRITT_KEY: KEY,
    });
    await server.says('Schritt is at');
    nginx = spawn('/usr/sbin/nginx', ['-c', join(folder, 'nginx.conf'), '-e', join(folder, 'error.log')], {
      stdio: 'ignore',
    });
    for (let i = 0; i < 50; i += 1) {
      if (
        await ask('/api/health').then(
          ({ status }) => status === 200,
          () => false,
        )
      )
        return;
      await setTimeout(100);
    }
    throw new Error(readFileSync(join(folder, 'error.log'), 'utf8'));
  });
  afterEach(async () => {
    await end(nginx);
    await end(server.process);
  });

  test('serves by HTTPS, keeps sessions there, and sends the progress of a long study as it comes', async () => {
    expect((await ask('/api/studies')).status).toBe(401);
    const json = { 'content-type': 'application/json', origin: 'https://schritt.example' };
    const login = await ask('/api/access', json, JSON.stringify({ key: KEY }));
    expect(login.status).toBe(204);
    const cookie = String(login.headers['set-cookie']);
    expect(cookie).toContain('; Secure');
    expect(login.headers['strict-transport-security']).toBe('max-age=31536000');
    const text = "level' = -0.35*sqrt(level)\nlevel(0) = 4\n0 <= t <= 6\nlevel(t) = (2 - 0.35*t/2)^2";
    const document = {
      schritt: 1,
      kind: 'study',
      title: 'Sluice',
      problem: { title: 'Sluice', text },
      methods: [{ title: 'Euler', text: 'y[n+1] = y + h*f(t, y)' }],
      ladder: { counts: [30_000_000, 40_000_000, 50_000_000] },
    };
    const session = { ...json, cookie: cookie.split(';')[0] ?? '' };
    const job = await ask('/api/jobs', session, JSON.stringify({ document }));
    expect(job.status).toBe(201);
    const { id }: { readonly id: string } = JSON.parse(job.text);
    const arrived: number[] = [];
    await new Promise<void>((done, fail) => {
      const ca = readFileSync(join(folder, 'fullchain.pem'));
      const headers = { host: 'schritt.example', cookie: session.cookie };
      request(
        {
          host: '127.0.0.1',
          port,
          path: `/api/jobs/${id}/events`,
          ca,
          servername: 'schritt.example',
          headers,
        },
        (answer) => {
          answer.on('data', () => arrived.push(Date.now()));
          answer.on('end', done);
        },
      )
        .on('error', fail)
        .end();
    });
    // a proxy that kept it back would send all of it at the end
    expect(arrived.at(-1)! - arrived[0]!).toBeGreaterThan(200);
  });

  test('a page of another site changes nothing through it', async () => {
    const json = { 'content-type': 'application/json', origin: 'https://other.example' };
    expect((await ask('/api/access', json, JSON.stringify({ key: KEY }))).status).toBe(403);
  });
});

test('the timed backup copies a running server, and keeps the given number of copies', async () => {
  const data = join(folder, 'data');
  const server = new TestProgram('main.js', { SCHRITT_DATA: data, SCHRITT_PORT: String(await freePort()) });
  await server.says('Schritt is at');
  const copies = join(folder, 'copies');
  mkdirSync(copies);
  for (const name of ['20260101T000000Z', '20260102T000000Z'])
    writeFileSync(join(copies, `schritt-${name}.sqlite`), '');
  const { PATH = '' } = process.env;
  execFileSync('/bin/sh', [join(DEPLOY, 'backup.sh'), copies, '2'], {
    env: { PATH, SCHRITT_DATA: data },
    stdio: 'ignore',
  });
  await end(server.process);
  const kept = readdirSync(copies).sort();
  expect(kept).toHaveLength(2);
  expect(kept[0]).toBe('schritt-20260102T000000Z.sqlite');
  execFileSync(process.execPath, ['scripts/schritt.mjs', 'restore', join(copies, kept[1] ?? '')], {
    env: { PATH, SCHRITT_DATA: join(folder, 'other') },
    stdio: 'ignore',
  });
});

test.each(readdirSync(DEPLOY).filter((name) => /\.(service|timer)$/.test(name)))(
  'the unit %s starts files that are there, with settings that the program knows',
  (name) => {
    const unit = readFileSync(join(DEPLOY, name), 'utf8');
    const [, program] = /^ExecStart=\S+ (\S+)/m.exec(unit) ?? [];
    if (program !== undefined)
      expect(readFileSync(join(process.cwd(), program.replace('/opt/schritt/', '')), 'utf8')).not.toBe('');
    const [, environment] = /^EnvironmentFile=\/etc\/schritt\/(\S+)/m.exec(unit) ?? [];
    if (environment === undefined) return;
    const settings = readFileSync(join(DEPLOY, environment), 'utf8').matchAll(/^#?(SCHRITT_\w+)=/gm);
    const known = readFileSync(join(process.cwd(), 'server/src/settings.ts'), 'utf8');
    for (const [, setting = ''] of settings) expect(known).toContain(`'${setting}'`);
  },
);
