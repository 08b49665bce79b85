/** Values by key; of too many the one goes that was not asked for longest. */
export interface Recent<V> {
  readonly get: (key: string) => V | undefined;
  readonly has: (key: string) => boolean;
  readonly set: (key: string, value: V) => void;
}

/**
 * Keeps at most a number of values by key. A `Map` keeps its keys in the order in which they came: that is all there
 * is to it, and a page has no room for a package that could do more.
 */
export function recent<V>(most: number): Recent<V> {
  const known = new Map<string, V>();
  const touch = (key: string, value: V): void => {
    known.delete(key);
    known.set(key, value);
  };
  return {
    get: (key) => {
      const value = known.get(key);
      if (value !== undefined) touch(key, value);
      return value;
    },
    has: (key) => known.has(key),
    set: (key, value) => {
      touch(key, value);
      if (known.size <= most) return;
      const [oldest] = known.keys();
      if (oldest !== undefined) known.delete(oldest);
    },
  };
}
