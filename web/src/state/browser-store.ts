import type { UseStore } from 'idb-keyval';

const open = new Map<() => UseStore, UseStore>();

/**
 * Does something with a store of this browser, opened when it is needed first. A browser that keeps nothing, as in a
 * private window, is one without it: what is asked for is then `otherwise`, and all else goes on as always.
 */
export async function quietly<T>(
  store: () => UseStore,
  otherwise: T,
  work: (store: UseStore) => Promise<T>,
): Promise<T> {
  try {
    const opened = open.get(store) ?? store();
    open.set(store, opened);
    return await work(opened);
  } catch {
    return otherwise;
  }
}
