import 'katex/dist/katex.min.css';
import './tex.css';
import { memo, type ReactNode } from 'react';
import { useTypeset } from './use-typeset.ts';

/** Set mathematics; room for a line of it while it is being set. */
export const Tex = memo(function Tex({
  tex,
  block = false,
}: {
  readonly tex: string;
  readonly block?: boolean;
}): ReactNode {
  const html = useTypeset(tex, block);
  if (html === null) return <span className="tex-to-come">{'\u00a0'}</span>;
  return <span dangerouslySetInnerHTML={{ __html: html }} />;
});
