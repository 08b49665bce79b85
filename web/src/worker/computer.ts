import type { RungRun } from '@schritt/core';
import type { Answer, Request } from './messages.ts';

type Question = Request extends infer R ? (R extends Request ? Omit<R, 'id'> : never) : never;

/** An answer that came too late to matter: a newer question was asked. */
export class Superseded extends Error {
  override readonly name = 'Superseded';
}

interface Waiting {
  readonly id: number;
  readonly done: (answer: Answer) => void;
  readonly fail: (why: Error) => void;
  readonly progress: Progress;
}

/** Told now and then which part of the work is done, and which rungs were finished since. */
export type Progress = (part: number, finished: readonly RungRun[]) => void;

/**
 * One web worker that answers one question at a time. A newer question makes the older one void;
 * a worker that is still busy with a void one is ended and another takes its place.
 */
export class Computer {
  #worker: Worker | null = null;
  #waiting: Waiting | null = null;
  #ids = 0;

  ask(question: Question, progress: Progress = () => undefined): Promise<Answer> {
    this.cancel();
    this.#ids += 1;
    const id = this.#ids;
    return new Promise((done, fail) => {
      this.#waiting = { id, done, fail, progress };
      this.#running().postMessage({ ...question, id });
    });
  }

  /** Gives up the question under way. */
  cancel(): void {
    if (this.#waiting === null) return;
    this.#waiting.fail(new Superseded());
    this.#waiting = null;
    this.#worker?.terminate();
    this.#worker = null;
  }

  close(): void {
    this.cancel();
    this.#worker?.terminate();
    this.#worker = null;
  }

  #running(): Worker {
    if (this.#worker !== null) return this.#worker;
    const worker = new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', (event: MessageEvent<Answer>) => {
      const { data } = event;
      if (this.#waiting?.id !== data.id) return;
      if (data.kind === 'progress') {
        this.#waiting.progress(data.part, data.finished);
        return;
      }
      const { done } = this.#waiting;
      this.#waiting = null;
      done(data);
    });
    worker.addEventListener('error', (event) => {
      this.#waiting?.fail(new Error(event.message));
      this.#waiting = null;
      this.#worker = null;
    });
    this.#worker = worker;
    return worker;
  }
}
