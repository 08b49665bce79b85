import { PlaceError } from '../text/place.ts';
import type { Token } from '../text/token.ts';
import type { Relation } from './expression.ts';
import { FUNCTIONS } from './functions.ts';

/** What to say of a token that is not allowed where it is. */
export function unexpected(token: Token): string {
  if (token.text === ')' || token.text === ']') return `unmatched ${token.text}`;
  if (token.text === '[') return 'square brackets are for an index, as in u[i]; use ( and ) in a formula';
  if (token.kind === 'comma') return 'a comma is allowed only between the arguments of a function';
  if (token.kind === 'prime') return "a prime follows a name directly, as in y'";
  if (token.text === '=') return 'a statement has only one =';
  if (token.kind === 'relation') return 'a comparison is allowed only in if(a < b, x, y) or in the interval';
  if (token.kind === 'dots') return 'two dots are allowed only in a range, as in for i = 1..n';
  return `${token.text} is not expected here; a number, a name or ( is missing before it`;
}

/** What to say where two operands are side by side. */
export function missingOperator(previous: Token, here: Token): string {
  if (previous.kind === 'name' && FUNCTIONS.has(previous.text))
    return `${previous.text} needs its argument in brackets: ${previous.text}(${here.text})`;
  const product = previous.text === ')' || here.text === '(' ? '*' : `${previous.text}*${here.text}`;
  return `an operator is missing before ${here.text}; to multiply write ${product}`;
}

/** The comparison that a token is. */
export function relationOf(token: Token): Relation {
  switch (token.text) {
    case '<':
    case '<=':
    case '>':
    case '>=':
    case '==':
    case '!=':
      return token.text;
    default:
      throw new PlaceError(token.at, 'a comparison is missing here, such as a < b');
  }
}

/** Why `log` is refused, and what to write. */
export function refuseLog(inside: string): string {
  return `log means different things in different programs; write ln(${inside}) or log10(${inside})`;
}
