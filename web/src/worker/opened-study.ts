import { openStudy, type StudyDocument } from '@schritt/core/document';
import type { Study } from '@schritt/core/study';
import { Refusal } from '@schritt/core/text';
import { LRUCache } from 'lru-cache';

/** Studies that are remembered: as many as a class has variants. */
const MAX_STUDIES = 600;

const studies = new LRUCache<string, Study>({ max: MAX_STUDIES });

/**
 * The study of a document with all texts read. One document is asked about several times, and is read once.
 *
 * @throws Refusal where a text cannot be read
 */
export function openedStudy(document: StudyDocument): Study {
  const key = JSON.stringify(document);
  const known = studies.get(key);
  if (known !== undefined) return known;
  const opened = openStudy(document);
  if (!opened.ok) throw new Refusal('text', 'a text of this study cannot be read');
  studies.set(key, opened.study);
  return opened.study;
}
