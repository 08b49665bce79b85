import { LIBRARY, methodTex } from '@schritt/core/notation';
import { type ReactNode, useMemo } from 'react';
import { EntryList } from '../entries/entry-list.tsx';
import { hasErrors, useReading } from '../state/use-reading.ts';
import { methodReader } from '../worker/text-reader.ts';
import { Tex } from '../math/tex.tsx';
import './methods-page.css';

/** Longest text that a list reads and sets; of a longer one it shows the beginning as it is. */
const LONGEST = 1199;

/** The whole formula of a method, and where it comes from if it is one of the library. */
function FormulaPreview({ text }: { readonly text: string }): ReactNode {
  const { now, good } = useReading(methodReader, text.length > LONGEST ? '' : text);
  const lines = useMemo(() => (good === null ? null : methodTex(good)), [good]);
  const known = LIBRARY.find((method) => method.text === text);
  if (text.length > LONGEST) return <code>{text.split('\n', 1)[0]?.slice(0, 80)} …</code>;
  if (lines === null) return hasErrors(now) ? <span className="wrong">text with errors</span> : null;
  return (
    <span className="formula-preview">
      {lines.map((line, i) => (
        <span key={`${i}${line}`}>
          <Tex tex={line} />
        </span>
      ))}
      {known !== undefined && (
        <small className="quiet">
          order {known.order} · {known.source}
        </small>
      )}
    </span>
  );
}

/** All methods. */
export function MethodsPage(): ReactNode {
  return (
    <EntryList
      kind="method"
      heading="Methods"
      empty="No methods yet. A method is a formula that advances y by one step of size h."
      path="/methods"
      blank={{ schritt: 1, kind: 'method', title: 'New method', text: 'k1 = f(t, y)\ny[n+1] = y + h*k1\n' }}
      newLabel="New method"
      preview={(row) => <FormulaPreview text={row.excerpt} />}
    />
  );
}
