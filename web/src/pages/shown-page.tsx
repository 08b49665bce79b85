import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { useShown } from '../api/use-shown.ts';
import { LoadingPage } from '../frame/loading-page.tsx';
import { Message } from '../frame/message.tsx';
import { StudyEditor } from './study-editor.tsx';

/** A study that its owner shows: to look at, to step through, to change for oneself; nothing is saved. */
export function ShownPage(): ReactNode {
  const { at = '' } = useParams();
  const { data, error } = useShown(at);
  if (error !== undefined) return <Message title={`This study cannot be opened: ${error.message}.`} />;
  if (data === undefined) return <LoadingPage />;
  return <StudyEditor key={at} document={data} entry={null} />;
}
