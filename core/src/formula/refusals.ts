import { closingOf } from '../text/brackets.ts';
import { type Repair, spanning, writing } from '../text/place.ts';
import type { Token } from '../text/token.ts';
import type { Grammar } from './grammar.ts';
import { CONSTANTS, FUNCTIONS, functionHint, otherFunction } from './functions.ts';
import { refuseLog } from './parse-words.ts';

/** Tokens of an input that a message repeats, at most. */
const MAX_SHOWN = 12;

/** What is in the bracket that opens at a place, for a message; '...' where that is long or has no end. */
function inputsText(tokens: readonly Token[], open: number): string {
  const close = closingOf(tokens, open);
  if (close < 0 || close - open >= MAX_SHOWN) return '...';
  return tokens
    .slice(open + 1, close)
    .map(({ text }) => (text === ',' ? ', ' : text))
    .join('');
}

/** What mends a name in front of a bracket that cannot be called: the function that is meant, or a product. */
function repairsOfCall(
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
function refusedCall(token: Token, inside: string, grammar: Grammar): string {
  if (token.text === 'log') return refuseLog(inside);
  const refusal = grammar.refuseCall(token.text, inside);
  if (refusal !== null) return refusal;
  const small = token.text.toLowerCase();
  if ((small === 'f' || small === 'a') && grammar.calls(small))
    return `${token.text} is not known, but ${small} is; names are case-sensitive`;
  const product = `to multiply write ${token.text}*(${inside})`;
  if (CONSTANTS.has(token.text) || token.text.length === 1)
    return `${token.text} is not a function; ${product}`;
  return `unknown function ${token.text}${functionHint(token.text) || `; ${product}`}`;
}

/** Complains of a name in front of the bracket at `open` that cannot be called. */
export function refuseCall(token: Token, tokens: readonly Token[], open: number, grammar: Grammar): void {
  const message = refusedCall(token, inputsText(tokens, open), grammar);
  grammar.report(token.at, message, repairsOfCall(token, tokens, open, grammar));
}

/** Complains of `sin 2t`, with the input that is meant, at the place `next`: a sign, a number, a name. */
export function refuseBare(token: Token, tokens: readonly Token[], next: number, grammar: Grammar): void {
  const operand: Token[] = [];
  for (let i = next; i < next + 3; i += 1) {
    const here = tokens[i];
    const goesOn =
      (here?.text === '-' && operand.length === 0) ||
      (here?.kind === 'number' && operand.every(({ text }) => text === '-')) ||
      (here?.kind === 'name' && operand.every(({ kind }) => kind !== 'name'));
    if (here === undefined || !goesOn) break;
    operand.push(here);
  }
  const last = operand.at(-1);
  const input = operand.map(({ text }) => text).join('');
  const isWhole = last !== undefined && last.text !== '-';
  const written = isWhole ? `${token.text}(${input})` : `${token.text}(...)`;
  grammar.report(
    token.at,
    `${token.text} needs its argument in brackets: write ${written}`,
    isWhole ? writing(spanning(token.at, last.at), written) : [],
  );
}

/** Whether a name is complained of for the bracket that touches it, so that nothing else need be said of it. */
export function isRefusedCall(here: Token, after: Token | undefined, grammar: Grammar): boolean {
  const isTouching = after?.text === '(' && after.at.from === here.at.to;
  return isTouching && here.kind === 'name' && !FUNCTIONS.has(here.text) && !grammar.calls(here.text);
}
