import 'katex/dist/katex.min.css';
import katex from 'katex';
import './tex.css';
import { memo, type ReactNode } from 'react';

/** Set mathematics. KaTeX escapes what it cannot set; `trust` stays off, so no text becomes a link or HTML. */
export const Tex = memo(function Tex({
  tex,
  block = false,
}: {
  readonly tex: string;
  readonly block?: boolean;
}): ReactNode {
  const html = katex.renderToString(tex, {
    displayMode: block,
    throwOnError: false,
    output: 'htmlAndMathml',
    maxExpand: 100,
  });
  return <span dangerouslySetInnerHTML={{ __html: html }} />;
});
