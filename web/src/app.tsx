import { type ComponentType, type ReactNode, useEffect } from 'react';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { copyCells } from './frame/copied-table.ts';
import { LoadingPage } from './frame/loading-page.tsx';
import { Message, prepareMessages } from './frame/message.tsx';
import { PageBoundary } from './frame/page-boundary.tsx';
import { fetchDesigned } from './theme/designed.tsx';
import { PaletteFrame } from './theme/palette-frame.tsx';

/** Milliseconds after which the first page is there, and what it may need is fetched. */
const LATER = 3000;

/** A page that is fetched when it is first gone to. */
function page(load: () => Promise<ComponentType>): {
  readonly lazy: () => Promise<{ Component: ComponentType }>;
  readonly ErrorBoundary: ComponentType;
  readonly HydrateFallback: ComponentType;
} {
  return {
    lazy: async () => ({ Component: await load() }),
    ErrorBoundary: PageBoundary,
    HydrateFallback: LoadingPage,
  };
}

/** A page of components of the library. */
function designedPage(load: () => Promise<ComponentType>): ReturnType<typeof page> {
  return page(() => fetchDesigned(load));
}

const router = createBrowserRouter([
  { path: '/', element: <Navigate to="/studies" replace /> },
  { path: '/studies', ...designedPage(async () => (await import('./pages/studies-page.tsx')).StudiesPage) },
  { path: '/studies/:id', ...page(async () => (await import('./pages/study-page.tsx')).StudyPage) },
  {
    path: '/problems',
    ...designedPage(async () => (await import('./pages/problems-page.tsx')).ProblemsPage),
  },
  {
    path: '/problems/:id',
    ...designedPage(async () => (await import('./pages/problem-page.tsx')).ProblemPage),
  },
  { path: '/methods', ...designedPage(async () => (await import('./pages/methods-page.tsx')).MethodsPage) },
  { path: '/methods/:id', ...designedPage(async () => (await import('./pages/method-page.tsx')).MethodPage) },
  { path: '/marking', ...designedPage(async () => (await import('./pages/marking-page.tsx')).MarkingPage) },
  { path: '/shown/:at', ...page(async () => (await import('./pages/shown-page.tsx')).ShownPage) },
  { path: '/open', ...designedPage(async () => (await import('./pages/open-page.tsx')).OpenPage) },
  { path: '*', element: <Message status="info" title="Page not found." /> },
]);

/** Resolves when the page that the address asks for can be shown. */
export function routed(): Promise<void> {
  return new Promise((done) => {
    if (router.state.initialized) {
      done();
      return;
    }
    const stop = router.subscribe(({ initialized }) => {
      if (!initialized) return;
      stop();
      done();
    });
  });
}

export function App(): ReactNode {
  useEffect(() => {
    document.addEventListener('copy', copyCells);
    const timer = setTimeout(prepareMessages, LATER);
    return () => {
      document.removeEventListener('copy', copyCells);
      clearTimeout(timer);
    };
  }, []);
  return (
    <PaletteFrame>
      <RouterProvider router={router} />
    </PaletteFrame>
  );
}
