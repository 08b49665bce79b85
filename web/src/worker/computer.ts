import { acquireWorker } from './worker-pool.ts';
import type { RungRun } from '@schritt/core/study';
import type { Answers, Done, Kind, Message, Questions } from './messages.ts';

/** An answer that came too late to matter: a newer question was asked. */
export class Superseded extends Error {
  override readonly name = 'Superseded';
}

interface Waiting {
  readonly id: number;
  readonly done: (message: Message) => void;
  readonly fail: (why: Error) => void;
  readonly progress: Progress;
}

/** Receives now and then which part of the work is done, and which rungs were finished since. */
export type Progress = (part: number, finished: readonly RungRun[]) => void;

function isAnswerTo<K extends Kind>(message: Message, kind: K): message is Message & Done<K> {
  return message.kind === kind;
}

/** Seconds after which a question is given up and its worker ended; files may take longer. */
export const MAX_SECONDS = 60;
const MAX_SECONDS_FOR_FILES = 180;

/** Milliseconds that a void question may still take before its worker is ended. */
const PATIENCE = 60;

/**
 * One web worker that answers one question at a time. A newer question makes the older one void. A worker that is
 * about to be done with a void one is waited for, since beginning another takes longer; one that is not is ended.
 */
export class Computer {
  #worker: Worker | null = null;
  #waiting: Waiting | null = null;
  #busy = false;
  #held: (() => void) | null = null;
  #patience: ReturnType<typeof setTimeout> | null = null;
  #watchdog: ReturnType<typeof setTimeout> | null = null;
  #ids = 0;
  #isClosed = false;

  /**
   * @throws Superseded where a newer question was asked, Error with the reason where it cannot be answered
   */
  async ask<K extends Kind>(
    kind: K,
    question: Questions[K],
    progress: Progress = () => undefined,
  ): Promise<Answers[K]> {
    if (this.#isClosed) throw new Superseded();
    const message = await this.#send({ kind, question }, progress);
    if (isAnswerTo(message, kind)) return message.answer;
    throw new Error(message.kind === 'failed' ? message.why : 'an answer to another question');
  }

  #send(content: { readonly kind: Kind; readonly question: unknown }, progress: Progress): Promise<Message> {
    this.#waiting?.fail(new Superseded());
    this.#ids += 1;
    const id = this.#ids;
    return new Promise((done, fail) => {
      this.#waiting = { id, done, fail, progress };
      const post = (): void => {
        this.#busy = true;
        this.#watch(content.kind === 'taken' ? MAX_SECONDS_FOR_FILES : MAX_SECONDS);
        this.#running().postMessage({ ...content, id });
      };
      if (!this.#busy) {
        post();
        return;
      }
      this.#held = post;
      this.#patience ??= setTimeout(() => {
        this.#end();
        this.#sendHeld();
      }, PATIENCE);
    });
  }

  #sendHeld(): void {
    if (this.#patience !== null) clearTimeout(this.#patience);
    this.#patience = null;
    const post = this.#held;
    this.#held = null;
    post?.();
  }

  /** Gives the question under way so many seconds. */
  #watch(seconds: number): void {
    this.#unwatch();
    this.#watchdog = setTimeout(() => {
      const waiting = this.#waiting;
      this.#waiting = null;
      this.#end();
      waiting?.fail(new Error(`it took longer than ${seconds} seconds and was stopped`));
      this.#sendHeld();
    }, 1000 * seconds);
  }

  #unwatch(): void {
    if (this.#watchdog !== null) clearTimeout(this.#watchdog);
    this.#watchdog = null;
  }

  /** Ends the worker, whatever it is at. */
  #end(): void {
    this.#unwatch();
    this.#worker?.terminate();
    this.#worker = null;
    this.#busy = false;
  }

  /** Gives up the question under way. */
  cancel(): void {
    this.#waiting?.fail(new Superseded());
    this.#waiting = null;
    this.#held = null;
    if (this.#busy) this.#end();
  }

  close(): void {
    this.#isClosed = true;
    this.cancel();
    this.#end();
  }

  #running(): Worker {
    if (this.#worker !== null) return this.#worker;
    const worker = acquireWorker();
    worker.addEventListener('message', (event: MessageEvent<Message>) => {
      const { data } = event;
      if (data.kind === 'progress') {
        if (this.#waiting?.id === data.id) this.#waiting.progress(data.part, data.finished);
        return;
      }
      this.#busy = false;
      this.#unwatch();
      this.#sendHeld();
      if (this.#waiting?.id !== data.id) return;
      const { done } = this.#waiting;
      this.#waiting = null;
      done(data);
    });
    worker.addEventListener('error', (event) => {
      this.#waiting?.fail(new Error(event.message));
      this.#waiting = null;
      this.#end();
    });
    this.#worker = worker;
    return worker;
  }
}
