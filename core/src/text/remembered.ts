import { recent } from './recent.ts';

/** A memory of values that are costly to make, by key; of too many the one goes that was not asked for longest. */
export function remembered<V>(most: number): (key: string, make: () => V) => V {
  const known = recent<{ readonly value: V }>(most);
  return (key, make) => {
    const ready = known.get(key);
    if (ready !== undefined) return ready.value;
    const value = make();
    known.set(key, { value });
    return value;
  };
}
