import type { StudentMarking } from './mark-class.ts';

/** A mistake of a class. */
export interface CountedMistake {
  readonly sentence: string;
  /** Students whose rows it reproduces. */
  readonly students: readonly string[];
  /** How many of them have rows that another mistake reproduces as well. */
  readonly ambiguous: number;
}

/** How a class has done. */
export interface ClassCounts {
  readonly students: number;
  readonly right: number;
  /** Students with a wrong row that no mistake explains. */
  readonly unexplained: number;
  /** Students whose rows cannot be marked. */
  readonly unmarked: number;
  /** The most frequent first; of as frequent ones that which is less often one of several. */
  readonly mistakes: readonly CountedMistake[];
}

/**
 * Counts who is right, and which mistakes reproduce the rows of how many students.
 *
 * @example classCounts(students).mistakes[0]?.students.length // 14
 */
export function classCounts(students: readonly StudentMarking[]): ClassCounts {
  const found = new Map<string, { readonly students: string[]; ambiguous: number }>();
  const counts = { right: 0, unexplained: 0, unmarked: 0 };
  for (const { student, marking } of students) {
    if (marking === null) counts.unmarked += 1;
    else if (marking.firstWrong === null) counts.right += 1;
    else if (marking.mistakes.length === 0) counts.unexplained += 1;
    for (const { sentence } of marking?.mistakes ?? []) {
      const own = found.get(sentence) ?? { students: [], ambiguous: 0 };
      own.students.push(student);
      if ((marking?.mistakes.length ?? 0) > 1) own.ambiguous += 1;
      found.set(sentence, own);
    }
  }
  const mistakes = [...found].map(([sentence, own]) => ({ sentence, ...own }));
  mistakes.sort((a, b) => b.students.length - a.students.length || a.ambiguous - b.ambiguous);
  return { students: students.length, ...counts, mistakes };
}

/**
 * The counts as sentences: who is right, then each mistake with how many students have it.
 *
 * @example countsText({ students: 40, right: 26, unexplained: 0, unmarked: 0, mistakes: [] }) // ['26 of 40 are right.']
 */
export function countsText(
  { students, right, unexplained, unmarked, mistakes }: ClassCounts,
  most = Infinity,
): readonly string[] {
  const shown = mistakes.slice(0, most);
  return [
    `${right} of ${students} ${right === 1 ? 'is' : 'are'} right.`,
    ...shown.map(
      ({ sentence, students: own, ambiguous }) =>
        `${own.length} of ${students}: ${sentence}${ambiguous === 0 ? '' : ambiguous === own.length ? ' (Other mistakes give the same numbers.)' : ` (For ${ambiguous} of them other mistakes give the same numbers.)`}`,
    ),
    ...(mistakes.length > shown.length ? [`${mistakes.length - shown.length} more mistakes.`] : []),
    ...(unexplained > 0
      ? [`${unexplained} of ${students}: wrong, and no known mistake gives these numbers.`]
      : []),
    ...(unmarked > 0 ? [`${unmarked} of ${students} cannot be marked.`] : []),
  ];
}
