import type { Report } from '../text/token.ts';

/** How the parser is to take names: which ones may be called with inputs, like `f(t, y)`. */
export interface Grammar {
  /** Whether a name in front of a bracket is a call of the text's own, such as `f` of a method. */
  readonly calls: (name: string) => boolean;
  /**
   * Whether a name is whole and known, so that a space beside it multiplies: `h k1`, `lambda y`; in front of a bracket
   * only where it cannot be called.
   */
  readonly multiplies: (name: string, isBeforeBracket: boolean) => boolean;
  /** What to say of a name in front of a bracket that is neither a function nor such a call. */
  readonly refuseCall: (name: string, inputs: string) => string | null;
  /** Receives an error after which reading can continue, so that one line can show all its errors. */
  readonly report: Report;
}
