import { randomUUID } from 'node:crypto';
import { hostname } from 'node:os';
import { BullModule } from '@nestjs/bullmq';
import { type DynamicModule, Module } from '@nestjs/common';
import { QueueEventsProducer } from 'bullmq';
import { Engine } from '../engine.ts';
import { connectionTo } from './connection.ts';
import { PREFIX } from './queue-data.ts';
import { QueueEngine } from './queue-engine.ts';
import { NUMERICS, TASKS } from './queue-name.ts';
import { QueueNews } from './queue-news.ts';
import { Registry } from './registry.ts';

/** Events of the queue that are kept for those who were away for a moment. */
const MAX_EVENTS = 5000;

/** Tasks of jobs go through a queue to workers on any number of machines. */
@Module({})
export class QueueModule {
  /** @param url of a Redis or Valkey server */
  static with(url: string): DynamicModule {
    const name = `${hostname()} ${process.pid} ${randomUUID().slice(0, 8)}`;
    return {
      module: QueueModule,
      global: true,
      imports: [
        BullModule.forRoot({ connection: connectionTo(url), prefix: PREFIX }),
        BullModule.registerQueue({ name: TASKS, streams: { events: { maxLen: MAX_EVENTS } } }),
        BullModule.registerFlowProducer({ name: TASKS }),
      ],
      providers: [
        {
          provide: QueueEventsProducer,
          useFactory: () => new QueueEventsProducer(TASKS, { connection: connectionTo(url), prefix: PREFIX }),
        },
        {
          provide: Registry,
          useFactory: () => new Registry(url, 'servers', { name, version: NUMERICS }),
        },
        QueueEngine,
        QueueNews,
        { provide: Engine, useExisting: QueueEngine },
      ],
      exports: [Engine],
    };
  }
}
