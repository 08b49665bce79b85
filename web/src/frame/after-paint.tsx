import { type ReactNode, startTransition, useEffect, useState } from 'react';

/** What is made only when all around it has been painted, in a frame of its own. */
export function AfterPaint({ children }: { readonly children: ReactNode }): ReactNode {
  const [isPainted, setPainted] = useState(false);
  useEffect(() => {
    let second = 0;
    // the first frame after this effect paints what is around; the one after it is free
    const first = requestAnimationFrame(() => {
      second = requestAnimationFrame(() => startTransition(() => setPainted(true)));
    });
    return () => {
      cancelAnimationFrame(first);
      cancelAnimationFrame(second);
    };
  }, []);
  return isPainted ? children : null;
}
