import { methodTex, parseMethod } from '@schritt/core';
import { type ReactNode, useMemo } from 'react';
import { EntryList } from '../entries/entry-list.tsx';
import { Tex } from '../math/tex.tsx';

function FormulaPreview({ text }: { readonly text: string }): ReactNode {
  const line = useMemo(() => {
    const reading = parseMethod(text);
    return reading.ok ? (methodTex(reading.value).at(-1) ?? '') : null;
  }, [text]);
  return line === null ? <span className="wrong">a text with errors</span> : <Tex tex={line} />;
}

/** All methods. */
export function MethodsPage(): ReactNode {
  return (
    <EntryList
      kind="method"
      heading="Methods"
      empty="No method yet. A method is a formula that takes y over one step of size h."
      path="/methods"
      blank={{ schritt: 1, kind: 'method', title: 'New method', text: 'k1 = f(t, y)\ny[n+1] = y + h*k1\n' }}
      newLabel="New method"
      preview={(method) => <FormulaPreview text={method.text} />}
    />
  );
}
