import { useEffect, useState } from 'react';
import type { DocumentOf, Entry, Kind } from '../api/client.ts';
import { dropUnsaved, findUnsaved } from './unsaved.ts';

/** Work on an entry that was left in this browser before the server had it. */
export interface Left<D> {
  readonly document: D;
  readonly at: number;
  /** Puts it away for good. */
  readonly drop: () => void;
}

/** Looks once, when a page opens, for work that a crash or a lost network has left; null where there is none. */
export function useUnsaved<K extends Kind>(
  kind: K,
  entry: Entry<DocumentOf<K>> | null,
): Left<DocumentOf<K>> | null {
  const [left, setLeft] = useState<{ readonly document: DocumentOf<K>; readonly at: number } | null>(null);
  const id = entry?.id ?? null;
  const [stored] = useState(() => JSON.stringify(entry?.document ?? null));
  useEffect(() => {
    if (id === null) return undefined;
    const leave = new AbortController();
    void findUnsaved(kind, id).then(async (found) => {
      if (found === null) return;
      // what checks documents is loaded where there is one to check
      const { readDocument } = await import('@schritt/core/format');
      if (leave.signal.aborted) return;
      const reading = readDocument(found.document);
      const fits = (document: { readonly kind: Kind }): document is DocumentOf<K> => document.kind === kind;
      if (!reading.ok || !fits(reading.document) || JSON.stringify(reading.document) === stored) {
        void dropUnsaved(kind, id);
        return;
      }
      setLeft({ document: reading.document, at: found.at });
    });
    return () => {
      leave.abort();
    };
  }, [kind, id, stored]);
  if (left === null || id === null) return null;
  return {
    ...left,
    drop: () => {
      void dropUnsaved(kind, id);
      setLeft(null);
    },
  };
}
