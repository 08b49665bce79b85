import type { MessagePort } from 'node:worker_threads';
import { openStudy, type StudyDocument } from '@schritt/core/document';
import { methodSigns, type MethodRun, type RungRun } from '@schritt/core/study';

/** One method of a study, and where to tell how far it is. */
export interface MethodTask {
  readonly document: StudyDocument;
  readonly method: number;
  readonly port: MessagePort;
}

/** A sign of life: the part that is done, and rungs that were finished since the last one. */
export interface Sign {
  readonly part: number;
  readonly finished: readonly RungRun[];
}

/** Milliseconds between two signs of life. */
const SIGN = 150;

/** Runs one method of a study in a thread of its own; tells how far it is. */
export default function runMethod({ document, method, port }: MethodTask): MethodRun {
  const opened = openStudy(document);
  if (!opened.ok) throw new Error('a text of this study cannot be read');
  const work = methodSigns(opened.study, method);
  let finished: RungRun[] = [];
  let last = Date.now();
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    if (next.value.finished !== null) finished.push(next.value.finished);
    if (Date.now() - last < SIGN) continue;
    last = Date.now();
    port.postMessage({ part: next.value.part, finished } satisfies Sign);
    finished = [];
  }
}
