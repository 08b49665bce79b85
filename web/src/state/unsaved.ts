import type { Kind } from '../api/client.ts';
import { createStore, del, get, set, type UseStore } from 'idb-keyval';

/** Work that the server has not taken yet, as it is kept in the browser. */
export interface Unsaved {
  /** The version it was made from. */
  readonly version: number;
  /** When it was changed last, as milliseconds. */
  readonly at: number;
  readonly document: unknown;
}

function isUnsaved(value: unknown): value is Unsaved {
  return (
    typeof value === 'object' && value !== null && 'document' in value && 'version' in value && 'at' in value
  );
}

let store: UseStore | null = null;

/**
 * A browser that keeps nothing, as in a private window, is one without this: saving to the server goes on as always.
 */
async function quietly<T>(work: (store: UseStore) => Promise<T>, otherwise: T): Promise<T> {
  try {
    store ??= createStore('schritt', 'unsaved');
    return await work(store);
  } catch {
    return otherwise;
  }
}

const keyOf = (kind: Kind, id: string): string => `${kind}/${id}`;

/** Stores a draft in this browser; false where the browser refuses to. */
export function keepUnsaved(kind: Kind, id: string, unsaved: Unsaved): Promise<boolean> {
  return quietly((store) => set(keyOf(kind, id), unsaved, store).then(() => true), false);
}

export function dropUnsaved(kind: Kind, id: string): Promise<void> {
  return quietly((store) => del(keyOf(kind, id), store), undefined);
}

export async function findUnsaved(kind: Kind, id: string): Promise<Unsaved | null> {
  const found = await quietly<unknown>((store) => get(keyOf(kind, id), store), null);
  return isUnsaved(found) ? found : null;
}
