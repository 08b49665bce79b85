import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Server } from 'node:http';
import express from 'express';
import { compressedPages, webFiles } from './pages.ts';

const SOURCE = `export const one = ${'1 + '.repeat(400)}0;\n`;
let folder = '';
let server: Server;
let base = '';

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'schritt-pages-'));
  mkdirSync(join(folder, 'assets'));
  for (const name of ['app-abc.js', 'compute.worker-abc.js'])
    writeFileSync(join(folder, 'assets', name), SOURCE);
  writeFileSync(join(folder, 'assets', 'small-abc.js'), 'x');
  const app = express().use(compressedPages(), webFiles(folder));
  await new Promise<void>((done) => (server = app.listen(0, '127.0.0.1', () => done())));
  const address = server.address();
  if (address === null || typeof address === 'string') throw new Error('no port');
  base = `http://127.0.0.1:${address.port}/assets`;
});

afterAll(async () => {
  await new Promise((done) => server.close(done));
  rmSync(folder, { recursive: true });
});

/** What a browser on another machine gets, by way of a proxy. */
async function asked(name: string, encoding: string): Promise<Response> {
  return fetch(`${base}/${name}`, {
    headers: { 'accept-encoding': encoding, 'x-forwarded-for': '192.0.2.7' },
  });
}

test('a browser on this machine gets files as they are', async () => {
  const answer = await fetch(`${base}/app-abc.js`, { headers: { 'accept-encoding': 'gzip, br' } });
  expect(answer.headers.get('content-encoding')).toBeNull();
  expect(await answer.text()).toBe(SOURCE);
});

test.each([
  ['br', 'br'],
  ['gzip, deflate, br', 'br'],
  ['gzip', 'gzip'],
  ['identity', null],
])('a browser that takes %s gets %s, and the same text', async (encoding, expected) => {
  const answer = await asked('app-abc.js', encoding);
  expect(answer.headers.get('content-encoding')).toBe(expected);
  expect(answer.headers.get('content-type')).toContain('text/javascript');
  expect(answer.headers.get('vary')).toContain('Accept-Encoding');
  expect(answer.headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
  expect(await answer.text()).toBe(SOURCE);
});

test('the worker that compiles has its own policy, compressed or not', async () => {
  for (const encoding of ['br', 'identity'])
    expect((await asked('compute.worker-abc.js', encoding)).headers.get('content-security-policy')).toContain(
      'unsafe-eval',
    );
});

test('a small file is sent as it is, and what is not there is not found', async () => {
  const small = await asked('small-abc.js', 'br');
  expect([small.status, small.headers.get('content-encoding')]).toEqual([200, null]);
  expect((await asked('none-abc.js', 'br')).status).toBe(404);
  expect((await asked('..%2f..%2fpackage.js', 'br')).status).toBe(404);
});
