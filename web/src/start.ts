import '@fontsource/ibm-plex-sans/400.css';
import '@fontsource/ibm-plex-sans/600.css';
import '@fontsource/source-serif-4/400.css';
import '@fontsource/source-serif-4/400-italic.css';
import '@fontsource/source-serif-4/600.css';
import './theme/base.css';
import { loadEntry } from './api/client.ts';
import { computeEarly } from './worker/early-study.ts';
import { warmUp } from './worker/worker-pool.ts';

/** Workers that are made beside the page: the one that is asked for numbers. More would be parsed at its cost. */
const FIRST_WORKERS = 1;

// the page that the address asks for is fetched beside the frame, not after it
const { pathname } = window.location;
const study = /^\/studies\/([\w-]+)$/.exec(pathname)?.[1];
if (study !== undefined) {
  warmUp(FIRST_WORKERS);
  const stored = loadEntry('study', study);
  // the page reports a failure
  stored.then(({ document }) => computeEarly(document)).catch(() => undefined);
  void import('./api/use-entries.ts').then(({ keepEarly }) => keepEarly('study', study, stored));
  void import('./pages/study-page.tsx');
} else if (pathname === '/studies' || pathname === '/') void import('./pages/studies-page.tsx');
void import('./main.tsx');
