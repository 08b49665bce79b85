import { WAIT } from '../engines/queue/connection.ts';

/** How a worker holds tasks of the queue. */
export const WORKER_OPTIONS = {
  // it begins when it knows how many tasks it does at a time
  autorun: false,
  /** Milliseconds after which a task whose worker is not heard of is given to another one. */
  lockDuration: 12_000,
  /** Milliseconds between two looks for such tasks. */
  stalledInterval: 5000,
  /** Times that this happens to one task before its job is given up. */
  maxStalledCount: 5,
  drainDelay: WAIT,
} as const;
