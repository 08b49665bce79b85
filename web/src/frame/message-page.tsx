import { Result, Skeleton } from 'antd';
import type { ReactNode } from 'react';
import { TopBar } from './top-bar.tsx';

/** A page that has only something to say: what could not be opened, and what to do instead. */
export function MessagePage({
  title,
  status = 'error',
  children,
}: {
  readonly title: ReactNode;
  /** Default: an error. */
  readonly status?: 'error' | 'info';
  readonly children?: ReactNode;
}): ReactNode {
  return (
    <div className="page-frame">
      <TopBar />
      <main>
        <Result status={status} title={title} extra={children} />
      </main>
    </div>
  );
}

/** A page whose content is being fetched. */
export function LoadingPage(): ReactNode {
  return (
    <div className="page-frame">
      <TopBar />
      <main className="loading-page" aria-busy="true" aria-label="Loading">
        <Skeleton active paragraph={{ rows: 8 }} />
      </main>
    </div>
  );
}
