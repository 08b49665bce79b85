import { useCallback, useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { changedView, readView, type View, writeView } from './view.ts';

/** Milliseconds after which a view is in the address: a drag is not written point by point. */
const PAUSE = 200;

/** The view of the page, from its address and kept there, so that a link brings it back. */
export function useView(): readonly [view: View, change: (change: Partial<View>) => void] {
  const [address, setAddress] = useSearchParams();
  const [view, setView] = useState(() => readView(address));
  const change = useCallback((more: Partial<View>) => setView((now) => changedView(now, more)), []);
  useEffect(() => {
    const wanted = writeView(view);
    if (wanted.toString() === writeView(readView(new URLSearchParams(window.location.search))).toString())
      return undefined;
    const timer = setTimeout(() => setAddress(wanted, { replace: true }), PAUSE);
    return () => clearTimeout(timer);
  }, [view, setAddress]);
  return [view, change];
}
