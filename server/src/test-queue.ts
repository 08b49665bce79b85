import { type ChildProcess, execFileSync, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { type AddressInfo, connect, createServer, type Server, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';

/** A port that nobody listens to. */
export async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port }: Pick<AddressInfo, 'port'> = Object.assign({ port: 0 }, server.address());
  server.close();
  await once(server, 'close');
  return port;
}

async function isListening(port: number, host: string): Promise<boolean> {
  const socket = connect(port, host);
  try {
    await once(socket, 'connect');
    return true;
  } catch {
    return false;
  } finally {
    socket.destroy();
  }
}

/** Ends a process, and waits until it is gone. */
export async function end(child: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = once(child, 'exit');
  child.kill(signal);
  await gone;
}

/** A Redis server of Debian's package, which forgets everything when it ends unless it writes a log. */
export class TestRedis {
  readonly port: number;
  readonly #folder = mkdtempSync(join(tmpdir(), 'schritt-redis-'));
  readonly #keeps: boolean;
  #process: ChildProcess | null = null;

  constructor(port: number, keeps = false) {
    this.port = port;
    this.#keeps = keeps;
  }

  get url(): string {
    return `redis://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    const options = ['--port', String(this.port), '--bind', '0.0.0.0', '--protected-mode', 'no'];
    const keeping = ['--save', '', '--appendonly', this.#keeps ? 'yes' : 'no', '--dir', this.#folder];
    this.#process = spawn('redis-server', [...options, ...keeping], { stdio: 'ignore' });
    while (!(await isListening(this.port, '127.0.0.1'))) await setTimeout(50);
  }

  async kill(): Promise<void> {
    if (this.#process !== null) await end(this.#process, 'SIGKILL');
  }

  async close(): Promise<void> {
    await this.kill();
    rmSync(this.#folder, { recursive: true, force: true });
  }
}

/** A program of the built server as a process of its own. */
export class TestProgram {
  readonly process: ChildProcess;
  #said = '';

  /**
   * @param file below the folder of the built server
   * @param settings of the program, without which it has none
   * @param before what it is started with, such as the name of a network namespace
   */
  constructor(
    file: string,
    settings: Readonly<Record<string, string>>,
    before: readonly string[] = [],
    options: readonly string[] = [],
  ) {
    const own = [...options, join(process.cwd(), 'server/dist', file)];
    const [command = process.execPath, ...args] = before;
    const all = before.length === 0 ? own : [...args, process.execPath, ...own];
    const { PATH = '' } = process.env;
    this.process = spawn(command, all, { env: { PATH, ...settings }, stdio: ['ignore', 'pipe', 'pipe'] });
    for (const stream of [this.process.stdout, this.process.stderr])
      stream?.on('data', (part: Buffer) => (this.#said += part.toString()));
  }

  /** What it has printed so far. */
  get said(): string {
    return this.#said;
  }

  /** Waits until it has printed something. */
  async says(text: string | RegExp): Promise<string> {
    while (!(typeof text === 'string' ? this.#said.includes(text) : text.test(this.#said))) {
      if (this.process.exitCode !== null) throw new Error(`it ended and said: ${this.#said}`);
      await setTimeout(50);
    }
    return this.#said;
  }
}

/** A way of a program to the queue that can be cut without either end being told. */
export interface Wire {
  /** Where the program finds the queue. */
  readonly url: string;
  /** What the program is started with. */
  readonly before: readonly string[];
  readonly cut: () => void;
  readonly heal: () => void;
  readonly close: () => void;
}

const NAMESPACE = `schritt-${process.pid}`;
const [OUTER, INNER] = [`s${process.pid}o`, `s${process.pid}i`];
/** A network of four addresses that another such test is unlikely to have. */
const NET = `10.${64 + (process.pid % 64)}.${(process.pid >> 6) % 256}`;

function ip(...args: readonly string[]): void {
  execFileSync('ip', args, { stdio: 'ignore' });
}

/** A network of its own that a cable leads to; null where this machine allows none. */
function namespaceWire(port: number): Wire | null {
  const made = spawnSync('ip', ['netns', 'add', NAMESPACE], { stdio: 'ignore' });
  if (made.status !== 0) return null;
  const close = (): void => ip('netns', 'del', NAMESPACE);
  try {
    ip('link', 'add', OUTER, 'type', 'veth', 'peer', 'name', INNER);
    ip('link', 'set', INNER, 'netns', NAMESPACE);
    ip('addr', 'add', `${NET}.1/30`, 'dev', OUTER);
    ip('link', 'set', OUTER, 'up');
    ip('-n', NAMESPACE, 'addr', 'add', `${NET}.2/30`, 'dev', INNER);
    ip('-n', NAMESPACE, 'link', 'set', INNER, 'up');
    ip('-n', NAMESPACE, 'link', 'set', 'lo', 'up');
  } catch {
    close();
    return null;
  }
  return {
    url: `redis://${NET}.1:${port}`,
    before: ['ip', 'netns', 'exec', NAMESPACE],
    cut: () => ip('link', 'set', OUTER, 'down'),
    heal: () => ip('link', 'set', OUTER, 'up'),
    close,
  };
}

/** Connections that go through this process, and stand still when they are cut. */
async function relayWire(port: number): Promise<Wire> {
  const sockets = new Set<Socket>();
  let isCut = false;
  const relay: Server = createServer((inner) => {
    const outer = connect(port, '127.0.0.1');
    for (const [from, to] of [
      [inner, outer],
      [outer, inner],
    ] as const) {
      sockets.add(from);
      from.on('error', () => to.destroy());
      from.on('data', (data) => to.write(data));
      from.on('close', () => {
        sockets.delete(from);
        to.destroy();
      });
      if (isCut) from.pause();
    }
  }).listen(0, '127.0.0.1');
  await once(relay, 'listening');
  const { port: own }: Pick<AddressInfo, 'port'> = Object.assign({ port: 0 }, relay.address());
  const set = (cut: boolean): void => {
    isCut = cut;
    for (const socket of sockets) {
      if (cut) socket.pause();
      else socket.resume();
    }
  };
  return {
    url: `redis://127.0.0.1:${own}`,
    before: [],
    cut: () => set(true),
    heal: () => set(false),
    close: () => {
      for (const socket of sockets) socket.destroy();
      relay.close();
    },
  };
}

/** A wire to the queue at a port of all addresses of this machine. */
export async function wireTo(port: number): Promise<Wire> {
  return namespaceWire(port) ?? relayWire(port);
}
