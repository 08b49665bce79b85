import { useCallback, useEffect, useReducer, useRef } from 'react';
import type { ExportOutcome } from './use-export.ts';

/** What can be done with a file. */
export type Delivery = 'copy' | 'download';

/**
 * Delivers a file as soon as it is made: at once where it is there, otherwise when it arrives, so that a
 * click counts however soon it follows a change. Nothing is delivered where there is a reason against it.
 */
export function useWhenMade(
  taken: ExportOutcome,
  deliver: (delivery: Delivery) => void,
): (delivery: Delivery) => void {
  const wanted = useRef<Delivery | null>(null);
  const [, renderAgain] = useReducer((times: number) => times + 1, 0);
  useEffect(() => {
    const delivery = wanted.current;
    if (delivery === null || (taken.text === null && taken.why === null)) return;
    wanted.current = null;
    if (taken.text !== null) deliver(delivery);
  });
  return useCallback((delivery) => {
    wanted.current = delivery;
    renderAgain();
  }, []);
}
