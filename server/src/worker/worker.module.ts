import { BullModule } from '@nestjs/bullmq';
import { type DynamicModule, Module } from '@nestjs/common';
import { LoggerModule } from 'nestjs-pino';
import { connectionTo } from '../engines/queue/connection.ts';
import { PREFIX } from '../engines/queue/queue-data.ts';
import { NUMERICS, TASKS } from '../engines/queue/queue-name.ts';
import { Registry } from '../engines/queue/registry.ts';
import type { Settings } from '../settings.ts';
import { TaskPool } from '../threads/task-pool.ts';
import { THREAD_OPTIONS, type ThreadOptions } from '../threads/thread-options.ts';
import { TaskProcessor } from './task.processor.ts';
import { WorkerNews } from './worker-news.ts';

/** What a worker is started with. */
export interface WorkerOptions {
  /** What it calls itself at the queue. */
  readonly name: string;
  /** The address of the queue. */
  readonly url: string;
  readonly threads: ThreadOptions;
  readonly logLevel: Settings['logLevel'];
}

/** A process that does tasks of a queue, and needs nothing else. */
@Module({})
export class WorkerModule {
  static with({ name, url, threads, logLevel }: WorkerOptions): DynamicModule {
    return {
      module: WorkerModule,
      imports: [
        LoggerModule.forRoot({ pinoHttp: { level: logLevel } }),
        BullModule.forRoot({ connection: connectionTo(url), prefix: PREFIX }),
        BullModule.registerQueue({ name: TASKS, skipMetasUpdate: true }),
      ],
      providers: [
        { provide: THREAD_OPTIONS, useValue: threads },
        { provide: Registry, useFactory: () => new Registry(url, 'workers', { name, version: NUMERICS }) },
        TaskPool,
        TaskProcessor,
        WorkerNews,
      ],
    };
  }
}
