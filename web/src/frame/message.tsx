import { type ReactNode, Suspense } from 'react';
import { designed } from '../theme/designed.tsx';
import { LoadingPage } from './loading-page.tsx';
import type { MessagePageProps } from './message-page.tsx';

const fetchMessagePage = () => import('./message-page.tsx');
const Designed = designed<MessagePageProps>(async () => (await fetchMessagePage()).MessagePage);

/** Fetches what messages are shown with, as long as the server is there. */
export function prepareMessages(): void {
  void Promise.all([fetchMessagePage(), import('../theme/design-frame.tsx')]).catch(() => undefined);
}

/** A message page, for pages that are there before the library of components. */
export function Message(props: MessagePageProps): ReactNode {
  return (
    <Suspense fallback={<LoadingPage />}>
      <Designed {...props} />
    </Suspense>
  );
}
