import type { MessagePort } from 'node:worker_threads';
import { openStudy, type StudyDocument } from '@schritt/core/document';
import { methodSigns, type MethodRun, type RungRun } from '@schritt/core/study';
import { bytesOf } from './result-bytes.ts';

/** One method of a study, and where to tell how far it is. */
export interface MethodTask {
  readonly document: StudyDocument;
  readonly method: number;
  readonly port: MessagePort;
  /** Bytes that its results may take. */
  readonly mostBytes: number;
}

/** A progress report: the part that is done, and rungs that were finished since the last one. */
export interface Sign {
  readonly part: number;
  readonly finished: readonly RungRun[];
}

/** What a method has come to; null where its results are larger than they may be. */
export type MethodAnswer = MethodRun | null;

/** Milliseconds between two progress reports. */
const SIGN = 150;

/** Runs one method of a study in a thread of its own; tells how far it is. */
export default function runMethod({ document, method, port, mostBytes }: MethodTask): MethodAnswer {
  const opened = openStudy(document);
  if (!opened.ok) throw new Error('a text of this study cannot be read');
  const work = methodSigns(opened.study, method);
  let finished: RungRun[] = [];
  let last = Date.now();
  let bytes = 0;
  for (;;) {
    const next = work.next();
    if (next.done === true) return next.value;
    const rung = next.value.finished;
    if (rung !== null) {
      bytes += bytesOf(rung);
      if (bytes > mostBytes) return null;
      finished.push(rung);
    }
    if (Date.now() - last < SIGN) continue;
    last = Date.now();
    port.postMessage({ part: next.value.part, finished } satisfies Sign);
    finished = [];
  }
}
