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

const closings = new WeakMap<readonly Token[], Int32Array>();

/** For every opening bracket the place of the one that closes it, of either kind; -1 where none does. */
function closingsOf(tokens: readonly Token[]): Int32Array {
  const known = closings.get(tokens);
  if (known !== undefined) return known;
  const found = new Int32Array(tokens.length).fill(-1);
  const open: number[] = [];
  tokens.forEach(({ text }, i) => {
    if (text === '(' || text === '[') open.push(i);
    if (text !== ')' && text !== ']') return;
    const from = open.pop();
    if (from !== undefined) found[from] = i;
  });
  closings.set(tokens, found);
  return found;
}

/** The place of the bracket that closes the one at `from`; -1 where none does. */
export function closingOf(tokens: readonly Token[], from: number): number {
  return closingsOf(tokens)[from] ?? -1;
}

/** Tokens parted at the commas that are in no bracket. */
export function atCommas(tokens: readonly Token[]): readonly (readonly Token[])[] {
  const depth = depths(tokens);
  const parts: Token[][] = [[]];
  tokens.forEach((token, i) => {
    if (token.kind === 'comma' && depth[i] === 0) parts.push([]);
    else parts.at(-1)?.push(token);
  });
  return parts;
}
