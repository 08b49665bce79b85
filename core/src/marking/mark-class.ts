import { attempt, Refusal } from '../text/refusal.ts';
import { agreementOf, type Marking, type MarkRequest, markTable } from './mark-column.ts';
import { AS_FOUND } from './student-rows.ts';
import { readSubmitted, type Submission, submissionsOf } from './submission.ts';

/** The rows of one student of a class, marked; or why they cannot be. */
export interface StudentMarking {
  readonly student: string;
  /** The sheet whose key they are compared with, from 1; null where all have the same. */
  readonly sheet: number | null;
  readonly marking: Marking | null;
  /** Null where they are marked. */
  readonly why: string | null;
}

/**
 * The number of a sheet in the name of a student or file.
 *
 * @example sheetIn('Anna, sheet 3') // 3
 */
export function sheetIn(name: string): number | null {
  const [, number] = /(?:(?:^|[^a-z])(?:sheet|variant|no\.?)|#)[\s_-]*(\d{1,3})(?!\d)/i.exec(name) ?? [];
  return number === undefined ? null : Number(number);
}

/** The sheet with whose key most rows agree, from 1. */
function sheetByRows(keys: readonly MarkRequest[], submission: Submission): number {
  const scores = keys.map((key) => {
    const own = attempt(() => agreementOf(key, submission));
    return own.ok ? own.value.near : 0;
  });
  const best = Math.max(...scores);
  const at = scores.flatMap((score, i) => (score === best ? [i] : []));
  const texts = new Set(at.map((i) => keys[i]?.study.problem.text));
  if (best === 0) throw new Refusal('missing', 'no sheet is named, and the rows agree with no key');
  if (texts.size > 1)
    throw new Refusal(
      'missing',
      `no sheet is named, and the rows agree as well with the keys of sheets ${at.map((i) => i + 1).join(', ')}`,
    );
  return (at[0] ?? 0) + 1;
}

/**
 * Marks what one student has handed in. Of several keys, one a sheet, that of the sheet in the student's name is taken, or the
 * one with which most rows agree.
 *
 * @param keys one, or one a sheet
 * @param sheet the sheet as a person has set it, from 1; null to find it
 * @example markSubmission([request], submission, null).marking?.firstWrong // null
 */
export function markSubmission(
  keys: readonly MarkRequest[],
  submission: Submission,
  sheet: number | null,
): StudentMarking {
  const { student } = submission;
  let own: number | null = null;
  const result = attempt(() => {
    own = keys.length === 1 ? null : (sheet ?? sheetIn(student) ?? sheetByRows(keys, submission));
    const key = keys[(own ?? 1) - 1];
    if (key === undefined) throw new Refusal('missing', `there is no sheet ${own}`);
    return markTable(key, submission);
  });
  return result.ok
    ? { student, sheet: own, marking: result.value, why: null }
    : { student, sheet: own, marking: null, why: result.refusal.message };
}

/**
 * Marks one student after the other, each by the key of the own sheet; yields the part of them that is done.
 *
 * @example [...markSteps([request], submissions)] // [0.5, 1]
 */
export function* markSteps(
  keys: readonly MarkRequest[],
  submissions: readonly Submission[],
): Generator<number, readonly StudentMarking[]> {
  const students: StudentMarking[] = [];
  for (const submission of submissions) {
    students.push(markSubmission(keys, submission, null));
    yield students.length / submissions.length;
  }
  return students;
}

/**
 * Marks a table with one column per student, beside columns for n or the time that all of them share.
 *
 * @example markClass(request, 'n;Anna;Ben\n0;1;1\n1;0,5;0,6').length // 2
 */
export function markClass(request: MarkRequest, text: string): readonly StudentMarking[] {
  const files = readSubmitted([{ name: '', text }], {
    request,
    layout: 'one per column',
    roles: {},
    reading: AS_FOUND,
  });
  return submissionsOf(files).map((submission) => markSubmission([request], submission, null));
}
