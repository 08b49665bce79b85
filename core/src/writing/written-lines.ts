import type { Complaints, Span } from '../text/place.ts';
import { type Line, type Token, tokenize } from '../text/token.ts';
import { plainLine } from './plain-line.ts';

/** Where a stretch of a plain line stands in the line as it was typed. */
function typedAt({ from, to }: Span, at: readonly number[], start: number): Span {
  const first = at[from] ?? at.at(-1) ?? 0;
  const last = at[to] ?? at.at(-1) ?? 0;
  return { from: start + first, to: start + Math.max(first + 1, last) };
}

/** The tokens of the line that begins at `start` in a text. */
function tokensOf(text: string, start: number, end: number, complaints: Complaints): readonly Token[] {
  const isEnough = (): boolean => complaints.full;
  const plain = plainLine(text.slice(start, end));
  if (plain === null)
    return tokenize(text, start, end, (at, message) => complaints.add(at, message), isEnough);
  const typed = (at: Span): Span => typedAt(at, plain.at, start);
  const report = (at: Span, message: string): void => complaints.add(typed(at), message);
  return tokenize(plain.text, 0, plain.text.length, report, isEnough).map((token) => ({
    ...token,
    at: typed(token.at),
  }));
}

/** The statements of a line: they may be parted by `;`, and a line may end in `;` or `,`. */
function statementsOf(tokens: readonly Token[]): readonly (readonly Token[])[] {
  const isPlain = tokens.at(-1)?.kind !== 'comma' && !tokens.some(({ kind }) => kind === 'end');
  if (isPlain) return [tokens];
  const parts: Token[][] = [[]];
  for (const token of tokens)
    if (token.kind === 'end') parts.push([]);
    else parts.at(-1)?.push(token);
  return parts.map((part) => (part.at(-1)?.kind === 'comma' ? part.slice(0, -1) : part));
}

/**
 * The statements of a text that say something, as tokens. Signs of print and TeX are taken as what they mean; every token
 * has its place in the text as it was typed.
 */
export function writtenLines(text: string, complaints: Complaints): readonly Line[] {
  const lines: Line[] = [];
  let start = 0;
  for (const line of text.split('\n')) {
    for (const tokens of statementsOf(tokensOf(text, start, start + line.length, complaints))) {
      const [first] = tokens;
      const last = tokens.at(-1);
      if (first !== undefined && last !== undefined)
        lines.push({ tokens, at: { from: first.at.from, to: last.at.to } });
    }
    if (complaints.full) break;
    start += line.length + 1;
  }
  return lines;
}
