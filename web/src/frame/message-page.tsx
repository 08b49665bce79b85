import { Result } from 'antd';
import type { ReactNode } from 'react';
import { TopBar } from './top-bar.tsx';

export interface MessagePageProps {
  readonly title: ReactNode;
  /** Default: an error. */
  readonly status?: 'error' | 'info';
  readonly children?: ReactNode;
}

/** A page that has only something to say: what could not be opened, and what to do instead. */
export function MessagePage({ title, status = 'error', children }: MessagePageProps): ReactNode {
  return (
    <div className="page-frame">
      <TopBar />
      <main>
        <Result status={status} title={title} extra={children} />
      </main>
    </div>
  );
}
