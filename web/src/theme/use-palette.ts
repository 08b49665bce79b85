import { createContext, useContext, useSyncExternalStore } from 'react';
import { DARK, LIGHT, type Palette } from './tokens.ts';

const QUERY = '(prefers-color-scheme: dark)';

function subscribe(changed: () => void): () => void {
  const media = window.matchMedia(QUERY);
  media.addEventListener('change', changed);
  return () => media.removeEventListener('change', changed);
}

/** The palette that the system asks for. */
export function useSystemPalette(): Palette {
  const dark = useSyncExternalStore(subscribe, () => window.matchMedia(QUERY).matches);
  return dark ? DARK : LIGHT;
}

export const PaletteContext = createContext<Palette>(LIGHT);

/** The palette of the page. */
export function usePalette(): Palette {
  return useContext(PaletteContext);
}
