import { HighlightStyle, StreamLanguage, syntaxHighlighting } from '@codemirror/language';
import { tags } from '@lezer/highlight';

const language = StreamLanguage.define<null>({
  token(stream) {
    if (stream.match(/^#.*/)) return 'comment';
    if (stream.match(/^(conserved|for|solve|start with)\b/)) return 'keyword';
    if (stream.match(/^(\d+\.?\d*|\.\d+)(e[+-]?\d+)?/i)) return 'number';
    if (stream.match(/^[\p{L}_][\p{L}\d_]*'*/u)) return null;
    stream.next();
    return null;
  },
});

const style = HighlightStyle.define([
  { tag: tags.comment, color: 'var(--quiet)', fontStyle: 'italic' },
  { tag: tags.keyword, fontWeight: '600' },
]);

/** Comments are quiet, words of the notation strong; nothing else is coloured. */
export const notation = [language, syntaxHighlighting(style)];
