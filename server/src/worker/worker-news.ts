import { OnQueueEvent, QueueEventsHost, QueueEventsListener } from '@nestjs/bullmq';
import { Inject } from '@nestjs/common';
import type { QueueEvents, QueueEventsListener as Listened } from 'bullmq';
import { WAIT } from '../engines/queue/connection.ts';
import { DROPPED } from '../engines/queue/queue-data.ts';
import { TASKS } from '../engines/queue/queue-name.ts';
import { TaskProcessor } from './task.processor.ts';

/** The events of the queue with the one by which servers drop a job. */
interface WithDropped extends Listened {
  readonly [DROPPED]: (event: { readonly whole: string }, id: string) => void;
}

/** Hears which jobs nobody wants any longer. */
@QueueEventsListener(TASKS, { blockingTimeout: 1000 * WAIT })
export class WorkerNews extends QueueEventsHost {
  @Inject(TaskProcessor)
  private readonly processor: TaskProcessor;

  /** Listens from when the queue's events are at hand. */
  listen(): void {
    const events: QueueEvents = this.queueEvents;
    events.on<WithDropped>(DROPPED, ({ whole }: { readonly whole: string }) => this.processor.drop(whole));
  }

  /** That the queue cannot be reached is said once, by the registry. */
  @OnQueueEvent('error')
  error(): void {
    return;
  }
}
