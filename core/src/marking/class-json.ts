import type { StudentMarking } from './mark-class.ts';
import { type MarkingJson, markingJson } from './marking-json.ts';
import { type MarkRule, type Marks, marksOf } from './marks.ts';

/** A student of a class as JSON: what was handed in, marked, or why it cannot be. */
type StudentJson = { readonly student: string; readonly sheet?: number } & (
  (MarkingJson & { readonly marks: Marks }) | { readonly error: string | null }
);

/**
 * A class as it is printed as JSON; without sheets of their own no student has one.
 *
 * @example classJson(students, USUAL_RULE)[0]?.student // 'Anna'
 */
export function classJson(students: readonly StudentMarking[], rule: MarkRule): readonly StudentJson[] {
  return students.map(({ student, sheet, marking, why }) => ({
    student,
    ...(sheet === null ? {} : { sheet }),
    ...(marking === null ? { error: why } : { marks: marksOf(marking, rule), ...markingJson(marking) }),
  }));
}
