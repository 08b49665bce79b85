import { type MouseEvent, useCallback, useState } from 'react';

/** The full number of what was clicked: the shortest decimals that are this double and no other. */
export interface FullNumber {
  readonly full: string | null;
  /** Receives the clicks of a table. */
  readonly onClick: (event: MouseEvent) => void;
}

/** Remembers the number that was clicked last. */
export function useFullNumber(): FullNumber {
  const [full, setFull] = useState<string | null>(null);
  const onClick = useCallback((event: MouseEvent) => {
    if (!(event.target instanceof Element)) return;
    const found = event.target.closest('td, th')?.querySelector('[data-full]')?.getAttribute('data-full');
    setFull(found ?? null);
  }, []);
  return { full, onClick };
}
