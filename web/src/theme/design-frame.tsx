import { App, ConfigProvider } from 'antd';
import { type ReactNode, useMemo } from 'react';
import { designTheme } from './design-theme.ts';
import { PaletteContext, useSystemMotion, useSystemPalette } from './use-palette.ts';

/** Gives the page its palette and the components their look, light or dark as the system asks for. */
export function DesignFrame({ children }: { readonly children: ReactNode }): ReactNode {
  const palette = useSystemPalette();
  const motion = useSystemMotion();
  const theme = useMemo(() => designTheme(palette, motion), [palette, motion]);
  return (
    <PaletteContext value={palette}>
      <ConfigProvider theme={theme} wave={{ disabled: true }} button={{ autoInsertSpace: false }}>
        <App component={false}>{children}</App>
      </ConfigProvider>
    </PaletteContext>
  );
}
