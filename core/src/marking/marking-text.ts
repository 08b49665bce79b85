import type { Marking } from './mark-column.ts';

/**
 * What is said of one student's rows besides their mistakes: cells that were not read, the first wrong row, how later ones go on.
 *
 * @example markingText(marking) // ['All 11 rows agree to 4 decimal places.']
 */
export function markingText({ sentences, table }: Pick<Marking, 'sentences' | 'table'>): readonly string[] {
  return [
    ...table.unread.map(({ line, text }) => `Line ${line}: “${text}” is not a number and was skipped.`),
    ...sentences,
  ];
}
