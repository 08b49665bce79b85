import 'reflect-metadata';
import { availableParallelism, hostname } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readSettings } from './settings.ts';
import { startWorker } from './worker/worker.ts';

const here = dirname(fileURLToPath(import.meta.url));
const reading = readSettings(process.env, dirname(dirname(here)));

/** Says why it cannot start, and ends. */
function refuse(reasons: readonly string[]): never {
  process.stderr.write(`The worker cannot start:\n${reasons.map((reason) => `  ${reason}\n`).join('')}`);
  process.exit(1);
}

if (!reading.ok) refuse(reading.faults);
const { queue, workerThreads, runMemory, jobSeconds, logLevel } = reading.settings;
if (queue === null)
  refuse(['SCHRITT_QUEUE is missing; write for example SCHRITT_QUEUE=redis://127.0.0.1:6379']);
const threads = workerThreads ?? availableParallelism();
const worker = await startWorker(
  {
    name: `${hostname()} ${process.pid}`,
    url: queue,
    threads: { workers: join(here, 'threads'), limit: jobSeconds, memory: runMemory, threads },
    logLevel,
  },
  (text) => process.stdout.write(`${text}\n`),
);
const { host } = new URL(queue);
process.stdout.write(`Worker ${process.pid} is at ${host}, ${threads} runs at a time\n`);

/** Milliseconds that a worker has to give back its runs; others take them anyway when it is not heard of. */
const PATIENCE = 4000;

const stop = (): void => {
  setTimeout(() => process.exit(0), PATIENCE);
  worker.stop().then(
    () => process.exit(0),
    (thrown: unknown) => {
      process.stderr.write(`${String(thrown)}\n`);
      process.exit(1);
    },
  );
};
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
