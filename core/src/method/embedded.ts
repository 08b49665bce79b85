import type { TokenLine, Token } from '../text/token.ts';
import type { CalledNames } from './method.ts';

/** The letter of the value in `yhat[n+1] = ...`; null for any other line. */
export function embeddedValue({ tokens }: TokenLine): string | null {
  const [name, ...rest] = tokens;
  const isNext =
    rest
      .slice(0, 6)
      .map(({ text }) => text)
      .join('') === '[n+1]=';
  return name?.kind === 'name' && isNext ? (/^([A-Za-z])hat$/.exec(name.text)?.[1] ?? null) : null;
}

/** Whether `y[n+1]` begins at a place among tokens. */
function isNewValue(tokens: readonly Token[], i: number): boolean {
  return (
    tokens
      .slice(i, i + 6)
      .map(({ text }) => text)
      .join('') === 'y[n+1]'
  );
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
    const own = embeddedValue(line) === null ? [] : [edit(0, `${value}[n+1]`)];
    return [...own, ...tokens.flatMap((_, i) => (isNewValue(tokens, i) ? [edit(i, advanced)] : []))];
  });
  let [changed, at] = ['', 0];
  for (const { from, to, written } of edits.sort((a, b) => a.from - b.from)) {
    changed += text.slice(at, from) + written;
    at = to;
  }
  return { text: changed + text.slice(at), advanced };
}
