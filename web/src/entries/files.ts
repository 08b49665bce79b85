import { fixed } from '@schritt/core/text';
import { plainName } from '@schritt/core/text';

/** Largest file that is read: far more than any document has. */
const LARGEST = 2_000_000;

/** A name for the file of an entry. */
export function fileName(title: string): string {
  return `${plainName(title.toLowerCase(), 'untitled', 100)}.schritt.json`;
}

/**
 * The text of a file that a person chose.
 *
 * @throws Error with a sentence, before anything is read, where it is too large
 */
export async function textOf(file: File): Promise<string> {
  if (file.size > LARGEST)
    throw new Error(
      `${file.name} has ${fixed(file.size / 1e6, 1)} megabytes; a study has less than ${LARGEST / 1e6}`,
    );
  return file.text();
}
