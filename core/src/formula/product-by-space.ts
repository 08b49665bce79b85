import type { Token } from '../text/token.ts';
import type { Expression } from './expression.ts';
import { FUNCTIONS } from './functions.ts';
import type { Grammar } from './grammar.ts';

/**
 * Whether a space between two operands multiplies, as in `h k1`, `t sin(t)` and `h (k1 + k2)`. A name that is not known is
 * complained of as such, and not for the sign that is missing beside it.
 *
 * @param after the token behind `here`
 */
export function multipliesBySpace(
  grammar: Grammar,
  previous: Token,
  here: Token,
  after: Token | undefined,
): boolean {
  if (previous.at.to >= here.at.from) return false;
  const isName = previous.kind === 'name' && !FUNCTIONS.has(previous.text);
  const isClosed = previous.text === ')' || previous.text === ']' || previous.kind === 'prime';
  if (here.text === '(') return isClosed || (isName && grammar.multiplies(previous.text, true));
  if (here.kind !== 'name' || !(isName || isClosed)) return false;
  if (after?.text !== '(') return !FUNCTIONS.has(here.text);
  const isCalled = FUNCTIONS.has(here.text) || grammar.calls(here.text);
  return isCalled || grammar.multiplies(here.text, after.at.from === here.at.to);
}

/** Reports `1/h k`, which may be 1/(h*k) or (1/h)*k; behind a number below, as in `h/2 k`, there is one reading. */
export function refuseTwoReadings(grammar: Grammar, left: Expression, previous: Token, here: Token): void {
  if (left.kind !== 'binary' || left.operator !== '/' || left.right.kind === 'number') return;
  const isInBrackets =
    previous.text === ')' && left.at.to === previous.at.to && left.right.at.to !== previous.at.to;
  if (isInBrackets) return;
  grammar.report(
    here.at,
    `a product by a space behind a quotient has two readings; write a/(b*${here.text}) or (a/b)*${here.text}, with its signs`,
  );
}
