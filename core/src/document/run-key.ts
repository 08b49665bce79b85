import { precisionKey } from '../compile/precision.ts';
import { findInLibrary } from '../method/library/find-method.ts';
import { errorChoice } from '../study/runs/error-choice.ts';
import { presentLadder } from '../study/runs/ladder.ts';
import type { StudyDocument } from './document.ts';
import { precisionInFile, precisionOfMethod } from './document-precision.ts';
import { readMethod } from './read-method.ts';

/**
 * The version of the numbers: to be raised with every change after which some study has another digit somewhere, so
 * that runs kept by a browser or a server are not taken for those of the new program.
 */
export const NUMBERS_VERSION = 5;

/** The name behind `start with` in the text of a method, as the parser reads it; null where there is none. */
function namedStarter(text: string): string | null {
  const reading = readMethod(text);
  return reading.ok ? (reading.value.startWith?.name ?? null) : null;
}

/** The texts of the starting methods of a method. */
function starterTexts(
  { methods, start }: Pick<StudyDocument, 'methods' | 'start'>,
  text: string,
): readonly string[] {
  const found: string[] = [];
  let name = start ?? namedStarter(text);
  while (name !== null) {
    const expected = name;
    const next =
      methods.find(({ title }) => title === expected)?.text ?? findInLibrary(expected)?.text ?? null;
    if (next === null || found.includes(next)) break;
    found.push(next);
    name = namedStarter(next);
  }
  return found;
}

/**
 * All that the runs of one method of a study depend on, as a text: equal for runs that are the same to the last bit.
 * Titles, strikes and windows change none of them.
 *
 * @param method its place in the study
 * @example runKey(document, 0) === runKey({ ...document, title: 'Another' }, 0) // true
 */
export function runKey(document: StudyDocument, method: number): string {
  const { problem, methods, ladder, lastStep = 'fit', start = null } = document;
  const own = methods[method];
  const text = own?.text ?? '';
  const { at, of, scale } = errorChoice(document.error);
  return JSON.stringify([
    NUMBERS_VERSION,
    problem.text,
    text,
    starterTexts(document, text),
    start === 'exact',
    presentLadder(ladder),
    lastStep,
    [at, of, scale],
    precisionKey(own === undefined ? precisionInFile(document) : precisionOfMethod(document, own)),
  ]);
}

/**
 * The keys of all runs of a study together.
 *
 * @example studyKey(document) === studyKey({ ...document, title: 'Another' }) // true
 */
export function studyKey(document: StudyDocument): string {
  return JSON.stringify(document.methods.map((_, method) => runKey(document, method)));
}
