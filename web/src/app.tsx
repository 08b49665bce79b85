import { App as AntApp, ConfigProvider } from 'antd';
import { type ReactNode, useMemo } from 'react';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { MessagePage } from './frame/message-page.tsx';
import { MethodPage } from './pages/method-page.tsx';
import { MethodsPage } from './pages/methods-page.tsx';
import { OpenPage } from './pages/open-page.tsx';
import { ProblemPage } from './pages/problem-page.tsx';
import { ProblemsPage } from './pages/problems-page.tsx';
import { ShownPage } from './pages/shown-page.tsx';
import { StudiesPage } from './pages/studies-page.tsx';
import { StudyPage } from './pages/study-page.tsx';
import { antTheme } from './theme/ant-theme.ts';
import { PaletteContext, useSystemPalette } from './theme/use-palette.ts';

const router = createBrowserRouter([
  { path: '/', element: <Navigate to="/studies" replace /> },
  { path: '/studies', element: <StudiesPage /> },
  { path: '/studies/:id', element: <StudyPage /> },
  { path: '/problems', element: <ProblemsPage /> },
  { path: '/problems/:id', element: <ProblemPage /> },
  { path: '/methods', element: <MethodsPage /> },
  { path: '/methods/:id', element: <MethodPage /> },
  { path: '/shown/:at', element: <ShownPage /> },
  { path: '/open', element: <OpenPage /> },
  { path: '*', element: <MessagePage>There is nothing at this address.</MessagePage> },
]);

export function App(): ReactNode {
  const palette = useSystemPalette();
  const theme = useMemo(() => antTheme(palette), [palette]);
  return (
    <PaletteContext value={palette}>
      <ConfigProvider theme={theme} wave={{ disabled: true }} button={{ autoInsertSpace: false }}>
        <AntApp className="app-root">
          <RouterProvider router={router} />
        </AntApp>
      </ConfigProvider>
    </PaletteContext>
  );
}
