import useSWR, { type SWRResponse } from 'swr';
import { type DocumentOf, type Entry, type Kind, listEntries, loadEntry } from './client.ts';

/** All entries of a kind, kept fresh. */
export function useEntries<K extends Kind>(kind: K): SWRResponse<readonly Entry<DocumentOf<K>>[], Error> {
  return useSWR<readonly Entry<DocumentOf<K>>[], Error>(['entries', kind], () => listEntries(kind));
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
