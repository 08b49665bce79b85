/** A formula in TeX, cut at the numbers that are left blank. */
export type FormulaPart =
  { readonly kind: 'tex'; readonly tex: string } | { readonly kind: 'number'; readonly text: string };

/** The end of a group in braces that opens at a place. */
function closing(tex: string, open: number): number {
  let depth = 0;
  for (let i = open; i < tex.length; i += 1) {
    if (tex[i] === '{') depth += 1;
    if (tex[i] === '}') depth -= 1;
    if (depth === 0) return i + 1;
  }
  return tex.length;
}

/** Cuts a formula in TeX at its numbers; those in indices, such as n+1 and k_{2}, stay. */
export function cutAtNumbers(tex: string): readonly FormulaPart[] {
  const pieces: FormulaPart[] = [];
  let from = 0;
  let i = 0;
  const flush = (to: number): void => {
    if (to > from) pieces.push({ kind: 'tex', tex: tex.slice(from, to) });
  };
  while (i < tex.length) {
    if (tex[i] === '_') {
      i = tex[i + 1] === '{' ? closing(tex, i + 1) : i + 2;
      continue;
    }
    if (tex[i] === '\\') {
      const text = /^\\(?:text|mathrm|operatorname)\{/.exec(tex.slice(i));
      const command = /^\\(?:[A-Za-z]+|.)/.exec(tex.slice(i));
      i = text === null ? i + (command?.[0].length ?? 1) : closing(tex, i + text[0].length - 1);
      continue;
    }
    const number = /^\d+(?:\.\d+)?/.exec(tex.slice(i));
    if (number === null) {
      i += 1;
      continue;
    }
    flush(i);
    pieces.push({ kind: 'number', text: number[0] });
    i += number[0].length;
    from = i;
  }
  flush(tex.length);
  return pieces;
}

/** A formula with its numbers as something else. */
export function withNumbers(tex: string, put: (text: string) => string): string {
  return cutAtNumbers(tex)
    .map((piece) => (piece.kind === 'tex' ? piece.tex : put(piece.text)))
    .join('');
}
