import type { MessagePort } from 'node:worker_threads';
import { doTask } from '../tasks/do-task.ts';
import type { TaskInput } from '../tasks/task.ts';

/** A task, and where to report how far it is. */
export interface ThreadTask extends TaskInput {
  readonly port: MessagePort;
}

/** Milliseconds between two progress reports. */
const REPORT = 150;

/** Does a task in a thread of its own; reports the part that is done. */
export default function runTask({ port, ...input }: ThreadTask): string {
  const work = doTask(input);
  let last = Date.now();
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    if (Date.now() - last < REPORT) continue;
    last = Date.now();
    port.postMessage(next.value);
  }
}
