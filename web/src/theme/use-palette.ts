import { createContext, useContext, useSyncExternalStore } from 'react';
import { DARK, LIGHT, type Palette } from '@schritt/plot/palette';

const DARK_SCHEME = '(prefers-color-scheme: dark)';
const PRINT = 'print';
const REDUCED_MOTION = '(prefers-reduced-motion: reduce)';

function subscribe(changed: () => void): () => void {
  const media = [DARK_SCHEME, PRINT, REDUCED_MOTION].map((query) => window.matchMedia(query));
  for (const one of media) one.addEventListener('change', changed);
  return () => {
    for (const one of media) one.removeEventListener('change', changed);
  };
}

/** Whether the ground is dark: the system asks for it, and it is not paper. */
function isDark(): boolean {
  return window.matchMedia(DARK_SCHEME).matches && !window.matchMedia(PRINT).matches;
}

/** The palette that the system asks for. */
export function useSystemPalette(): Palette {
  const dark = useSyncExternalStore(subscribe, isDark);
  return dark ? DARK : LIGHT;
}

/** Whether the system allows things to move. */
export function useSystemMotion(): boolean {
  return useSyncExternalStore(subscribe, () => !window.matchMedia(REDUCED_MOTION).matches);
}

export const PaletteContext = createContext<Palette>(LIGHT);

/** The palette of the page. */
export function usePalette(): Palette {
  return useContext(PaletteContext);
}
