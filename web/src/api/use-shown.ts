import useSWR, { type SWRResponse } from 'swr';
import { type DocumentOf, loadShown } from './client.ts';
import { keepFirst } from './keep-first.ts';

function shownKey(at: string): readonly [string, string] {
  return ['shown', at];
}

/** Keeps a study that was asked for before the page that shows it was there; resolves when it is kept. */
export function keepEarlyShown(at: string, study: Promise<DocumentOf<'study'>>): Promise<void> {
  return keepFirst(shownKey(at), study);
}

/** The study behind a link, as it was when the page opened. */
export function useShown(at: string): SWRResponse<DocumentOf<'study'>, Error> {
  return useSWR<DocumentOf<'study'>, Error>(shownKey(at), () => loadShown(at), {
    revalidateOnFocus: false,
    revalidateOnReconnect: false,
    revalidateIfStale: false,
    shouldRetryOnError: false,
  });
}
