import type { Token } from './token.ts';

/** How deep each token lies in brackets of either kind; a bracket itself counts as outside of what it holds. */
export function depths(tokens: readonly Token[]): readonly number[] {
  let open = 0;
  return tokens.map(({ text }) => {
    if (text === ')' || text === ']') open -= 1;
    const here = open;
    if (text === '(' || text === '[') open += 1;
    return here;
  });
}

/** The place of the bracket that closes the one at `from`; -1 where none does. */
export function closingOf(tokens: readonly Token[], from: number): number {
  const all = depths(tokens.slice(from));
  const found = all.findIndex((depth, i) => i > 0 && depth <= 0);
  return found < 0 ? -1 : from + found;
}

/** Tokens parted at the commas that stand in no bracket. */
export function atCommas(tokens: readonly Token[]): readonly (readonly Token[])[] {
  const depth = depths(tokens);
  const parts: Token[][] = [[]];
  tokens.forEach((token, i) => {
    if (token.kind === 'comma' && depth[i] === 0) parts.push([]);
    else parts.at(-1)?.push(token);
  });
  return parts;
}
