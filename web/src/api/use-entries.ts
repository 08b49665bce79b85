import { LIBRARY } from '@schritt/core/notation';
import useSWR, { type SWRResponse } from 'swr';
import useSWRInfinite from 'swr/infinite';
import {
  type DocumentOf,
  type Entry,
  type EntryRow,
  type EntryRows,
  type Kind,
  LISTED,
  listEntries,
  loadEntry,
  type Collection,
} from './client.ts';
import { keepFirst } from './keep-first.ts';

/** Methods in the order of the library, one's own behind them; other kinds as they come. */
function inOrder(kind: Kind, rows: readonly EntryRow[]): readonly EntryRow[] {
  if (kind !== 'method') return rows;
  const place = ({ title }: EntryRow): number => {
    const found = LIBRARY.findIndex((method) => method.title === title);
    return found < 0 ? LIBRARY.length : found;
  };
  return [...rows].sort((a, b) => place(a) - place(b));
}

/** The list of a kind as far as it was asked for. */
export interface Listed {
  /** Null while nothing has come. */
  readonly rows: readonly EntryRow[] | null;
  readonly total: number;
  readonly error: Error | undefined;
  /** Asks for the next part; null where all is there. */
  readonly more: (() => void) | null;
  readonly again: () => Promise<unknown>;
}

/** The entries of a kind, part after part, kept fresh. */
export function useEntries(kind: Kind, collection: Collection = 'list'): Listed {
  const { data, error, setSize, mutate } = useSWRInfinite<EntryRows, Error>(
    (part: number, before: EntryRows | null) =>
      before !== null && before.entries.length < LISTED ? null : ['entries', kind, collection, part],
    ([, , , part]: readonly [string, Kind, Collection, number]) =>
      listEntries(kind, collection, part * LISTED),
    { revalidateAll: true },
  );
  const rows = data === undefined ? null : data.flatMap(({ entries }) => entries);
  const total = data?.at(-1)?.total ?? 0;
  return {
    rows: rows === null ? null : collection === 'bin' ? rows : inOrder(kind, rows),
    total,
    error,
    more: rows !== null && rows.length < total ? () => void setSize((parts) => parts + 1) : null,
    again: () => mutate(),
  };
}

function entryKey(kind: Kind, id: string): readonly [string, Kind, string] {
  return ['entry', kind, id];
}

/** Keeps an entry that was asked for before the page that shows it was there; resolves when it is kept. */
export function keepEarly<K extends Kind>(
  kind: K,
  id: string,
  entry: Promise<Entry<DocumentOf<K>>>,
): Promise<void> {
  return keepFirst(entryKey(kind, id), entry);
}

/** One entry as it was when the page opened; from then on the page's own copy counts. */
export function useEntry<K extends Kind>(kind: K, id: string): SWRResponse<Entry<DocumentOf<K>>, Error> {
  return useSWR<Entry<DocumentOf<K>>, Error>(entryKey(kind, id), () => loadEntry(kind, id), {
    revalidateOnFocus: false,
    revalidateOnReconnect: false,
    revalidateIfStale: false,
    dedupingInterval: 0,
    shouldRetryOnError: false,
  });
}
