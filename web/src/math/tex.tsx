import 'katex/dist/katex.min.css';
import './tex.css';
import { memo, type ReactNode } from 'react';
import { type Brackets, texHtml } from './tex-html.ts';

/** Characters that are shown of a formula that is too long to be typeset. */
const SHOWN = 120;

/** Typeset mathematics; the beginning of its TeX where it is too long for that. */
export const Tex = memo(function Tex({
  tex,
  brackets = 'growing',
}: {
  readonly tex: string;
  readonly brackets?: Brackets;
}): ReactNode {
  const html = texHtml(tex, brackets);
  if (html === null)
    return <code title="This formula is too long to be typeset">{tex.slice(0, SHOWN)} …</code>;
  return <span dangerouslySetInnerHTML={{ __html: html }} />;
});
