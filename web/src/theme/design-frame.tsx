import { ConfigProvider } from 'antd';
import { type ReactNode, useMemo } from 'react';
import { designTheme } from './design-theme.ts';
import { PaletteFrame } from './palette-frame.tsx';
import { usePalette, useSystemMotion } from './use-palette.ts';

// made once: all components in a frame are rendered anew when one of these objects is another
const WAVE = { disabled: true };
const BUTTON = { autoInsertSpace: false };

/** Gives the components in it their look, of the palette that is there. */
export function DesignFrame({ children }: { readonly children: ReactNode }): ReactNode {
  const palette = usePalette();
  const motion = useSystemMotion();
  const theme = useMemo(() => designTheme(palette, motion), [palette, motion]);
  return (
    <ConfigProvider theme={theme} wave={WAVE} button={BUTTON}>
      {children}
    </ConfigProvider>
  );
}

// notices are shown outside of all frames
ConfigProvider.config({
  holderRender: (children) => (
    <PaletteFrame>
      <DesignFrame>{children}</DesignFrame>
    </PaletteFrame>
  ),
});
