import { type ReactNode, Suspense } from 'react';
import { designed, fetchDesigned } from '../theme/designed.tsx';
import { LoadingPage } from './loading-page.tsx';
import type { MessagePageProps } from './message-page.tsx';

const load = async () => (await import('./message-page.tsx')).MessagePage;
const Designed = designed<MessagePageProps>(load);

/** Fetches what messages are shown with, as long as the server is there. */
export function prepareMessages(): void {
  void fetchDesigned(load).catch(() => undefined);
}

/** A message page, for pages that are there before the library of components. */
export function Message(props: MessagePageProps): ReactNode {
  return (
    <Suspense fallback={<LoadingPage />}>
      <Designed {...props} />
    </Suspense>
  );
}
