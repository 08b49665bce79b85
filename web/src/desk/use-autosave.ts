import { useCallback, useEffect, useRef, useState } from 'react';
import { useSWRConfig } from 'swr';
import {
  ApiFailure,
  type DocumentOf,
  type Entry,
  type Kind,
  readEntry,
  replaceEntry,
} from '../api/client.ts';

/** Where the saving of a page stands. */
export type SaveState<D> =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly why: string }
  /** It was changed elsewhere; nothing is saved until a person has chosen. */
  | { readonly kind: 'conflict'; readonly theirs: D; readonly version: number };

export interface Autosave<D> {
  readonly state: SaveState<D>;
  readonly retry: () => void;
  /** In a conflict: saves this page's copy over the other one. */
  readonly keepMine: () => void;
  /** In a conflict: the other copy was taken over; go on from its version. */
  readonly tookTheirs: (version: number, document: D) => void;
}

const WAIT = 600;

/** What a save that failed leaves: a conflict where the present entry can be read, and otherwise the reason. */
function afterFailure<K extends Kind>(kind: K, thrown: unknown): SaveState<DocumentOf<K>> {
  try {
    if (thrown instanceof ApiFailure && thrown.code === 'stale-version') {
      const theirs = readEntry(thrown.current, kind);
      return { kind: 'conflict', theirs: theirs.document, version: theirs.version };
    }
  } catch {
    return { kind: 'failed', why: 'it was changed elsewhere, and the other copy cannot be read' };
  }
  return { kind: 'failed', why: thrown instanceof Error ? thrown.message : String(thrown) };
}

/** Saves a document by itself, a moment after the last change, one request at a time. */
export function useAutosave<K extends Kind>(
  kind: K,
  entry: Entry<DocumentOf<K>>,
  document: DocumentOf<K>,
): Autosave<DocumentOf<K>> {
  const [state, setState] = useState<SaveState<DocumentOf<K>>>({ kind: 'saved' });
  const { mutate } = useSWRConfig();
  const version = useRef(entry.version);
  const saved = useRef(entry.document);
  const wanted = useRef(document);
  const busy = useRef(false);
  const held = useRef(false);

  const saveOnce = useCallback(
    async (sent: DocumentOf<K>): Promise<boolean> => {
      setState({ kind: 'saving' });
      try {
        const answer = await replaceEntry(kind, entry.id, version.current, sent);
        version.current = answer.version;
        saved.current = sent;
        await mutate(['entry', kind, entry.id], { ...answer, document: sent }, { revalidate: false });
        await mutate(['entries', kind]);
        return true;
      } catch (thrown) {
        const next = afterFailure(kind, thrown);
        // only a choice that a person can make may hold back further saving
        held.current = next.kind === 'conflict';
        setState(next);
        return false;
      }
    },
    [kind, entry.id, mutate],
  );

  const save = useCallback(async (): Promise<void> => {
    if (busy.current || held.current) return;
    busy.current = true;
    let good = true;
    while (good && wanted.current !== saved.current) good = await saveOnce(wanted.current);
    busy.current = false;
    if (good) setState({ kind: 'saved' });
  }, [saveOnce]);

  useEffect(() => {
    wanted.current = document;
    if (document === saved.current) return undefined;
    setState((now) => (now.kind === 'conflict' ? now : { kind: 'saving' }));
    const timer = setTimeout(() => void save(), WAIT);
    return () => clearTimeout(timer);
  }, [document, save]);

  useEffect(() => {
    const flush = (): void => void save();
    window.addEventListener('pagehide', flush);
    return () => {
      window.removeEventListener('pagehide', flush);
      flush();
    };
  }, [save]);

  const resume = useCallback(
    (at: number) => {
      version.current = at;
      held.current = false;
      void save();
    },
    [save],
  );

  return {
    state,
    retry: () => void save(),
    keepMine: () => {
      if (state.kind === 'conflict') resume(state.version);
    },
    tookTheirs: (at, theirs) => {
      saved.current = theirs;
      wanted.current = theirs;
      setState({ kind: 'saved' });
      resume(at);
    },
  };
}
