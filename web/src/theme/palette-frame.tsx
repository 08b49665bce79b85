import type { ReactNode } from 'react';
import { PaletteContext, useSystemPalette } from './use-palette.ts';

/** Gives all that is in it the palette that the system asks for. */
export function PaletteFrame({ children }: { readonly children: ReactNode }): ReactNode {
  return <PaletteContext value={useSystemPalette()}>{children}</PaletteContext>;
}
