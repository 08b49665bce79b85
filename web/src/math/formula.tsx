import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import { Tex } from './tex.tsx';
import './formula.css';

/** Smallest type of a formula that does not fit, as a part of the usual one. */
const SMALLEST = 0.6;

/** How much smaller a formula is set so that it fits; 1 where it does. */
export function fitting(width: number, room: number): number {
  return width <= room || room <= 0 ? 1 : Math.max(SMALLEST, room / width);
}

/** Below this part of the usual type brackets no longer grow with what they hold, so that it can be broken. */
const BROKEN = 0.9;

/** The same formula with brackets of one size, inside of which a line may break. */
export function breakable(tex: string): string {
  return tex.replace(/\\left(?![a-z])/g, '\\bigl').replace(/\\right(?![a-z])/g, '\\bigr');
}

/** A formula in a line of its own: broken at its signs where it is too long, and set smaller where that is not enough. */
export function Formula({ tex }: { readonly tex: string }): ReactNode {
  const line = useRef<HTMLDivElement>(null);
  const [broken, setBroken] = useState<string | null>(null);
  useLayoutEffect(() => {
    const host = line.current;
    if (host === null) return undefined;
    const fit = (): void => {
      host.style.fontSize = '';
      const scale = fitting(host.scrollWidth, host.clientWidth);
      if (scale < BROKEN) setBroken(tex);
      // a part of the width does not shrink with the type, so a little less is taken
      if (scale < 1) host.style.fontSize = `${Math.max(SMALLEST, scale * 0.985) * 100}%`;
    };
    fit();
    if (typeof ResizeObserver === 'undefined') return undefined;
    const observer = new ResizeObserver(fit);
    if (host.parentElement !== null) observer.observe(host.parentElement);
    // fonts that come later are of another width
    void document.fonts.ready.then(fit);
    return () => observer.disconnect();
  }, [tex, broken]);
  return (
    <div ref={line} className="formula">
      <Tex tex={broken === tex ? breakable(tex) : tex} />
    </div>
  );
}
