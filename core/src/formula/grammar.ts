import { closingOf } from '../text/brackets.ts';
import { type Repair, writing } from '../text/place.ts';
import type { Report, Token } from '../text/token.ts';
import { CONSTANTS, functionHint, otherFunction } from './functions.ts';
import { refuseLog } from './parse-words.ts';

/** How the parser is to take names: which ones may be called with inputs, like `f(t, y)`. */
export interface Grammar {
  /** Whether a name in front of a bracket is a call of the text's own, such as `f` of a method. */
  readonly calls: (name: string) => boolean;
  /**
   * Whether a name is whole and known, so that a space beside it multiplies: `h k1`, `lambda y`; in front of a bracket only
   * where it cannot be called.
   */
  readonly multiplies: (name: string, isBeforeBracket: boolean) => boolean;
  /** What to say of a name in front of a bracket that is neither a function nor such a call. */
  readonly refuseCall: (name: string, inputs: string) => string | null;
  /** Is told of a slip behind which reading can go on, so that one line can show all its errors. */
  readonly report: Report;
}

/** Tokens of an input that a message repeats, at most. */
const MOST_SHOWN = 12;

/** What stands in the bracket that opens at a place, for a message; '...' where that is long or has no end. */
export function inputsText(tokens: readonly Token[], open: number): string {
  const close = closingOf(tokens, open);
  if (close < 0 || close - open >= MOST_SHOWN) return '...';
  return tokens
    .slice(open + 1, close)
    .map(({ text }) => (text === ',' ? ', ' : text))
    .join('');
}

/** What mends a name in front of a bracket that cannot be called: the function that is meant, or a product. */
export function repairsOfCall(
  token: Token,
  tokens: readonly Token[],
  open: number,
  grammar: Grammar,
): readonly Repair[] {
  if (token.text === 'log') return ['ln', 'log10'].flatMap((text) => writing(token.at, text));
  const other = otherFunction(token.text);
  if (other !== null) return writing(token.at, other);
  const isCalled = ['f', 'a'].find((name) => name === token.text.toLowerCase() && grammar.calls(name));
  if (isCalled !== undefined) return writing(token.at, isCalled);
  const bracket = tokens[open];
  const holdsComma = inputsText(tokens, open).includes(',');
  const isName = token.text.length > 2 && !CONSTANTS.has(token.text) && !grammar.multiplies(token.text, true);
  return bracket === undefined || holdsComma || isName
    ? []
    : [{ from: token.at.to, to: bracket.at.from, text: '*' }];
}

/** What to say of a name in front of a bracket that cannot be called. */
export function refusedCall(token: Token, inside: string, grammar: Grammar): string {
  if (token.text === 'log') return refuseLog(inside);
  const refusal = grammar.refuseCall(token.text, inside);
  if (refusal !== null) return refusal;
  const small = token.text.toLowerCase();
  if ((small === 'f' || small === 'a') && grammar.calls(small))
    return `${token.text} is not known, but ${small} is; names are case-sensitive`;
  const product = `to multiply write ${token.text}*(${inside})`;
  if (CONSTANTS.has(token.text) || token.text.length === 1) return `${token.text} is no function; ${product}`;
  return `there is no function ${token.text}${functionHint(token.text) || `; ${product}`}`;
}
