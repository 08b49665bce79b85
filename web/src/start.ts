import '@fontsource/ibm-plex-sans/400.css';
import '@fontsource/ibm-plex-sans/600.css';
import '@fontsource/source-serif-4/400.css';
import '@fontsource/source-serif-4/400-italic.css';
import '@fontsource/source-serif-4/600.css';
import './theme/base.css';
import { askEarly } from './pages/ask-early.ts';

/** Milliseconds after which a page is started that is not painted, as one that is opened in the background. */
const UNPAINTED = 300;

/** Resolves when what is there has been painted. */
function painted(): Promise<void> {
  return new Promise((done) => {
    requestAnimationFrame(() => setTimeout(done));
    setTimeout(done, UNPAINTED);
  });
}

/** Says that there is no more than what the server has sent. */
function sayMissing(): void {
  const sentence = document.createElement('p');
  sentence.className = 'missing-page wrong';
  sentence.setAttribute('role', 'alert');
  sentence.textContent = 'This page could not be fetched from the server. Reload it.';
  document.body.append(sentence);
}

const root = document.getElementById('root');
if (root !== null) {
  const isPictured = root.hasChildNodes();
  // scripts of the page would keep the first picture of the server from being painted
  const isFree = isPictured ? painted() : Promise.resolve();
  // the page that the address asks for is fetched beside the frame, not after it
  const asked = askEarly(window.location.pathname, isFree);
  isFree
    .then(async () => {
      const { showPage } = await import('./main.tsx');
      // the picture stays until all that is in it is here
      await showPage(root, isPictured ? asked : null);
    })
    .catch(sayMissing);
}
