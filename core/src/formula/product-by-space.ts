import { writing } from '../text/place.ts';
import type { Token } from '../text/token.ts';
import type { Expression } from './expression.ts';
import { FUNCTIONS } from './functions.ts';
import type { Grammar } from './grammar.ts';

/**
 * Whether a space between two operands multiplies, as in `h k1`, `t sin(t)` and `h (k1 + k2)`; brackets do without it.
 * A name that is not known is complained of as such, and not for the sign that is missing beside it.
 *
 * @param after the token behind `here`
 */
export function multipliesBySpace(
  grammar: Grammar,
  previous: Token,
  here: Token,
  after: Token | undefined,
): boolean {
  const isTouching = previous.at.to >= here.at.from;
  if (isTouching && !(previous.text === ')' && here.text === '(')) return false;
  const isName = previous.kind === 'name' && !FUNCTIONS.has(previous.text);
  const isClosed = previous.text === ')' || previous.text === ']' || previous.kind === 'prime';
  if (here.text === '(') return isClosed || (isName && grammar.multiplies(previous.text, true));
  if (here.kind !== 'name' || !(isName || isClosed)) return false;
  if (after?.text !== '(') return !FUNCTIONS.has(here.text);
  const isCalled = FUNCTIONS.has(here.text) || grammar.calls(here.text);
  return isCalled || grammar.multiplies(here.text, after.at.from === here.at.to);
}

/** Reports `1/h k`, which may be 1/(h*k) or (1/h)*k; behind a number below, as in `h/2 k`, there is one reading. */
export function refuseTwoReadings(
  grammar: Grammar,
  left: Expression,
  [previous, here, after]: readonly [Token, Token, Token | undefined],
): void {
  if (left.kind !== 'binary' || left.operator !== '/' || left.right.kind === 'number') return;
  const isInBrackets =
    previous.text === ')' && left.at.to === previous.at.to && left.right.at.to !== previous.at.to;
  if (isInBrackets) return;
  const { at } = left;
  const whole = { from: at.from, to: here.at.to };
  const [above, below] = [left.left, left.right].map(source);
  const readings =
    above === null || below === null || above === undefined || below === undefined || after?.text === '('
      ? null
      : [`${above}/(${below}*${here.text})`, `(${above}/${below})*${here.text}`];
  grammar.report(
    here.at,
    readings === null
      ? `a product written with a space after a quotient is ambiguous; write a/(b*${here.text}) or (a/b)*${here.text}, with its signs`
      : `a product written with a space after a quotient is ambiguous: ${readings.join(' or ')}`,
    (readings ?? []).flatMap((text) => writing(whole, text)),
  );
}

/** A number or name as it is written; null for anything longer. */
function source(part: Expression): string | null {
  if (part.kind === 'number') return String(part.value);
  return part.kind === 'name' && part.primes === 0 ? part.name : null;
}
