/**
 * Reads what this program has written as JSON.
 *
 * @param is whether it has the form that is expected
 * @throws Error where it has not: it was damaged, or written by another program
 */
export function readJson<T>(text: string, is: (value: unknown) => value is T): T {
  const value: unknown = JSON.parse(text);
  if (is(value)) return value;
  throw new Error('what was written does not have the expected form');
}

/** Whether a value is an object with a field of that name. */
export function hasField<K extends string>(value: unknown, name: K): value is Readonly<Record<K, unknown>> {
  return typeof value === 'object' && value !== null && name in value;
}
