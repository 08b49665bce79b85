import { type ReactNode, StrictMode, useLayoutEffect } from 'react';
import { createRoot } from 'react-dom/client';
import { App, routed } from './app.tsx';

/** Milliseconds for which the first picture of the server is shown in place of the page. */
const LONGEST = 5000;

function pause(milliseconds: number): Promise<void> {
  return new Promise((done) => setTimeout(done, milliseconds));
}

/** The page; tells when it is there. */
function Page({ onThere }: { readonly onThere: () => void }): ReactNode {
  useLayoutEffect(onThere, [onThere]);
  return <App />;
}

/**
 * Shows the page.
 *
 * @param isReady where the root holds a first picture: resolves when the page can take its place without a gap
 */
export async function showPage(root: HTMLElement, isReady: Promise<void> | null): Promise<void> {
  if (isReady !== null) await Promise.race([isReady.then(routed), pause(LONGEST)]);
  // what is seen answers from then on
  const onThere = (): void => {
    root.inert = false;
  };
  createRoot(root).render(
    <StrictMode>
      <Page onThere={onThere} />
    </StrictMode>,
  );
}
