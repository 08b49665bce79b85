import type { ReactNode } from 'react';
import { TopBar } from './top-bar.tsx';

/** A page that has only something to say: still loading, not found, not reachable. */
export function MessagePage({ children }: { readonly children: ReactNode }): ReactNode {
  return (
    <div className="page-frame">
      <TopBar />
      <main className="message-page">{children}</main>
    </div>
  );
}
