import type { ReactNode } from 'react';
import { TopBar } from './top-bar.tsx';

/** A page whose content is being fetched. */
export function LoadingPage(): ReactNode {
  return (
    <div className="page-frame">
      <TopBar />
      <main className="loading-page" aria-busy="true" aria-label="Loading">
        <p className="quiet">Loading …</p>
      </main>
    </div>
  );
}
