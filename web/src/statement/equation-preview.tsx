import { problemTex } from '@schritt/core/notation';
import { type ReactNode, useMemo } from 'react';
import { hasErrors, useReading } from '../state/use-reading.ts';
import { problemReader } from '../worker/text-reader.ts';
import { Tex } from '../math/tex.tsx';

/** Longest text that a list reads and sets; of a longer one it shows the first line as it is. */
const LONGEST = 1199;

/** The equations of a problem in one line. */
export function EquationPreview({ text }: { readonly text: string }): ReactNode {
  const isLong = text.length > LONGEST;
  const { now, good } = useReading(problemReader, isLong ? '' : text);
  const equations = useMemo(() => (good === null ? null : problemTex(good).equations), [good]);
  if (isLong) return <code>{text.split('\n', 1)[0]?.slice(0, 80)} …</code>;
  if (equations === null) return hasErrors(now) ? <span className="wrong">text with errors</span> : null;
  return <Tex tex={equations.slice(0, 2).join(',\\quad ')} />;
}
