import { type ReactNode, startTransition, useEffect, useState } from 'react';

interface AfterPaintProps {
  /** How many parts there are. Default: one. */
  readonly parts?: number;
  /** Makes what is shown when so many of them may be. */
  readonly children: (parts: number) => ReactNode;
}

/** What is made only when all around it has been painted: each of its parts in a frame of its own. */
export function AfterPaint({ parts = 1, children }: AfterPaintProps): ReactNode {
  const [shown, setShown] = useState(0);
  useEffect(() => {
    if (shown === parts) return undefined;
    let second = 0;
    // the first frame after this effect paints what is around; the one after it is free
    const first = requestAnimationFrame(() => {
      second = requestAnimationFrame(() => startTransition(() => setShown(shown + 1)));
    });
    return () => {
      cancelAnimationFrame(first);
      cancelAnimationFrame(second);
    };
  }, [shown, parts]);
  return shown === 0 ? null : children(shown);
}
