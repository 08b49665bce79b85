import { OnQueueEvent, QueueEventsHost, QueueEventsListener } from '@nestjs/bullmq';
import { Inject } from '@nestjs/common';
import { WAIT } from './connection.ts';
import { QueueEngine } from './queue-engine.ts';
import type { EntryResult } from './queue-data.ts';
import { TASKS } from './queue-name.ts';

/** An event about one entry. */
interface OfEntry {
  readonly jobId: string;
}

/** Hands what the queue tells of its entries to the engine. */
@QueueEventsListener(TASKS, { blockingTimeout: 1000 * WAIT })
export class QueueNews extends QueueEventsHost {
  @Inject(QueueEngine)
  private readonly engine: QueueEngine;

  @OnQueueEvent('active')
  active({ jobId }: OfEntry): void {
    this.engine.hear({ kind: 'active', id: jobId });
  }

  /** Also of a task that was lost with its worker. */
  @OnQueueEvent('waiting')
  waiting({ jobId }: OfEntry): void {
    this.engine.hear({ kind: 'waiting', id: jobId });
  }

  @OnQueueEvent('progress')
  progress({ jobId, data }: OfEntry & { readonly data: unknown }): void {
    if (typeof data === 'number') this.engine.hear({ kind: 'progress', id: jobId, part: data });
  }

  @OnQueueEvent('completed')
  completed({ jobId, returnvalue }: OfEntry & { readonly returnvalue: EntryResult }): void {
    this.engine.hear({ kind: 'completed', id: jobId, result: returnvalue });
  }

  @OnQueueEvent('failed')
  failed({ jobId, failedReason }: OfEntry & { readonly failedReason: string }): void {
    this.engine.hear({ kind: 'failed', id: jobId, why: failedReason });
  }

  /** That the queue cannot be reached is said once, by the registry. */
  @OnQueueEvent('error')
  error(): void {
    return;
  }
}
