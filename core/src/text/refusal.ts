/** What was asked for and cannot be had, by kind. */
export type RefusalCode =
  /** A text that cannot be read, at its place. */
  | 'text'
  /** A method of another form than the problem's. */
  | 'form'
  /** A multistep method has no usable starting method. */
  | 'start'
  /** A system too large for what the method needs. */
  | 'size'
  /** A step size or number of steps that is none, or too many of them. */
  | 'grid'
  /** Something of a name or number that is not there. */
  | 'missing';

/** A stretch of a text, as offsets of its first character and of the one after its last. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/**
 * What a person asked for and cannot have, with the reason as a sentence. Any other error is a fault of the program.
 *
 * @example throw new Refusal('grid', 'the step size must be a positive number, not -1')
 */
export class Refusal extends Error {
  override readonly name: string = 'Refusal';
  readonly code: RefusalCode;
  /** Where in the text it is about; null where it is about no text. */
  readonly place: Span | null;

  constructor(code: RefusalCode, sentence: string, place: Span | null = null) {
    super(sentence);
    this.code = code;
    this.place = place;
  }
}

/** What a piece of work came to, or why it was refused. */
export type Attempt<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly refusal: Refusal };

/**
 * Does a piece of work; a refusal in it becomes the answer, any other error goes on.
 *
 * @example attempt(() => layGrid(0, 1, { h: -1 })).ok // false
 */
export function attempt<T>(work: () => T): Attempt<T> {
  try {
    return { ok: true, value: work() };
  } catch (thrown) {
    if (thrown instanceof Refusal) return { ok: false, refusal: thrown };
    throw thrown;
  }
}
