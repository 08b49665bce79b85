/** Longest run of names that is looked at for one that is a product without signs. */
const LONGEST_PRODUCT = 40;

/** A name as a run of known names, such as `ty` as t and y; null where it is none. */
export function splitInto(name: string, known: readonly string[]): readonly string[] | null {
  if (name.length > LONGEST_PRODUCT) return null;
  const ways: (readonly string[] | undefined)[] = [[]];
  for (let end = 1; end <= name.length; end += 1) {
    for (const last of known) {
      const before = end >= last.length && last !== '' ? ways[end - last.length] : undefined;
      if (before !== undefined && name.startsWith(last, end - last.length)) ways[end] ??= [...before, last];
    }
  }
  return ways[name.length] ?? null;
}
