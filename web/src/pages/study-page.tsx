import { type ReactNode, Suspense } from 'react';
import { useParams } from 'react-router';
import { useEntry } from '../api/use-entries.ts';
import { LoadingPage } from '../frame/loading-page.tsx';
import { designed } from '../theme/designed.tsx';
import { StudyEditor } from './study-editor.tsx';

const Unopened = designed(async () => (await import('./unopened-study.tsx')).UnopenedStudy);

/** The address of one study: loads it, then opens its editor. */
export function StudyPage(): ReactNode {
  const { id = '' } = useParams();
  const { data, error } = useEntry('study', id);
  if (error !== undefined)
    return (
      <Suspense fallback={<LoadingPage />}>
        <Unopened id={id} error={error} />
      </Suspense>
    );
  if (data === undefined) return <LoadingPage />;
  return <StudyEditor key={id} document={data.document} entry={data} />;
}
