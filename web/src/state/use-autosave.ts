import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useSWRConfig } from 'swr';
import {
  ApiFailure,
  createEntry,
  type DocumentOf,
  type Entry,
  type Kind,
  readEntry,
  replaceEntry,
} from '../api/client.ts';
import { dropUnsaved, keepUnsaved } from './unsaved.ts';

/** The state of saving. */
export type SaveState<D> =
  | { readonly kind: 'saved' }
  | { readonly kind: 'saving' }
  /** It is tried again by itself; `isKept` where this browser has stored the draft. */
  | { readonly kind: 'failed'; readonly why: string; readonly isKept: boolean }
  /** It was changed elsewhere; nothing is saved until a person has chosen. `base` is what both copies were made from. */
  | { readonly kind: 'conflict'; readonly theirs: D; readonly base: D; readonly version: number }
  /** It was deleted elsewhere. */
  | { readonly kind: 'gone' }
  /** A page that is only shown: nothing of it is kept. */
  | { readonly kind: 'shown' };

export interface Autosave<D> {
  readonly state: SaveState<D>;
  /** Whether the server has all that is on the page, at this moment. */
  readonly isSaved: () => boolean;
  readonly retry: () => void;
  /** In a conflict: what a person has chosen is put on the page, and is saved from there over the other copy. */
  readonly settle: (version: number, theirs: D) => void;
  /** Where it was deleted elsewhere: stores it as a new one, and answers its id. */
  readonly saveAsNew: () => Promise<string>;
}

const WAIT = 600;
/** Milliseconds until a save that failed is tried again; doubled with every failure, up to a minute. */
const FIRST_PAUSE = 2_000;
const LONGEST_PAUSE = 60_000;

/** What a save that failed leaves: a conflict where the present entry can be read, and otherwise the reason. */
function afterFailure<K extends Kind>(
  kind: K,
  base: DocumentOf<K>,
  thrown: unknown,
  isKept: boolean,
): SaveState<DocumentOf<K>> {
  try {
    if (thrown instanceof ApiFailure && thrown.code === 'not-found') return { kind: 'gone' };
    if (thrown instanceof ApiFailure && thrown.code === 'stale-version') {
      const theirs = readEntry(thrown.current, kind);
      return { kind: 'conflict', theirs: theirs.document, base, version: theirs.version };
    }
  } catch {
    return { kind: 'failed', why: 'it was changed elsewhere, and the other copy cannot be read', isKept };
  }
  return { kind: 'failed', why: thrown instanceof Error ? thrown.message : String(thrown), isKept };
}

/** Tries a save that failed again, with growing pauses, and at once when the network is back. */
function useRetries(state: SaveState<unknown>, save: () => Promise<void>): void {
  const pause = useRef(FIRST_PAUSE);
  useEffect(() => {
    if (state.kind === 'saved') pause.current = FIRST_PAUSE;
    if (state.kind !== 'failed') return undefined;
    const timer = setTimeout(() => void save(), pause.current);
    pause.current = Math.min(LONGEST_PAUSE, 2 * pause.current);
    const back = (): void => void save();
    window.addEventListener('online', back);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('online', back);
    };
  }, [state, save]);
}

/** Asks before a page with unsaved changes is left, and saves them when it is. */
function usePageLeave(isSaved: () => boolean, save: () => Promise<void>): void {
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent): void => {
      if (!isSaved()) event.preventDefault();
    };
    const flush = (): void => void save();
    window.addEventListener('beforeunload', ask);
    window.addEventListener('pagehide', flush);
    return () => {
      window.removeEventListener('beforeunload', ask);
      window.removeEventListener('pagehide', flush);
      flush();
    };
  }, [isSaved, save]);
}

/**
 * Saves a document by itself, a moment after the last change, one request at a time. Until the server has it, it is
 * kept in the browser, too.
 *
 * @param entry what was opened; null for a page that keeps nothing
 */
export function useAutosave<K extends Kind>(
  kind: K,
  entry: Entry<DocumentOf<K>> | null,
  document: DocumentOf<K>,
): Autosave<DocumentOf<K>> {
  const [state, setState] = useState<SaveState<DocumentOf<K>>>({ kind: entry === null ? 'shown' : 'saved' });
  const { mutate } = useSWRConfig();
  const id = entry?.id ?? null;
  const version = useRef(entry?.version ?? 0);
  const saved = useRef(entry?.document ?? document);
  const wanted = useRef(document);
  const busy = useRef(false);
  const held = useRef(id === null);
  /** Whether this browser has stored the last change. */
  const draft = useRef(Promise.resolve(false));

  const saveOnce = useCallback(
    async (sent: DocumentOf<K>): Promise<boolean> => {
      if (id === null) return false;
      setState({ kind: 'saving' });
      try {
        const answer = await replaceEntry(kind, id, version.current, sent);
        version.current = answer.version;
        saved.current = sent;
        if (wanted.current === sent) void dropUnsaved(kind, id);
        await mutate(['entry', kind, id], { ...answer, document: sent }, { revalidate: false });
        return true;
      } catch (thrown) {
        const next = afterFailure(kind, saved.current, thrown, await draft.current);
        // only a choice that a person can make may hold back further saving
        held.current = next.kind === 'conflict' || next.kind === 'gone';
        setState(next);
        return false;
      }
    },
    [kind, id, mutate],
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
    if (document === saved.current || id === null) return undefined;
    setState((now) => (now.kind === 'conflict' || now.kind === 'gone' ? now : { kind: 'saving' }));
    draft.current = keepUnsaved(kind, id, { version: version.current, at: Date.now(), document });
    const timer = setTimeout(() => void save(), WAIT);
    return () => clearTimeout(timer);
  }, [document, save, kind, id]);

  useRetries(state, save);
  const isSaved = useCallback(() => id === null || wanted.current === saved.current, [id]);
  usePageLeave(isSaved, save);

  return useMemo(
    () => ({
      state,
      isSaved,
      retry: () => void save(),
      settle: (at, theirs) => {
        version.current = at;
        saved.current = theirs;
        held.current = false;
        setState({ kind: 'saving' });
      },
      saveAsNew: async () => {
        const made = await createEntry(kind, wanted.current);
        saved.current = wanted.current;
        if (id !== null) void dropUnsaved(kind, id);
        return made.id;
      },
    }),
    [state, isSaved, kind, id, save],
  );
}
