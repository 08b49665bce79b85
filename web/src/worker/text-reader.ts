import { type Method, parseMethod, parseProblem, type Problem, type Reading } from '@schritt/core/notation';
import { LRUCache } from 'lru-cache';
import { Computer } from './computer.ts';

/**
 * Longest text that is read at once. Such a text is read within a few milliseconds, so that a typed digit is in the
 * numbers without a detour; longer ones, and families, which may have many elements, are read by a worker.
 */
const MAX_AT_ONCE = 1_500;
const FAMILY = /\bfor\b/;
/** Readings of texts that are kept. */
const MAX_KEPT = 300;

function isShort(text: string): boolean {
  return text.length <= MAX_AT_ONCE && !FAMILY.test(text);
}

/** The texts that have been read at a moment. */
export interface ReadTexts<T> {
  /** The reading of a text; null while the worker is at it. */
  readonly read: (text: string) => Reading<T> | null;
}

/** Reads texts of one kind: short ones at once, others by a worker, one after another. */
export class TextReader<T> {
  readonly #parse: (text: string) => Reading<T>;
  readonly #ask: (computer: Computer, text: string) => Promise<Reading<T>>;
  readonly #kept = new LRUCache<string, Reading<T>>({ max: MAX_KEPT });
  readonly #waiting = new Map<string, Promise<Reading<T>>>();
  readonly #watching = new Set<() => void>();
  #computer: Computer | null = null;
  #last: Promise<unknown> = Promise.resolve();
  #now: ReadTexts<T> = { read: (text) => this.read(text) };

  /**
   * @param parse reads a text at once
   * @param ask has a worker read it
   */
  constructor(
    parse: (text: string) => Reading<T>,
    ask: (computer: Computer, text: string) => Promise<Reading<T>>,
  ) {
    this.#parse = parse;
    this.#ask = ask;
  }

  /** What has been read so far: another object whenever a reading has come from the worker. */
  readonly now = (): ReadTexts<T> => this.#now;

  /** Calls a function whenever a reading has come, until the returned one is called. */
  readonly watch = (changed: () => void): (() => void) => {
    this.#watching.add(changed);
    return () => this.#watching.delete(changed);
  };

  /** The reading of a text; null while the worker is at it. */
  read(text: string): Reading<T> | null {
    const known = this.#kept.get(text);
    if (known !== undefined) return known;
    if (isShort(text)) {
      const reading = this.#parse(text);
      this.#kept.set(text, reading);
      return reading;
    }
    void this.whenRead(text);
    return null;
  }

  /** The reading of a text, when it is there. */
  whenRead(text: string): Promise<Reading<T>> {
    const known = this.#kept.get(text) ?? (isShort(text) ? this.read(text) : null);
    if (known !== null) return Promise.resolve(known);
    const waiting = this.#waiting.get(text);
    if (waiting !== undefined) return waiting;
    const reading = this.#last.then(() => this.#byWorker(text));
    this.#waiting.set(text, reading);
    this.#last = reading;
    return reading;
  }

  async #byWorker(text: string): Promise<Reading<T>> {
    this.#computer ??= new Computer();
    const reading = await this.#ask(this.#computer, text).catch((thrown: unknown): Reading<T> => {
      const why = thrown instanceof Error ? thrown.message : String(thrown);
      return {
        ok: false,
        errors: [{ line: 1, column: 1, length: 1, message: `this text could not be read: ${why}` }],
      };
    });
    this.#kept.set(text, reading);
    this.#waiting.delete(text);
    this.#now = { read: (asked) => this.read(asked) };
    for (const changed of this.#watching) changed();
    return reading;
  }
}

/** The readers of this page. */
export const problemReader = new TextReader<Problem>(parseProblem, (computer, text) =>
  computer.ask('readProblem', { text }),
);
export const methodReader = new TextReader<Method>(parseMethod, (computer, text) =>
  computer.ask('readMethod', { text }),
);
