import type { StudyDocument } from '@schritt/core/document';
import { loadEntry, loadShown } from '../api/client.ts';
import { computeEarly } from '../worker/early-study.ts';
import { warmUp } from '../worker/worker-pool.ts';

/** Workers that are made beside the page: the one that is asked for numbers. More would be parsed at its cost. */
const FIRST_WORKERS = 1;

/** A study that is asked for before the page that shows it is there. */
interface EarlyStudy {
  readonly document: Promise<StudyDocument>;
  /** Keeps what has come for that page, and resolves when it is kept. */
  readonly keep: () => Promise<unknown>;
  readonly loadPage: () => Promise<unknown>;
}

function storedStudy(id: string): EarlyStudy {
  const stored = loadEntry('study', id);
  return {
    document: stored.then(({ document }) => document),
    keep: async () => (await import('../api/use-entries.ts')).keepEarly('study', id, stored),
    loadPage: () => import('./study-page.tsx'),
  };
}

function shownStudy(at: string): EarlyStudy {
  const document = loadShown(at);
  return {
    document,
    keep: async () => (await import('../api/use-shown.ts')).keepEarlyShown(at, document),
    loadPage: () => import('./shown-page.tsx'),
  };
}

function studyAt(path: string): EarlyStudy | null {
  const [, kind, id = ''] = /^\/(studies|shown)\/([\w-]+)$/.exec(path) ?? [];
  if (kind === undefined) return null;
  return kind === 'studies' ? storedStudy(id) : shownStudy(id);
}

/**
 * Asks for what the page at an address shows, while that page is still being made.
 *
 * @param isFree resolves when scripts of the page may run here; what is fetched and computed elsewhere goes on before
 * @returns resolves when all that its first picture shows is here, or has failed, which the page reports
 */
export async function askEarly(path: string, isFree: Promise<void>): Promise<void> {
  const study = studyAt(path);
  if (study === null) {
    if (path === '/studies' || path === '/') void import('./studies-page.tsx');
    return;
  }
  warmUp(FIRST_WORKERS);
  await Promise.allSettled([
    study.document.then(computeEarly),
    isFree.then(study.keep),
    isFree.then(study.loadPage),
  ]);
}
