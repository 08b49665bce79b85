/**
 * A value that is made when it is first asked for.
 *
 * @example lazily(() => 2 + 2)() // 4
 */
export function lazily<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}
