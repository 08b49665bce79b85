import { type ComponentType, type ReactNode, useEffect } from 'react';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { copyCells } from './frame/copied-table.ts';
import { LoadingPage, MessagePage } from './frame/message-page.tsx';
import { PageBoundary } from './frame/page-boundary.tsx';
import { DesignFrame } from './theme/design-frame.tsx';

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

const router = createBrowserRouter([
  { path: '/', element: <Navigate to="/studies" replace /> },
  { path: '/studies', ...page(async () => (await import('./pages/studies-page.tsx')).StudiesPage) },
  { path: '/studies/:id', ...page(async () => (await import('./pages/study-page.tsx')).StudyPage) },
  { path: '/problems', ...page(async () => (await import('./pages/problems-page.tsx')).ProblemsPage) },
  { path: '/problems/:id', ...page(async () => (await import('./pages/problem-page.tsx')).ProblemPage) },
  { path: '/methods', ...page(async () => (await import('./pages/methods-page.tsx')).MethodsPage) },
  { path: '/methods/:id', ...page(async () => (await import('./pages/method-page.tsx')).MethodPage) },
  { path: '/marking', ...page(async () => (await import('./pages/marking-page.tsx')).MarkingPage) },
  { path: '/shown/:at', ...page(async () => (await import('./pages/shown-page.tsx')).ShownPage) },
  { path: '/open', ...page(async () => (await import('./pages/open-page.tsx')).OpenPage) },
  { path: '*', element: <MessagePage status="info" title="Page not found." /> },
]);

export function App(): ReactNode {
  useEffect(() => {
    document.addEventListener('copy', copyCells);
    return () => document.removeEventListener('copy', copyCells);
  }, []);
  return (
    <DesignFrame>
      <RouterProvider router={router} />
    </DesignFrame>
  );
}
