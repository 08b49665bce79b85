import { type Repair, type Span, writing } from './place.ts';

export type TokenKind =
  'number' | 'name' | 'prime' | 'operator' | 'relation' | 'bracket' | 'bar' | 'comma' | 'dots' | 'end';

export interface Token {
  readonly kind: TokenKind;
  /** The canonical spelling: `≤` comes as `<=`, a typographic prime as `'`. */
  readonly text: string;
  readonly at: Span;
}

const NUMBER = /(?:\d+(?:\.(?!\.)\d*)?|\.\d+)(?:[eE][+-]?\d+)?/y;
const NAME = /[A-Za-z_\u0370-\u03ff][A-Za-z0-9_\u0370-\u03ff]*/y;
const SYMBOL = /\*\*|\.\.|<=|>=|==|!=|[-+*/^()[\]|,;<>='’′·×−≤≥≠]/y;

const SPELLINGS: ReadonlyMap<string, string> = new Map([
  ['**', '^'],
  ['’', "'"],
  ['′', "'"],
  ['·', '*'],
  ['×', '*'],
  ['−', '-'],
  ['≤', '<='],
  ['≥', '>='],
  ['≠', '!='],
]);

const KINDS: ReadonlyMap<string, TokenKind> = new Map<string, TokenKind>([
  ...['+', '-', '*', '/', '^'].map((s): [string, TokenKind] => [s, 'operator']),
  ...['<', '>', '<=', '>=', '==', '!=', '='].map((s): [string, TokenKind] => [s, 'relation']),
  ...['(', ')', '[', ']'].map((s): [string, TokenKind] => [s, 'bracket']),
  ['|', 'bar'],
  ["'", 'prime'],
  [',', 'comma'],
  ['..', 'dots'],
  [';', 'end'],
]);

const HINTS: ReadonlyMap<string, string> = new Map([
  ['{', 'curly brackets are not used; write ( and )'],
  ['}', 'curly brackets are not used; write ( and )'],
  ['"', "a prime is written ' ; for the second derivative write ''"],
  ['″', "the second derivative is written with two primes, ''"],
  ['√', 'write sqrt(...)'],
  ['!', 'a factorial is not part of the notation; write the number itself'],
  ['%', 'write mod(a, b) for a remainder'],
  ['\\', 'formulas are plain text here, not TeX'],
  ['&', 'conditions are single comparisons: nest if(..., ..., ...)'],
]);

/** Characters of a name or number, at most: messages repeat them. */
const MAX_TOKEN = 100;

function match(pattern: RegExp, text: string, from: number): string | null {
  pattern.lastIndex = from;
  return pattern.exec(text)?.[0] ?? null;
}

/** Is told of what is wrong at a place; reading goes on behind it. */
export type Report = (at: Span, message: string, repairs?: readonly Repair[]) => void;

/**
 * Splits the stretch `from`..`to` of a text into tokens; a `#` ends it. What has no meaning is reported and passed over, until that is enough.
 *
 * @example tokenize('y + h', { from: 0, to: 5 }, () => undefined).map(({ text }) => text) // ['y', '+', 'h']
 */
export function tokenize(
  text: string,
  { from, to }: Span,
  report: Report,
  isEnough: () => boolean = () => false,
): readonly Token[] {
  const tokens: Token[] = [];
  const line = text.slice(0, to);
  let at = from;
  while (at < to) {
    const character = line[at]!;
    if (character === '#') break;
    if (/\s/.test(character)) {
      at += 1;
      continue;
    }
    const number = match(NUMBER, line, at);
    const found = number ?? match(NAME, line, at) ?? match(SYMBOL, line, at);
    if (found === null) {
      const shown = String.fromCodePoint(line.codePointAt(at) ?? 0);
      const hint = HINTS.get(character);
      report(
        { from: at, to: at + shown.length },
        `the character ${shown} is not allowed in a formula${hint === undefined ? '' : `; ${hint}`}`,
      );
      at += shown.length;
      if (isEnough()) break;
      continue;
    }
    const span = { from: at, to: at + found.length };
    if (found.length > MAX_TOKEN)
      report(span, `${number === null ? 'a name' : 'a number'} has at most ${MAX_TOKEN} characters`);
    if (found === '**') report(span, 'a power is written ^, not **', writing(span, '^'));
    const canonical = SPELLINGS.get(found) ?? found;
    const kind = number !== null ? 'number' : (KINDS.get(canonical) ?? 'name');
    tokens.push({ kind, text: canonical.slice(0, MAX_TOKEN), at: span });
    at = span.to;
  }
  return tokens;
}

/** A line that says something: its tokens, and the stretch of the text from the first to the last of them. */
export interface TokenLine {
  readonly tokens: readonly Token[];
  readonly at: Span;
}
