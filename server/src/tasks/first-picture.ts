import { pathToFileURL } from 'node:url';
import type { StudyDocument } from '@schritt/core/document';
import type { StudyResult } from '@schritt/core/study';

/** Which first picture is to be made, and by what. */
export interface PictureRequest {
  /** The address of the page. */
  readonly path: string;
  /** The file of the program that the build of the page has made for it. */
  readonly program: string;
}

/** What that program offers. */
interface PictureProgram {
  readonly firstPicture: (document: StudyDocument, result: StudyResult, path: string) => string;
}

function isProgram(loaded: unknown): loaded is PictureProgram {
  return (
    typeof loaded === 'object' &&
    loaded !== null &&
    'firstPicture' in loaded &&
    typeof loaded.firstPicture === 'function'
  );
}

/**
 * The first picture of the page of a study, made by the components of the page itself.
 *
 * @returns HTML
 * @throws Error where the program is none
 */
export async function pictured(
  document: StudyDocument,
  result: StudyResult,
  { path, program }: PictureRequest,
): Promise<string> {
  // it is part of the build of the page, which this one knows nothing of
  const loaded: unknown = await import(pathToFileURL(program).href);
  if (!isProgram(loaded)) throw new Error(`${program} does not make pictures`);
  return loaded.firstPicture(document, result, path);
}
