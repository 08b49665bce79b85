import { LRUCache } from 'lru-cache';

/**
 * A memory of values that are costly to make, by key; of too many the least recently used one goes.
 *
 * @param max values that are kept
 */
export function memoize<V>(max: number): (key: string, make: () => V) => V {
  const kept = new LRUCache<string, { readonly value: V }>({ max });
  return (key, make) => {
    const known = kept.get(key);
    if (known !== undefined) return known.value;
    const value = make();
    kept.set(key, { value });
    return value;
  };
}

/** A memory of values that belong to an object, by key: they go when it goes. */
export function memoizeFor<O extends object, V>(): (owner: O, key: string | number, make: () => V) => V {
  const kept = new WeakMap<O, Map<string | number, { readonly value: V }>>();
  return (owner, key, make) => {
    const own = kept.get(owner) ?? new Map<string | number, { readonly value: V }>();
    kept.set(owner, own);
    const known = own.get(key);
    if (known !== undefined) return known.value;
    const value = make();
    own.set(key, { value });
    return value;
  };
}
