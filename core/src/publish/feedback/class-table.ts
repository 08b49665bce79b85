import { classCounts, countsText } from '../../marking/class-counts.ts';
import type { StudentMarking } from '../../marking/mark-class.ts';
import { type MarkRule, marksOf } from '../../marking/marks.ts';
import { rounded } from '../../text/number-text.ts';
import type { CsvCell } from '../csv.ts';
import { column, type Table } from '../tables/table.ts';

const COLUMNS = [
  'student',
  'sheet',
  'marks',
  'of',
  'rows right',
  'steps right',
  'rows asked',
  'result',
  'first wrong row',
  'given',
  'right',
  'likely mistake',
] as const;

/** Several values in one cell, as of several components. */
function valuesCell(values: readonly (number | null)[] | null | undefined): CsvCell {
  const known = (values ?? []).filter((value) => value !== null);
  return known.length > 1 ? known.join(' ') : (known[0] ?? null);
}

function rowOf({ student, sheet, marking, why }: StudentMarking, rule: MarkRule): readonly CsvCell[] {
  if (marking === null)
    return [student, sheet, null, null, null, null, null, 'not marked', null, null, null, why];
  const { marks, of, rowsRight, stepsRight, rowsAsked } = marksOf(marking, rule);
  const wrong = marking.rows.find(({ agrees }) => !agrees);
  return [
    student,
    sheet,
    marks,
    of,
    rowsRight,
    stepsRight,
    rowsAsked,
    wrong === undefined ? 'right' : 'wrong',
    wrong?.n ?? null,
    valuesCell(wrong?.given),
    // one digit more than was given: what is off by less than a unit is seen
    valuesCell(wrong?.right?.map((value) => rounded(value, Math.min(12, marking.digits.significant + 1)))),
    marking.mistakes.map(({ sentence }) => sentence).join(' Or: ') || null,
  ];
}

/**
 * A class as a table with a row for each student; its caption counts who is right and which mistakes there are. Without sheets
 * of their own there is no column for them.
 *
 * @example classTable(students, USUAL_RULE).rows.length // 40
 */
export function classTable(students: readonly StudentMarking[], rule: MarkRule): Table {
  const hasSheets = students.some(({ sheet }) => sheet !== null);
  const isShown = (title: (typeof COLUMNS)[number]): boolean => title !== 'sheet' || hasSheets;
  return {
    caption: countsText(classCounts(students), 5).join(' '),
    groups: null,
    columns: COLUMNS.filter(isShown).map((title) => column(title)),
    rows: students.map((student) => rowOf(student, rule).filter((_, i) => isShown(COLUMNS[i] ?? 'student'))),
  };
}
