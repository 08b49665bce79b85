import { closingOf } from '../text/brackets.ts';
import { type Complaints, spanning, writing } from '../text/place.ts';
import type { Token } from '../text/token.ts';
import { CONSTANTS, FUNCTIONS } from './functions.ts';

/** Whether a name is a function of one argument. */
function isFunction(token: Token | undefined): boolean {
  return token?.kind === 'name' && FUNCTIONS.get(token.text)?.most === 1;
}

function isSign(token: Token | undefined): boolean {
  return token?.text === '-' || token?.text === '+';
}

function touches(left: Token | undefined, right: Token | undefined): boolean {
  return left !== undefined && left.at.to === right?.at.from;
}

function bracket(text: '(' | ')', at: number): Token {
  return { kind: 'bracket', text, at: { from: at, to: at } };
}

/** The place behind a factor that begins at `from`: a number, a name with its brackets, a bracket, with a power; `from` where there is none. */
function factorEnd(tokens: readonly Token[], from: number): number {
  const first = tokens[from];
  let end = from;
  if (first?.kind === 'number') end = from + 1;
  else if (first?.text === '(') end = closingOf(tokens, from) + 1;
  else if (first?.kind === 'name' && !isFunction(first)) {
    end = from + 1;
    while (tokens[end]?.kind === 'prime') end += 1;
    while (
      touches(tokens[end - 1], tokens[end]) &&
      (tokens[end]?.text === '[' || tokens[end]?.text === '(')
    ) {
      const close = closingOf(tokens, end);
      if (close < 0) break;
      end = close + 1;
    }
  }
  if (end <= from) return from;
  if (tokens[end]?.text !== '^') return end;
  const exponent = isSign(tokens[end + 1]) ? end + 2 : end + 1;
  const behind = factorEnd(tokens, exponent);
  return behind === exponent ? end : behind;
}

/** What a function without brackets is applied to: up to which token, and where the reach has two readings. */
interface Reach {
  /** Behind the last token that belongs to the argument for certain. */
  readonly end: number;
  /** Behind the last one that may belong to it; null where there is one reading. */
  readonly other: number | null;
}

/**
 * The usual reach: a sign, numbers and constants in front, one factor. `sin 2t`, `cos pi t`, `ln t^2` and `exp -t` have
 * one reading; `sin t y`, `sin t/2` and `ln 2 t` have two.
 */
function reachOf(tokens: readonly Token[], from: number): Reach | null {
  const start = isSign(tokens[from]) ? from + 1 : from;
  let end = factorEnd(tokens, start);
  if (end === start) return null;
  let isCoefficient = isNumber(tokens.slice(start, end));
  for (;;) {
    const next = factorEnd(tokens, end);
    const here = tokens[end];
    if (next === end) break;
    const isConstant = here?.kind === 'name' && CONSTANTS.has(here.text) && here.text !== 'e';
    const previous = tokens[end - 1];
    const isAfterConstant = previous?.kind === 'name' && CONSTANTS.has(previous.text);
    if (!isCoefficient || !(touches(previous, here) || isConstant || isAfterConstant))
      return { end, other: next };
    isCoefficient = isNumber(tokens.slice(end, next));
    end = next;
  }
  const sign = tokens[end];
  const isFactorBehind = (sign?.text === '*' || sign?.text === '/') && !isFunction(tokens[end + 1]);
  const other = isFactorBehind ? factorEnd(tokens, end + 1) : end;
  return { end, other: other > end + 1 ? other : null };
}

/** A number, or a constant of the notation. */
function isNumber(tokens: readonly Token[]): boolean {
  const [only] = tokens;
  return (
    tokens.length === 1 && (only?.kind === 'number' || (only?.kind === 'name' && CONSTANTS.has(only.text)))
  );
}

/** Tokens as a text: what is apart and multiplied gets its sign. */
function textOf(tokens: readonly Token[]): string {
  return tokens
    .map((own, i) => {
      const previous = tokens[i - 1];
      const isApart = previous !== undefined && !touches(previous, own);
      const isProduct =
        isApart && /^[\w)\]]/.test(own.text.replace('(', '1')) && /[\w)\]]$/.test(previous.text);
      return `${isProduct ? '*' : ''}${own.text}`;
    })
    .join('');
}

/** The power behind the name of a function, as in `sin^2 t`; '' where there is none. */
function powerOf(tokens: readonly Token[], i: number): readonly Token[] {
  const [sign, exponent] = tokens.slice(i + 1, i + 3);
  return sign?.text === '^' && exponent?.kind === 'number' && /^[2-9]$/.test(exponent.text)
    ? [sign, exponent]
    : [];
}

/**
 * Functions without brackets with their usual reach: `cos 2t + sin 3t`, `t ln t`, `sin^2 x cos y`. Where the reach has
 * two readings, both are offered.
 */
export function withBareFunctions(tokens: readonly Token[], complaints: Complaints): readonly Token[] {
  if (!tokens.some((own, i) => isFunction(own) && tokens[i + 1]?.text !== '(')) return tokens;
  const made: Token[] = [];
  for (let i = 0; i < tokens.length; i += 1) {
    const own = tokens[i];
    if (own === undefined) break;
    made.push(own);
    if (!isFunction(own)) continue;
    const power = powerOf(tokens, i);
    const from = i + 1 + power.length;
    if (power.length === 0 && tokens[from]?.text === '(') continue;
    const reach = reachOf(tokens, from);
    const last = reach === null ? undefined : tokens[reach.end - 1];
    if (reach === null || last === undefined) continue;
    const argument = tokens.slice(from, reach.end);
    if (reach.other !== null) {
      const behind = tokens.slice(reach.end, reach.other);
      const [first] = behind;
      const isSpace = first?.kind !== 'operator';
      const name = own.text;
      const powered = power.map(({ text }) => text).join('');
      const readings = [
        `${name}(${textOf(argument)})${powered}${isSpace ? '*' : ''}${textOf(behind)}`,
        `${name}(${textOf(argument)}${isSpace ? '*' : ''}${textOf(behind)})${powered}`,
      ];
      const at = spanning(own.at, behind.at(-1)?.at ?? last.at);
      complaints.add(
        at,
        `${name} without brackets is ambiguous here: write ${readings.join(' or ')}`,
        readings.flatMap((text) => writing(at, text)),
      );
    }
    const isInBrackets = argument[0]?.text === '(' && closingOf(tokens, from) === reach.end - 1;
    if (isInBrackets) made.push(...argument);
    else
      made.push(
        bracket('(', power.at(-1)?.at.to ?? own.at.to),
        ...withBareFunctions(argument, complaints),
        bracket(')', last.at.to),
      );
    made.push(...power);
    i = reach.end - 1;
  }
  return made;
}
