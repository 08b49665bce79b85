import { mutate, preload } from 'swr';

/**
 * Keeps what was asked for before the page that shows it was there: a page that is made before it has come waits for
 * it, and one that is made later has it at once.
 *
 * @returns resolves when it has come and is kept
 */
export async function keepFirst<T>(key: readonly string[], value: Promise<T>): Promise<void> {
  void preload(key, () => value);
  await mutate(key, await value, { revalidate: false });
}
