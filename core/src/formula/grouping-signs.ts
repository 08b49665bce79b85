import { closingOf } from '../text/brackets.ts';
import type { Complaints } from '../text/place.ts';
import type { Token, TokenKind } from '../text/token.ts';
import { FUNCTIONS } from './functions.ts';

function token(text: string, kind: TokenKind, at: number): Token {
  return { text, kind, at: { from: at, to: at } };
}

/** Whether something that a factor ends with comes before a place. */
function endsFactor(previous: Token | undefined): boolean {
  if (previous === undefined) return false;
  const { kind, text } = previous;
  return kind === 'number' || kind === 'name' || kind === 'prime' || text === ')' || text === ']';
}

/** An index, as far as its form shows: `n+1`, `i`, `3`. */
const INDEX = /^(?:[i-n](?:[+-]\d+)?|\d+)$/;

/** Words in front of the ends of an interval. */
const BEFORE_INTERVAL = new Set(['in', 'on', 'from']);

/** What a square bracket does: it holds an index or the ends of an interval, a part of a formula, or a factor of h. */
type SquareUse = 'index' | 'group' | 'factor';

function useOf(tokens: readonly Token[], open: number, close: number): SquareUse {
  const [previous, bracket] = [tokens[open - 1], tokens[open]];
  if (previous === undefined || bracket === undefined) return 'group';
  if (previous.text === ']' && previous.at.to === bracket.at.from) return 'index';
  if (previous.kind !== 'name' && previous.kind !== 'prime') return 'group';
  if (BEFORE_INTERVAL.has(previous.text)) return 'index';
  if (FUNCTIONS.has(previous.text)) return 'group';
  const isTouching = previous.at.to === bracket.at.from;
  const isIndex = INDEX.test(
    tokens
      .slice(open + 1, close)
      .map(({ text }) => text)
      .join(''),
  );
  if (previous.text === 'h' && !isIndex) return isTouching ? 'factor' : 'group';
  return isTouching || isIndex ? 'index' : 'group';
}

/** Square brackets that hold a part of a formula as round ones: `h/24 [55 f_n - 59 f_{n-1}]`. */
export function withSquareGroups(tokens: readonly Token[]): readonly Token[] {
  if (!tokens.some(({ text }) => text === '[')) return tokens;
  const round = new Map<number, string>();
  const factors = new Set<number>();
  tokens.forEach(({ text }, i) => {
    const close = text === '[' ? closingOf(tokens, i) : -1;
    if (close < 0 || tokens[close]?.text !== ']') return;
    const use = useOf(tokens, i, close);
    if (use === 'index') return;
    round.set(i, '(').set(close, ')');
    if (use === 'factor') factors.add(i);
  });
  return tokens.flatMap((own, i): readonly Token[] => {
    const text = round.get(i);
    if (text === undefined) return [own];
    const bracket: Token = { ...own, text };
    return factors.has(i) ? [token('*', 'operator', own.at.from), bracket] : [bracket];
  });
}

/** One `|` that is open: how deep in brackets it is, and whether a function is applied to what it holds. */
interface OpenBar {
  readonly depth: number;
  readonly isArgument: boolean;
}

/** `|y|` as abs(y); a bar is the first of two where no factor ends before it, or where none is open. */
export function withAbsoluteValues(tokens: readonly Token[], complaints: Complaints): readonly Token[] {
  if (!tokens.some(({ kind }) => kind === 'bar')) return tokens;
  const made: Token[] = [];
  const open: OpenBar[] = [];
  let depth = 0;
  for (const own of tokens) {
    if (own.text === '(' || own.text === '[') depth += 1;
    if (own.text === ')' || own.text === ']') depth -= 1;
    if (own.kind !== 'bar') {
      made.push(own);
      continue;
    }
    const previous = made.at(-1);
    const isFunction = previous?.kind === 'name' && FUNCTIONS.has(previous.text);
    const last = open.at(-1);
    const [from, to] = [own.at.from, own.at.to];
    if (last?.depth === depth && endsFactor(previous) && !isFunction) {
      open.pop();
      made.push({ ...own, kind: 'bracket', text: ')' });
      if (last.isArgument) made.push(token(')', 'bracket', to));
      continue;
    }
    open.push({ depth, isArgument: isFunction });
    if (isFunction) made.push(token('(', 'bracket', from));
    else if (endsFactor(previous)) made.push(token('*', 'operator', from));
    made.push({ ...own, kind: 'name', text: 'abs' }, token('(', 'bracket', to));
  }
  const first = tokens.find(({ kind }) => kind === 'bar');
  if (open.length > 0 && first !== undefined)
    complaints.add(first.at, 'this | has no second one; an absolute value is written |y| or abs(y)');
  return open.length > 0 ? tokens.filter(({ kind }) => kind !== 'bar') : made;
}
