// Programs that run beside the one that calls them, such as a server that is measured or tried.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { clearTimeout, setTimeout } from 'node:timers';
import { root } from './fresh.mjs';

/** How long a program may take until it says that it is there. */
const PATIENCE = 60_000;

/**
 * Runs a program until it says something.
 *
 * @param {string} command
 * @param {readonly string[]} args
 * @param {{ readonly sign: RegExp, readonly settings?: Readonly<Record<string, string>> }} options what it says once it
 *   is there, and its settings on top of the environment
 * @returns what it said, and `stop`, which ends it by a signal and waits until it is gone
 */
export async function startProgram(command, args, { sign, settings = {} }) {
  const child = spawn(command, args, {
    env: { ...process.env, ...settings },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  const isUp = () => child.exitCode === null && child.signalCode === null;
  const gone = new Promise((done) => child.once('exit', done));
  const match = await new Promise((found, failed) => {
    const timer = setTimeout(() => {
      child.kill('SIGKILL');
      failed(new Error(`${command} does not start: ${text}`));
    }, PATIENCE);
    const hear = (part) => {
      text += part;
      const there = sign.exec(text);
      if (there === null) return;
      clearTimeout(timer);
      found(there);
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.once('error', (why) => {
      clearTimeout(timer);
      failed(why);
    });
    child.once('exit', () => {
      clearTimeout(timer);
      failed(new Error(`${command} ended: ${text}`));
    });
  });
  return {
    pid: child.pid,
    match,
    said: () => text,
    isUp,
    stop: async (signal = 'SIGTERM') => {
      if (isUp()) child.kill(signal);
      await gone;
    },
  };
}

/**
 * Runs a built server over a data folder, on a free port.
 *
 * @param {string} data
 * @param {Readonly<Record<string, string>>} settings
 * @param {string} from the folder of the built product
 */
export async function startServer(data, settings = {}, from = root) {
  const server = await startProgram(process.execPath, [join(from, 'server/dist/main.js')], {
    sign: /Schritt is at (\S+)/,
    settings: { SCHRITT_PORT: '0', SCHRITT_DATA: data, ...settings },
  });
  return { ...server, address: server.match[1] };
}

/** A port that no program listens at. */
export async function freePort() {
  const socket = createServer();
  const port = await new Promise((found) => {
    socket.listen(0, '127.0.0.1', () => found(socket.address().port));
  });
  await new Promise((done) => socket.close(done));
  return port;
}
