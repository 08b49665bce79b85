import { createStore, del, entries, get, set, type UseStore } from 'idb-keyval';
import type { DocumentOf, Kind } from '../api/client.ts';
import { quietly } from './browser-store.ts';
import type { UndoHistory } from './undo-history.ts';

/** A value of a history as it is stored: its document, and what tells parts of it apart from value to value. */
export interface KeptValue<D> {
  readonly document: D;
  readonly keys: readonly string[];
}

/** How values of a history become documents, and documents values again. */
export interface HistoryForm<T, D> {
  readonly write: (value: T) => KeptValue<D>;
  /**
   * A reader of stored values, where `present` is the one that is on the page as `shown`: parts with the same key are
   * the same.
   */
  readonly reader: (present: KeptValue<D>, shown: T) => (kept: KeptValue<D>) => T;
}

/** The history of a page, kept in this browser when the page is left. */
export interface HistoryKeeper<T> {
  readonly keep: (history: UndoHistory<T>) => Promise<void>;
  /** The history that ends with what is shown now; null where there is none, or the document was changed since. */
  readonly load: (shown: T) => Promise<UndoHistory<T> | null>;
}

interface KeptHistory {
  readonly at: number;
  readonly past: readonly KeptValue<unknown>[];
  readonly present: KeptValue<unknown>;
  readonly future: readonly KeptValue<unknown>[];
}

/** Values before and after the present one that are kept. */
const LONGEST = 50;
/** Documents whose histories are kept; the oldest goes first. */
const MOST = 30;

const store = (): UseStore => createStore('schritt-undo', 'histories');

function isValue(value: unknown): value is KeptValue<unknown> {
  return typeof value === 'object' && value !== null && 'document' in value && 'keys' in value;
}

function isHistory(value: unknown): value is KeptHistory {
  if (typeof value !== 'object' || value === null) return false;
  if (!('past' in value && 'present' in value && 'future' in value && 'at' in value)) return false;
  const { past, present, future } = value;
  return (
    Array.isArray(past) &&
    past.every(isValue) &&
    isValue(present) &&
    Array.isArray(future) &&
    future.every(isValue)
  );
}

/** Drops the histories of documents that were edited longest ago. */
async function prune(store: UseStore): Promise<void> {
  const all = (await entries<string, unknown>(store)).map(([key, value]) => ({
    key,
    at: isHistory(value) ? value.at : 0,
  }));
  const old = all.sort((a, b) => b.at - a.at).slice(MOST);
  await Promise.all(old.map(({ key }) => del(key, store)));
}

/** Keeps the history of one document in this browser. */
export function historyKeeper<T, K extends Kind>(
  id: string,
  kind: K,
  form: HistoryForm<T, DocumentOf<K>>,
): HistoryKeeper<T> {
  const isOfKind = (document: { readonly kind: Kind }): document is DocumentOf<K> => document.kind === kind;
  const key = `${kind}/${id}`;
  return {
    keep: ({ past, present, future }) =>
      quietly(store, undefined, async (kept) => {
        const history: KeptHistory = {
          at: Date.now(),
          past: past.slice(-LONGEST).map(form.write),
          present: form.write(present),
          future: future.slice(0, LONGEST).map(form.write),
        };
        await set(key, history, kept);
        await prune(kept);
      }),
    load: async (shown) => {
      const found = await quietly<unknown>(store, null, (kept) => get(key, kept));
      if (!isHistory(found)) return null;
      // what checks documents is loaded where there is one to check
      const { readDocument } = await import('@schritt/core/format');
      const read = ({ document, keys }: KeptValue<unknown>): readonly KeptValue<DocumentOf<K>>[] => {
        const reading = readDocument(document);
        return reading.ok && isOfKind(reading.document) ? [{ document: reading.document, keys }] : [];
      };
      const [present] = read(found.present);
      const [now] = read(form.write(shown));
      if (present === undefined || JSON.stringify(present.document) !== JSON.stringify(now?.document))
        return null;
      const reader = form.reader(present, shown);
      return {
        past: found.past.flatMap(read).map(reader),
        present: shown,
        future: found.future.flatMap(read).map(reader),
        last: null,
      };
    },
  };
}
