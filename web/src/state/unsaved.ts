import type { Kind } from '../api/client.ts';
import { createStore, del, get, set, type UseStore } from 'idb-keyval';
import { quietly } from './browser-store.ts';

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

const store = (): UseStore => createStore('schritt', 'unsaved');

const keyOf = (kind: Kind, id: string): string => `${kind}/${id}`;

/** Stores a draft in this browser; false where the browser refuses to. */
export function keepUnsaved(kind: Kind, id: string, unsaved: Unsaved): Promise<boolean> {
  return quietly(store, false, (kept) => set(keyOf(kind, id), unsaved, kept).then(() => true));
}

export function dropUnsaved(kind: Kind, id: string): Promise<void> {
  return quietly(store, undefined, (kept) => del(keyOf(kind, id), kept));
}

export async function findUnsaved(kind: Kind, id: string): Promise<Unsaved | null> {
  const found = await quietly<unknown>(store, null, (kept) => get(keyOf(kind, id), kept));
  return isUnsaved(found) ? found : null;
}
