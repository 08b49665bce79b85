import { useEffect, useState, useSyncExternalStore } from 'react';
import { typesetter } from './typesetter.ts';

/** A formula as HTML. While a new one is being set, the one before stays; null where there was none yet. */
export function useTypeset(tex: string, block = false, by = typesetter): string | null {
  const html = useSyncExternalStore(by.watch, () => by.html({ tex, block }));
  const [last, setLast] = useState(html);
  if (html !== null && html !== last) setLast(html);
  useEffect(() => {
    if (html === null) by.wish({ tex, block });
  }, [html, tex, block, by]);
  return html ?? last;
}
