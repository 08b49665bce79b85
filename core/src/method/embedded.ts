import type { TokenLine, Token } from '../text/token.ts';
import type { CalledNames } from './method.ts';

/** The letter of a value in a name such as `yhat`; null for any other name. */
export function letterBelowHat(name: string): string | null {
  return /^([A-Za-z])hat$/.exec(name)?.[1] ?? null;
}

/** Whether tokens say `[n+1]` from a place on. */
function isNextIndex(tokens: readonly Token[], from: number): boolean {
  const index = tokens.slice(from, from + 5).map(({ text }) => text);
  return index.join('') === '[n+1]';
}

/** The letter of the value in `yhat[n+1] = ...`; null for any other line. */
export function embeddedValue({ tokens }: TokenLine): string | null {
  const [name] = tokens;
  const isGiven = isNextIndex(tokens, 1) && tokens[6]?.text === '=';
  return name?.kind === 'name' && isGiven ? letterBelowHat(name.text) : null;
}

/** A name that a text does not hold. */
function freeName(text: string): string {
  let name = 'y_next';
  while (text.includes(name)) name += '_';
  return name;
}

/** The text of the method that goes on with the embedded formula, and what y[n+1] is called there. */
export function embeddedText(
  text: string,
  lines: readonly TokenLine[],
  { value }: CalledNames,
): { readonly text: string; readonly advanced: string } {
  const advanced = freeName(text);
  const edits = lines.flatMap((line) => {
    const { tokens } = line;
    const edit = (
      from: number,
      written: string,
    ): { readonly from: number; readonly to: number; readonly written: string } => ({
      from: tokens[from]!.at.from,
      to: tokens[from + 5]!.at.to,
      written,
    });
    const given = embeddedValue(line) === null ? [] : [edit(0, `${value}[n+1]`)];
    return [
      ...given,
      ...tokens.flatMap(({ text: own }, i) =>
        own === 'y' && isNextIndex(tokens, i + 1) ? [edit(i, advanced)] : [],
      ),
    ];
  });
  let [changed, at] = ['', 0];
  for (const { from, to, written } of edits.sort((a, b) => a.from - b.from)) {
    changed += text.slice(at, from) + written;
    at = to;
  }
  return { text: changed + text.slice(at), advanced };
}
