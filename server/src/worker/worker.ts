import { NestFactory } from '@nestjs/core';
import { Logger } from 'nestjs-pino';
import { NUMERICS } from '../engines/queue/queue-name.ts';
import { type Present, Registry } from '../engines/queue/registry.ts';
import { TaskPool } from '../threads/task-pool.ts';
import { TaskProcessor } from './task.processor.ts';
import { WorkerModule, type WorkerOptions } from './worker.module.ts';
import { WorkerNews } from './worker-news.ts';

/** A worker under way. */
export interface Worker {
  /** Gives back what it has under way, and ends. */
  readonly stop: () => Promise<void>;
}

/** What a worker says of who is at the queue; null where there is nothing to say. */
export function remarkOn(present: Present | null): string | null {
  if (present === null) return 'The queue cannot be reached; this worker waits for it.';
  if (present.servers.length === 0) return 'No server is at this queue yet.';
  if (Registry.of(present, NUMERICS).servers.length > 0) return null;
  const versions = [...new Set(present.servers.map((name) => name.split(' ')[0]))].join(', ');
  return `This worker takes nothing: its numbers are of version ${NUMERICS}, those of the server of version ${versions}. Install the version of the server, on a machine that rounds as it does.`;
}

/**
 * Starts a worker.
 *
 * @param say told when there is something new to say
 */
export async function startWorker(options: WorkerOptions, say: (text: string) => void): Promise<Worker> {
  const app = await NestFactory.createApplicationContext(WorkerModule.with(options), {
    bufferLogs: true,
    abortOnError: false,
  });
  app.useLogger(app.get(Logger));
  const processor = app.get(TaskProcessor);
  const registry = app.get(Registry);
  processor.begin(app.get(TaskPool).threads);
  app.get(WorkerNews).listen();
  let said: string | null = null;
  registry.start((present) => {
    const remark = remarkOn(present);
    if (remark !== said) say(remark ?? 'The server is there; this worker takes runs.');
    said = remark;
  });
  return {
    stop: async () => {
      await registry.close();
      await processor.stop();
      await app.close();
    },
  };
}
