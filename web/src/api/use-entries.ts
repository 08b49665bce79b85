import { LIBRARY } from '@schritt/core/notation';
import useSWR, { type SWRResponse } from 'swr';
import { type DocumentOf, type Entry, type Kind, listEntries, loadEntry } from './client.ts';

/** Methods in the order of the library, one's own behind them; other kinds as they come. */
function inOrder<K extends Kind>(kind: K, entries: readonly Entry<DocumentOf<K>>[]): typeof entries {
  if (kind !== 'method') return entries;
  const place = ({ document }: Entry<DocumentOf<K>>): number => {
    const found = LIBRARY.findIndex(({ title }) => title === document.title);
    return found < 0 ? LIBRARY.length : found;
  };
  return [...entries].sort((a, b) => place(a) - place(b));
}

/** All entries of a kind, kept fresh. */
export function useEntries<K extends Kind>(kind: K): SWRResponse<readonly Entry<DocumentOf<K>>[], Error> {
  return useSWR<readonly Entry<DocumentOf<K>>[], Error>(['entries', kind], async () =>
    inOrder(kind, await listEntries(kind)),
  );
}

/** One entry as it was when the page opened; from then on the page's own copy counts. */
export function useEntry<K extends Kind>(kind: K, id: string): SWRResponse<Entry<DocumentOf<K>>, Error> {
  return useSWR<Entry<DocumentOf<K>>, Error>(['entry', kind, id], () => loadEntry(kind, id), {
    revalidateOnFocus: false,
    revalidateOnReconnect: false,
    revalidateIfStale: false,
    dedupingInterval: 0,
    shouldRetryOnError: false,
  });
}
