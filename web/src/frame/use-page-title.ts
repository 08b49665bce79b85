import { useEffect } from 'react';

/** The text of a tab for what it shows. */
export function pageTitle(name: string): string {
  return name.trim() === '' ? 'Schritt' : `${name.trim()} · Schritt`;
}

/** Names the tab by what the page shows, so that several can be told apart. */
export function usePageTitle(name: string): void {
  useEffect(() => {
    document.title = pageTitle(name);
    return () => {
      document.title = 'Schritt';
    };
  }, [name]);
}
