import { createContext, useContext, useSyncExternalStore } from 'react';
import { DARK, LIGHT, type Palette } from './tokens.ts';

const QUERY = '(prefers-color-scheme: dark)';

const PRINT = 'print';

function subscribe(changed: () => void): () => void {
  const media = [QUERY, PRINT].map((query) => window.matchMedia(query));
  for (const one of media) one.addEventListener('change', changed);
  return () => {
    for (const one of media) one.removeEventListener('change', changed);
  };
}

/** Whether the ground is dark: the system asks for it, and it is not paper. */
function isDark(): boolean {
  return window.matchMedia(QUERY).matches && !window.matchMedia(PRINT).matches;
}

/** The palette that the system asks for. */
export function useSystemPalette(): Palette {
  const dark = useSyncExternalStore(subscribe, isDark);
  return dark ? DARK : LIGHT;
}

export const PaletteContext = createContext<Palette>(LIGHT);

/** The palette of the page. */
export function usePalette(): Palette {
  return useContext(PaletteContext);
}
