import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import { fitLine, whenLaidOut } from './fit-lines.ts';
import { Tex } from './tex.tsx';
import './formula.css';

/** Below this part of the usual type brackets no longer grow with what they hold, so that it can be broken. */
const BROKEN = 0.9;

/**
 * A formula in a line of its own: broken at its signs where it is too long, and set smaller where that is not enough.
 */
export function Formula({ tex }: { readonly tex: string }): ReactNode {
  const line = useRef<HTMLDivElement>(null);
  const [broken, setBroken] = useState<string | null>(null);
  useLayoutEffect(() => {
    const host = line.current;
    if (host === null) return undefined;
    const fit = (): void =>
      fitLine(host, (scale) => {
        // another face is used until its own is there, and is wider
        if (scale < BROKEN && document.fonts.status !== 'loading') setBroken(tex);
      });
    // the first call comes in the same frame, after layout: asking for widths here would lay the page out once a
    // formula
    return host.parentElement === null ? undefined : whenLaidOut(host.parentElement, fit);
  }, [tex, broken]);
  return (
    <div ref={line} className="formula">
      <Tex tex={tex} brackets={broken === tex ? 'small' : 'growing'} />
    </div>
  );
}
