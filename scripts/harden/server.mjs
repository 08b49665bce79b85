import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from '../fresh.mjs';

/** A built server over a folder, on a port of its own; `stop` ends it with a signal and waits until it is gone. */
export async function startServer(data, port, settings = {}, from = root) {
  const child = spawn(process.execPath, [join(from, 'server/dist/main.js')], {
    env: { ...process.env, SCHRITT_DATA: data, SCHRITT_PORT: String(port), ...settings },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  child.stdout.on('data', (text) => (said += text));
  child.stderr.on('data', (text) => (said += text));
  const gone = new Promise((done) => child.on('exit', (code, signal) => done(signal ?? code)));
  const address = `http://127.0.0.1:${port}`;
  const begun = performance.now();
  for (;;) {
    if (child.exitCode !== null || child.signalCode !== null) throw new Error(`the server ended: ${said}`);
    if (said.includes('Schritt is at')) break;
    if (performance.now() - begun > 20_000) {
      child.kill('SIGKILL');
      throw new Error(`the server does not start: ${said}`);
    }
    await new Promise((done) => setTimeout(done, 10));
  }
  return {
    pid: child.pid,
    address,
    said: () => said,
    isUp: () => child.exitCode === null && child.signalCode === null,
    stop: (signal = 'SIGTERM') => {
      child.kill(signal);
      return gone;
    },
  };
}

/** Sends JSON and answers status and body. */
export async function send(address, method, path, body) {
  const response = await fetch(address + path, {
    method,
    headers: body === undefined ? {} : { 'content-type': 'application/json' },
    body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
  });
  const text = await response.text();
  const isJson = (response.headers.get('content-type') ?? '').startsWith('application/json');
  return { status: response.status, body: isJson ? JSON.parse(text) : text };
}

/** How long the server takes to answer whether it is there, asked again and again until `stop`. */
export function watchHealth(address, every = 20) {
  const times = [];
  let on = true;
  const run = (async () => {
    while (on) {
      const from = performance.now();
      try {
        const { ok } = await fetch(`${address}/api/health`);
        times.push(ok ? performance.now() - from : Infinity);
      } catch {
        times.push(Infinity);
      }
      await new Promise((done) => setTimeout(done, every));
    }
  })();
  return async () => {
    on = false;
    await run;
    return times.sort((a, b) => a - b);
  };
}

export function percentile(sorted, part) {
  return sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? NaN;
}
