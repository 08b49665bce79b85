/** A memory of values that are costly to make, by key; of too many the oldest goes. */
export function memo<V>(most: number): (key: string, make: () => V) => V {
  const known = new Map<string, { readonly value: V }>();
  return (key, make) => {
    const ready = known.get(key);
    if (ready !== undefined) return ready.value;
    const value = make();
    known.set(key, { value });
    const [oldest] = known.keys();
    if (known.size > most && oldest !== undefined) known.delete(oldest);
    return value;
  };
}
