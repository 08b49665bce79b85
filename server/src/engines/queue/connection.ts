/** Milliseconds between two attempts to reach the queue, at most. */
const MAX_PAUSE = 2000;
/** Seconds that a command waits for news or for a task. */
export const WAIT = 3;
/** Milliseconds without an answer after which a connection is given up: longer than any command waits by itself. */
const SILENCE = 8000;

/** The options of ioredis that are set. */
interface QueueConnection {
  readonly url: string;
  readonly maxRetriesPerRequest: null;
  readonly retryStrategy: (times: number) => number;
  readonly keepAlive: number;
  readonly connectTimeout: number;
  readonly socketTimeout: number;
}

/** How the queue is reached, as options of ioredis; commands wait until it is. */
export function connectionTo(url: string): QueueConnection {
  return {
    url,
    maxRetriesPerRequest: null,
    retryStrategy: (times: number) => Math.min(100 * times, MAX_PAUSE),
    keepAlive: 5000,
    connectTimeout: 5000,
    socketTimeout: SILENCE,
  };
}
