import { HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language';
import { tokenize } from '@schritt/core/notation';
import { tags } from '@lezer/highlight';

/** Words that begin or end a statement. */
const WORDS: ReadonlySet<string> = new Set(['conserved', 'for', 'solve', 'start', 'with']);

/** The stretches of a line that have a look of their own, by the tokens of the notation itself. */
export function looksOf(line: string): readonly { readonly to: number; readonly look: string | null }[] {
  const tokens = tokenize(line, { from: 0, to: line.length }, () => undefined);
  const isStarter = tokens[0]?.text === 'start' && tokens[1]?.text === 'with';
  const looks = tokens.flatMap(({ kind, text, at }, i): { to: number; look: string | null }[] => {
    const isWord =
      kind === 'name' && WORDS.has(text) && (isStarter ? i < 2 : text !== 'start' && text !== 'with');
    const look = isWord ? 'keyword' : kind === 'number' ? 'number' : null;
    return [
      { to: at.from, look: null },
      { to: at.to, look },
    ];
  });
  const comment = line.indexOf('#');
  return comment < 0 ? looks : [...looks, { to: comment, look: null }, { to: line.length, look: 'comment' }];
}

/** The looks of the line under way, and which of them comes next: a line is read once, not once for each token. */
interface LineLooks {
  line: string;
  looks: ReturnType<typeof looksOf>;
  place: number;
}

const language = StreamLanguage.define<LineLooks>({
  startState: () => ({ line: '', looks: [], place: 0 }),
  copyState: (state) => ({ ...state }),
  token(stream, state) {
    if (stream.sol() || state.line !== stream.string)
      Object.assign(state, { line: stream.string, looks: looksOf(stream.string), place: 0 });
    while ((state.looks[state.place]?.to ?? Infinity) <= stream.pos) state.place += 1;
    const next = state.looks[state.place];
    if (next === undefined) stream.skipToEnd();
    else stream.pos = next.to;
    return next?.look ?? null;
  },
});

const style = HighlightStyle.define([
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
  { tag: tags.keyword, fontWeight: '600' },
]);

/** Comments are quiet, words of the notation strong; nothing else is coloured. */
export const notation = [language, syntaxHighlighting(style)];
