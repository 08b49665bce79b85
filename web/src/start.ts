import '@fontsource/ibm-plex-sans/400.css';
import '@fontsource/ibm-plex-sans/600.css';
import '@fontsource/source-serif-4/400.css';
import '@fontsource/source-serif-4/400-italic.css';
import '@fontsource/source-serif-4/600.css';
import './theme/base.css';
import { warmUp } from './worker/hire.ts';

/** Workers that a study asks first: for its runs, for what they mean, and for curves. */
const FIRST_WORKERS = 3;

// the page that the address asks for is fetched beside the frame, not after it
const { pathname } = window.location;
if (/^\/studies\/./.test(pathname)) {
  warmUp(FIRST_WORKERS);
  void import('./pages/study-page.tsx');
} else if (pathname === '/studies' || pathname === '/') void import('./pages/studies-page.tsx');
void import('./main.tsx');
