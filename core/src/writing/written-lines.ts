import { atCommas, depths } from '../text/brackets.ts';
import { type Complaints, type Repair, type Span, writing } from '../text/place.ts';
import { type TokenLine, type Token, tokenize } from '../text/token.ts';
import { type OwnLine, ownForm, type TextKind } from './foreign/own-form.ts';
import { type PlainLine, plainLine } from './plain-line.ts';

/** Where a stretch of a plain line is in the line as it was typed. */
function typedAt({ from, to }: Span, at: readonly number[], start: number): Span {
  const first = at[from] ?? at.at(-1) ?? 0;
  const last = at[to] ?? at.at(-1) ?? 0;
  return { from: start + first, to: start + Math.max(first + 1, last) };
}

/** The tokens of the line that begins at `start` in a text. */
function tokensOf(
  text: string,
  { from: start, to: end }: Span,
  kind: TextKind,
  complaints: Complaints,
): readonly Token[] {
  const isEnough = (): boolean => complaints.full;
  const line = text.slice(start, end);
  const own = ownForm(line, kind);
  const plain = plainLine(own?.text ?? line);
  if (own === null && plain === null)
    return tokenize(
      text,
      { from: start, to: end },
      (at, message, repairs) => complaints.add(at, message, repairs),
      isEnough,
    );
  const at = placesOf(own, plain);
  const typed = (span: Span): Span => typedAt(span, at, start);
  if (own !== null && own.foreign !== null) {
    const { from, to, message, instead } = own.foreign;
    const place = { from: start + from, to: start + Math.max(to, from + 1) };
    const repair = { from: start + from, to: start + to, text: instead };
    complaints.only(place, message, [repair], { from: start, to: end + 1 });
  }
  const report = (span: Span, message: string, repairs: readonly Repair[] = []): void =>
    complaints.add(
      typed(span),
      message,
      repairs.map((repair) => ({ ...typed(repair), text: repair.text })),
    );
  const read = plain?.text ?? own?.text ?? line;
  return tokenize(read, { from: 0, to: read.length }, report, isEnough).map((token) => ({
    ...token,
    at: typed(token.at),
  }));
}

/** Where each character of what is read is in the line as it was typed. */
function placesOf(own: OwnLine | null, plain: PlainLine | null): readonly number[] {
  if (plain === null) return own?.at ?? [];
  return own === null ? plain.at : plain.at.map((place) => own.at[place] ?? own.at.at(-1) ?? 0);
}

/**
 * Whether tokens are a statement of their own: they have a sign of relation outside of brackets, or say an interval.
 */
function isStatement(tokens: readonly Token[]): boolean {
  const depth = depths(tokens);
  return (
    tokens.some(({ kind }, i) => kind === 'relation' && depth[i] === 0) ||
    tokens[1]?.text === 'in' ||
    tokens[0]?.text === 'on' ||
    tokens[1]?.text === 'from'
  );
}

/** Tokens parted at commas, where every part is a statement: `x' = y, y' = -x`. */
function statementsAtCommas(tokens: readonly Token[]): readonly (readonly Token[])[] {
  const parts = atCommas(tokens);
  return parts.length > 1 && parts.every(isStatement) ? parts : [tokens];
}

/** `f(t; y)` as f(t, y), and complains of it. */
function withCommas(tokens: readonly Token[], complaints: Complaints): readonly Token[] {
  if (!tokens.some(({ kind }) => kind === 'end')) return tokens;
  const depth = depths(tokens);
  if (depth.at(-1) !== 0) return tokens;
  return tokens.map((token, i) => {
    if (token.kind !== 'end' || depth[i] === 0) return token;
    complaints.add(token.at, 'separate the arguments of a function by commas', writing(token.at, ','));
    return { ...token, kind: 'comma', text: ',' };
  });
}

/** The statements of a line: they may be parted by `;` or `,`, and a line may end in either. */
function statementsOf(typed: readonly Token[], complaints: Complaints): readonly (readonly Token[])[] {
  if (!typed.some(({ kind }) => kind === 'end' || kind === 'comma')) return [typed];
  const tokens = withCommas(typed, complaints);
  const parts: Token[][] = [[]];
  for (const token of tokens)
    if (token.kind === 'end') parts.push([]);
    else parts.at(-1)?.push(token);
  return parts.flatMap((part) =>
    statementsAtCommas(part.at(-1)?.kind === 'comma' ? part.slice(0, -1) : part),
  );
}

/**
 * The statements of a text that say something, as tokens. Signs of print and TeX are taken as what they mean; every
 * token has its place in the text as it was typed.
 */
export function writtenLines(text: string, kind: TextKind, complaints: Complaints): readonly TokenLine[] {
  const lines: TokenLine[] = [];
  let start = 0;
  for (const line of text.split('\n')) {
    const typed = tokensOf(text, { from: start, to: start + line.length }, kind, complaints);
    for (const tokens of statementsOf(typed, complaints)) {
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
