import { ConfigProvider } from 'antd';
import { type ReactNode, useMemo } from 'react';
import { antTheme } from './ant-theme.ts';
import { usePalette } from './use-palette.ts';

/** Gives what comes from the component library the look of the page. It is fetched with the first of them, not before. */
export function AntFrame({ children }: { readonly children: ReactNode }): ReactNode {
  const palette = usePalette();
  const theme = useMemo(() => antTheme(palette), [palette]);
  return (
    <ConfigProvider theme={theme} wave={{ disabled: true }} button={{ autoInsertSpace: false }}>
      {children}
    </ConfigProvider>
  );
}
