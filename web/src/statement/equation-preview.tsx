import { parseProblem, problemTex } from '@schritt/core/notation';
import { type ReactNode, useMemo } from 'react';
import { Tex } from '../math/tex.tsx';

/** The equations of a problem in one line. */
export function EquationPreview({ text }: { readonly text: string }): ReactNode {
  const equations = useMemo(() => {
    const reading = parseProblem(text);
    return reading.ok ? problemTex(reading.value).equations : null;
  }, [text]);
  if (equations === null) return <span className="wrong">a text with errors</span>;
  return <Tex tex={equations.slice(0, 2).join(',\\quad ')} />;
}
