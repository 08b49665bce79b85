import { rounded } from '../text/number-text.ts';
import type { Marking } from './mark-column.ts';

/** How marks are given: in proportion to right rows, to right steps from the student's own rows, or to both. */
export interface MarkRule {
  /** Marks for all rows right. */
  readonly rowMarks: number;
  /** Marks for all steps right from the student's own rows. */
  readonly stepMarks: number;
  /** What marks are multiples of. */
  readonly roundTo: number;
  /** Rows after the initial value that were asked for; null for as many as the run has steps. */
  readonly rowsAsked: number | null;
}

/** Half of the marks for right rows, half for right steps. */
export const USUAL_RULE: MarkRule = { rowMarks: 5, stepMarks: 5, roundTo: 0.5, rowsAsked: null };

/** The marks of one student, and what they are for; rows count after the initial value. */
export interface Marks {
  readonly marks: number;
  readonly of: number;
  readonly rowsRight: number;
  readonly stepsRight: number;
  readonly rowsAsked: number;
}

/**
 * The marks of one student by a rule. A step that cannot be compared, because the row before it is missing, counts as right
 * where its row is.
 *
 * @example marksOf(marking, { rowMarks: 5, stepMarks: 5, roundTo: 0.5, rowsAsked: null }).marks // 7.5
 */
export function marksOf(marking: Pick<Marking, 'rows' | 'steps'>, rule: MarkRule): Marks {
  const rowsAsked = Math.max(1, rule.rowsAsked ?? marking.steps);
  const later = marking.rows.filter(({ n }) => n > 0);
  const count = (is: (row: Marking['rows'][number]) => boolean): number =>
    Math.min(rowsAsked, later.filter(is).length);
  const rowsRight = count((row) => row.agrees);
  const stepsRight = count((row) => row.agrees || row.agreesWithOwn === true);
  const exact = (rule.rowMarks * rowsRight + rule.stepMarks * stepsRight) / rowsAsked;
  const marks = Math.round(exact / rule.roundTo) * rule.roundTo;
  // multiples of a decimal part are printed as such
  return {
    marks: rounded(marks, 12),
    of: rule.rowMarks + rule.stepMarks,
    rowsRight,
    stepsRight,
    rowsAsked,
  };
}
