import { isIP } from 'node:net';
import { join } from 'node:path';

/** What a server is started with, from the environment. */
export interface Settings {
  /** Folder of all data. */
  readonly data: string;
  readonly host: string;
  readonly port: number;
  /** Names besides the host's own by which pages may ask, such as a name in the local network. */
  readonly names: readonly string[];
  /** The key with which a person may write from elsewhere; null for one that the server makes itself. */
  readonly key: string | null;
  /** The key with which Prometheus collects figures; null for none. */
  readonly metricsKey: string | null;
  /** Proxies before the server, each of which adds where a request comes from. */
  readonly proxies: number;
  /** Address of the queue through which workers do long studies; null where the server does them itself. */
  readonly queue: string | null;
  /** Runs that a worker does at a time; null for as many as there are processors. */
  readonly workerThreads: number | null;
  /** Megabytes of memory that one run may take. */
  readonly runMemory: number;
  /** Seconds that the runs of a job may take together. */
  readonly jobSeconds: number;
  /** Seconds after which work within a request is ended. */
  readonly requestSeconds: number;
  readonly logLevel: 'silent' | 'warn' | 'info';
}

export type SettingsReading =
  | { readonly ok: true; readonly settings: Settings }
  | { readonly ok: false; readonly faults: readonly string[] };

/** Characters of a key that a person may choose, at least, and different ones among them. */
const MIN_KEY = 16;
const MIN_DIFFERENT = 8;

/** Whether an address is reached from this machine alone. */
export function isLoopback(host: string): boolean {
  return host === 'localhost' || host === '::1' || (isIP(host) === 4 && host.startsWith('127.'));
}

/** Whether a text is an address of the form that the queue takes. */
function isQueue(text: string): boolean {
  if (!URL.canParse(text)) return false;
  const { protocol, hostname } = new URL(text);
  return (protocol === 'redis:' || protocol === 'rediss:') && hostname !== '';
}

/**
 * Reads and checks all settings in one place.
 *
 * @param environment as process.env
 * @param root the folder of the program; data is kept in `data` below it unless SCHRITT_DATA says otherwise
 * @returns the settings, or a sentence for each one that is wrong
 */
export function readSettings(environment: NodeJS.ProcessEnv, root: string): SettingsReading {
  const faults: string[] = [];
  const text = (name: string, otherwise: string): string => {
    const value = environment[name] ?? otherwise;
    if (value.trim() === '')
      faults.push(`${name} is empty; leave it out, or write for example ${name}=${otherwise}`);
    return value;
  };
  const whole = (name: string, otherwise: number, least: number, most: number): number => {
    const written = environment[name] ?? String(otherwise);
    const value = Number(written);
    const isGood = /^\d+$/.test(written) && value >= least && value <= most;
    if (!isGood)
      faults.push(
        `${name} is "${written}"; it must be an integer from ${least} to ${most}, as ${name}=${otherwise}`,
      );
    return isGood ? value : otherwise;
  };
  const log = environment['SCHRITT_LOG'] ?? 'warn';
  const logLevel = (['silent', 'warn', 'info'] as const).find((level) => level === log);
  if (logLevel === undefined) faults.push(`SCHRITT_LOG is "${log}"; it must be silent, warn or info`);
  const secret = (name: string): string | null => {
    const value = environment[name] ?? null;
    if (value !== null && (value.length < MIN_KEY || new Set(value).size < MIN_DIFFERENT))
      faults.push(
        `${name} has ${value.length} characters, ${new Set(value).size} of them different; a key that cannot be guessed has at least ${MIN_KEY}, and ${MIN_DIFFERENT} different ones`,
      );
    return value;
  };
  const key = secret('SCHRITT_KEY');
  const metricsKey = secret('SCHRITT_METRICS_KEY');
  const queue = environment['SCHRITT_QUEUE'] ?? null;
  if (queue !== null && !isQueue(queue))
    faults.push(
      `SCHRITT_QUEUE is not the address of a Redis or Valkey server; write it as redis://127.0.0.1:6379 or rediss://:password@host:6379`,
    );
  const settings: Settings = {
    data: text('SCHRITT_DATA', join(root, 'data')),
    host: text('SCHRITT_HOST', '127.0.0.1'),
    port: whole('SCHRITT_PORT', 4600, 0, 65_535),
    names: (environment['SCHRITT_NAMES'] ?? '')
      .split(',')
      .map((name) => name.trim().toLowerCase())
      .filter((name) => name !== ''),
    key,
    metricsKey,
    proxies: whole('SCHRITT_PROXIES', 0, 0, 5),
    queue,
    workerThreads:
      environment['SCHRITT_WORKER_THREADS'] === undefined
        ? null
        : whole('SCHRITT_WORKER_THREADS', 1, 1, 1024),
    runMemory: whole('SCHRITT_RUN_MEMORY', 1024, 16, 65_536),
    jobSeconds: whole('SCHRITT_JOB_SECONDS', 900, 1, 86_400),
    requestSeconds: whole('SCHRITT_REQUEST_SECONDS', 10, 1, 600),
    logLevel: logLevel ?? 'warn',
  };
  return faults.length === 0 ? { ok: true, settings } : { ok: false, faults };
}
