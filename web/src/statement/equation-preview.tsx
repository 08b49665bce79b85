import { parseProblem, problemTex } from '@schritt/core/notation';
import { type ReactNode, useMemo } from 'react';
import { Tex } from '../math/tex.tsx';

/** Longest text that a list reads and sets; of a longer one it shows the first line as it is. */
const LONGEST = 1199;

/** The equations of a problem in one line. */
export function EquationPreview({ text }: { readonly text: string }): ReactNode {
  const isLong = text.length > LONGEST;
  const equations = useMemo(() => {
    if (isLong) return null;
    const reading = parseProblem(text);
    return reading.ok ? problemTex(reading.value).equations : null;
  }, [text, isLong]);
  if (isLong) return <code>{text.split('\n', 1)[0]?.slice(0, 80)} …</code>;
  if (equations === null) return <span className="wrong">a text with errors</span>;
  return <Tex tex={equations.slice(0, 2).join(',\\quad ')} />;
}
