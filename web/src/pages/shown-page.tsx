import type { StudyDocument } from '@schritt/core/document';
import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import useSWR from 'swr';
import { loadShown } from '../api/client.ts';
import { MessagePage } from '../frame/message-page.tsx';
import { StudyDesk } from './study-desk.tsx';

/** A study that its owner shows: to look at, to step through, to change for oneself; nothing is saved. */
export function ShownPage(): ReactNode {
  const { at = '' } = useParams();
  const { data, error } = useSWR<StudyDocument, Error>(['shown', at], () => loadShown(at), {
    revalidateOnFocus: false,
    revalidateOnReconnect: false,
    shouldRetryOnError: false,
  });
  if (error !== undefined) return <MessagePage>This study cannot be opened: {error.message}.</MessagePage>;
  if (data === undefined) return <MessagePage>Opening the study …</MessagePage>;
  return <StudyDesk key={at} document={data} entry={null} />;
}
