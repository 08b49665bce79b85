import type { MessagePort } from 'node:worker_threads';
import { Refusal } from '@schritt/core/text';
import { doTask } from '../tasks/do-task.ts';
import type { TaskInput, TaskOutcome } from '../tasks/task.ts';

/** A task, and where to report how far it is. */
export interface ThreadTask extends TaskInput {
  readonly port: MessagePort;
}

/** Milliseconds between two progress reports. */
const REPORT = 150;

/** Does a task in a thread of its own; reports the part that is done. */
export default async function runTask({ port, ...input }: ThreadTask): Promise<TaskOutcome> {
  let last = Date.now();
  try {
    const text = await doTask(input, (part) => {
      if (Date.now() - last < REPORT) return;
      last = Date.now();
      port.postMessage(part);
    });
    return { kind: 'done', text };
  } catch (thrown) {
    if (thrown instanceof Refusal) return { kind: 'refused', why: thrown.message };
    throw thrown;
  }
}
