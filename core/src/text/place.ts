import { Refusal, type Span } from './refusal.ts';
import { count } from './number-text.ts';
export type { Span };

/** A change of a text that mends what was told of. */
export interface Repair {
  /** Offsets in the text. */
  readonly from: number;
  readonly to: number;
  /** What to write there; '' removes it. */
  readonly text: string;
}

/** What is wrong at one place of a text, in a sentence a person can act on. */
export interface TextError {
  /** Line, counted from 1. */
  readonly line: number;
  /** Column in that line, counted from 1. */
  readonly column: number;
  /** Length in characters, at least 1. */
  readonly length: number;
  readonly message: string;
  /** Changes of the text, each of which mends it; absent where none can be made. */
  readonly repairs?: readonly Repair[];
}

/** Thrown inside the parsers, to leave a statement that cannot be read further. */
export class PlaceError extends Refusal {
  override readonly name = 'PlaceError';
  readonly at: Span;
  readonly repairs: readonly Repair[];
  constructor(at: Span, message: string, repairs: readonly Repair[] = []) {
    super('text', message, at);
    this.at = at;
    this.repairs = repairs;
  }
}

/** A repair that writes something in place of a stretch. */
export function writing(at: Span, text: string): readonly Repair[] {
  return [{ from: at.from, to: at.to, text }];
}

/** The span that reaches from the start of one to the end of another. */
export function spanning(first: Span, last: Span): Span {
  return { from: first.from, to: last.to };
}

/** Offsets of the first character of every line. */
export function lineStarts(text: string): readonly number[] {
  const starts = [0];
  for (let i = text.indexOf('\n'); i >= 0; i = text.indexOf('\n', i + 1)) starts.push(i + 1);
  return starts;
}

/** Line and column, both from 1, of an offset. */
export function placeOf(starts: readonly number[], offset: number): { line: number; column: number } {
  let low = 0;
  let high = starts.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (starts[middle]! <= offset) low = middle;
    else high = middle - 1;
  }
  return { line: low + 1, column: offset - starts[low]! + 1 };
}

/** Characters of a message, at most; it can repeat what a person typed. */
const MAX_MESSAGE = 400;

/** Most complaints about one text. */
export const MAX_COMPLAINTS = 100;

function shortened(message: string): string {
  return message.length <= MAX_MESSAGE ? message : `${message.slice(0, MAX_MESSAGE)}...`;
}

/** Collects what is wrong with one text; says each thing once, in the order of the text. */
export class Complaints {
  readonly #starts: readonly number[];
  readonly #text: string;
  readonly #found = new Map<string, TextError & { readonly from: number }>();
  readonly #mute: Span[] = [];
  #isLost = false;

  constructor(text: string) {
    this.#text = text;
    this.#starts = lineStarts(text);
  }

  get any(): boolean {
    return this.#found.size > 0;
  }

  /** Whether no more are reported: the reader may stop. */
  get full(): boolean {
    return this.#found.size >= MAX_COMPLAINTS;
  }

  add(at: Span, message: string, repairs: readonly Repair[] = []): void {
    if (this.full || this.#mute.some(({ from, to }) => at.from >= from && at.from < to)) return;
    const from = Math.max(0, Math.min(at.from, this.#text.length));
    const { line, column } = placeOf(this.#starts, from);
    const lineEnd = line < this.#starts.length ? this.#starts[line]! - 1 : this.#text.length;
    const length = Math.max(1, Math.min(at.to, lineEnd) - from);
    const key = `${from}/${message}`;
    const found = { line, column, length, message: shortened(message), from };
    if (this.#found.has(key)) return;
    // of tokens that represent one character none can be put between
    const possible = repairs.filter((repair) => repair.from <= repair.to);
    this.#found.set(key, possible.length === 0 ? found : { ...found, repairs: possible });
  }

  /** Tells one thing of a stretch, and nothing more: what else is found there follows from it. */
  only(at: Span, message: string, repairs: readonly Repair[], stretch: Span): void {
    this.add(at, message, repairs);
    this.#mute.push(stretch);
  }

  /** Notes that a statement could not be read, so that what seems to be missing may be what it gave. */
  lose(): void {
    this.#isLost = true;
  }

  /** Tells of something missing, unless a statement was lost. */
  missing(at: Span, message: string): void {
    if (!this.#isLost) this.add(at, message);
  }

  /**
   * Runs a part of parsing; a PlaceError in it becomes a complaint and the answer is null. When enough is wrong
   * already it is not run at all.
   */
  attempt<T>(work: () => T): T | null {
    if (this.full) return null;
    try {
      return work();
    } catch (thrown) {
      if (!(thrown instanceof PlaceError)) throw thrown;
      this.add(thrown.at, thrown.message, thrown.repairs);
      return null;
    }
  }

  list(): readonly TextError[] {
    return [...this.#found.values()].sort((a, b) => a.from - b.from).map(({ from: _, ...error }) => error);
  }
}

/** Either a good reading of a text or everything that is wrong with it. */
export type Reading<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly errors: readonly TextError[] };

/** Longest text that is read; beyond it the reader only says so. */
export const LONGEST_TEXT = 20_000;

/** The complaint about a text beyond LONGEST_TEXT, or null. */
export function tooLong(text: string): readonly TextError[] | null {
  if (text.length <= LONGEST_TEXT) return null;
  const complaints = new Complaints(text);
  complaints.add(
    { from: LONGEST_TEXT, to: LONGEST_TEXT + 1 },
    `this text has ${count(text.length)} characters; at most 20,000 are read`,
  );
  return complaints.list();
}
