import 'katex/dist/katex.min.css';
import './tex.css';
import { memo, type ReactNode } from 'react';
import { useTypeset } from './use-typeset.ts';

/** A formula as it was set; room for a line of it while there is none. */
export function SetTex({ html }: { readonly html: string | null }): ReactNode {
  if (html === null) return <span className="tex-to-come">{'\u00a0'}</span>;
  return <span dangerouslySetInnerHTML={{ __html: html }} />;
}

/** Set mathematics. */
export const Tex = memo(function Tex({
  tex,
  block = false,
}: {
  readonly tex: string;
  readonly block?: boolean;
}): ReactNode {
  return <SetTex html={useTypeset(tex, block)} />;
});
