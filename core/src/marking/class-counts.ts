import type { StudentMarking } from './mark-class.ts';

/** Mistakes that reproduce the rows of the same students of a class. */
export interface CountedMistakes {
  /** One mistake each; of several any may be meant. */
  readonly sentences: readonly string[];
  readonly students: readonly string[];
}

/** How a class has done. */
export interface ClassCounts {
  readonly students: number;
  readonly right: number;
  /** Students with one wrong step, after which all are right from their own rows. */
  readonly slips: number;
  /** Students with other wrong rows that no mistake explains. */
  readonly unexplained: number;
  /** Students whose rows cannot be marked. */
  readonly unmarked: number;
  /** The most frequent first. */
  readonly mistakes: readonly CountedMistakes[];
}

/**
 * Counts who is right, and which mistakes reproduce the rows of how many students.
 *
 * @example classCounts(students).mistakes[0]?.students.length // 14
 */
export function classCounts(students: readonly StudentMarking[]): ClassCounts {
  const counts = { right: 0, slips: 0, unexplained: 0, unmarked: 0 };
  const bySentence = new Map<string, string[]>();
  for (const { student, marking } of students) {
    if (marking === null) counts.unmarked += 1;
    else if (marking.firstWrong === null) counts.right += 1;
    else if (marking.mistakes.length === 0) counts[marking.slip === null ? 'unexplained' : 'slips'] += 1;
    for (const { sentence } of marking?.mistakes ?? [])
      bySentence.set(sentence, [...(bySentence.get(sentence) ?? []), student]);
  }
  const groups = new Map<string, { readonly sentences: string[]; readonly students: readonly string[] }>();
  for (const [sentence, own] of bySentence) {
    const key = own.join('\n');
    const group = groups.get(key) ?? { sentences: [], students: own };
    group.sentences.push(sentence);
    groups.set(key, group);
  }
  const mistakes = [...groups.values()].sort((a, b) => b.students.length - a.students.length);
  return { students: students.length, ...counts, mistakes };
}

/** Mistakes of one group that are named. */
const MAX_NAMED = 3;

function groupText({ sentences, students }: CountedMistakes, of: number): string {
  const named = sentences.slice(0, MAX_NAMED).join(' Or: ');
  const more = sentences.length > MAX_NAMED ? ` Or one of ${sentences.length - MAX_NAMED} more.` : '';
  return `${students.length} of ${of}: ${named}${more}`;
}

/**
 * The counts as sentences: who is right, then mistakes with how many students have rows that they reproduce.
 *
 * @param most groups of mistakes that are named
 * @example countsText({ students: 40, right: 26, slips: 0, unexplained: 0, unmarked: 0, mistakes: [] }) // ['26 of 40 are right.']
 */
export function countsText(
  { students, right, slips, unexplained, unmarked, mistakes }: ClassCounts,
  most = Infinity,
): readonly string[] {
  const shown = mistakes.slice(0, most);
  const others = mistakes.length - shown.length;
  return [
    `${right} of ${students} ${right === 1 ? 'is' : 'are'} right.`,
    ...shown.map((group) => groupText(group, students)),
    ...(others > 0 ? [`${others} more ${others === 1 ? 'mistake' : 'mistakes'}, of fewer students.`] : []),
    ...(slips > 0
      ? [`${slips} of ${students}: one wrong step; later steps are right from the student’s own rows.`]
      : []),
    ...(unexplained > 0
      ? [`${unexplained} of ${students}: wrong, and no known mistake gives these numbers.`]
      : []),
    ...(unmarked > 0 ? [`${unmarked} of ${students} cannot be marked.`] : []),
  ];
}
