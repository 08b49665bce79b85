import { attempt } from '../text/refusal.ts';
import { type Marking, type MarkRequest, markTable } from './mark-column.ts';
import type { ColumnMeaning } from './student-rows.ts';
import { readStudentTable, type StudentTable } from './student-table.ts';

/** The rows of one student of a class, marked; or why they cannot be. */
export interface StudentMarking {
  readonly student: string;
  readonly marking: Marking | null;
  /** Null where they are marked. */
  readonly why: string | null;
}

const COUNT = /^\s*(?:n|i|k|step|#)\s*$/i;
const TIME = /^\s*(?:t|time|x)\s*$/i;

/** Whether a column counts the rows or has their times, for all students together. */
function isShared(
  { title, cells }: StudentTable['columns'][number],
  place: number,
  independent: string,
): boolean {
  if (title !== null) return COUNT.test(title) || TIME.test(title) || title.trim() === independent;
  // without headings the first columns are shared as far as they rise by equal amounts
  const values = cells.map((cell) => cell?.value ?? NaN);
  const step = (values[1] ?? NaN) - (values[0] ?? NaN);
  return (
    place < 2 && step > 0 && values.every((value, i) => Math.abs(value - (values[0] ?? 0) - i * step) < 1e-9)
  );
}

/**
 * Marks a table with one column per student, beside columns for n or the time that all of them share.
 *
 * @example markClass(request, 'n;Anna;Ben\n0;1;1\n1;0,5;0,6').length // 2
 */
export function markClass(request: MarkRequest, text: string): readonly StudentMarking[] {
  const table = readStudentTable(text);
  const { independent } = request.study.problem;
  const shared = table.columns.filter((column, place) => isShared(column, place, independent));
  const own = table.columns.filter((column) => !shared.includes(column));
  // headings of shared columns say what they are; without them their contents do
  const meanings = shared.map(({ title, cells }): ColumnMeaning => {
    const counts = title === null ? cells.every((cell, n) => cell?.value === n) : COUNT.test(title);
    return { kind: counts ? 'n' : 't' };
  });
  return own.map((column, i) => {
    const student = column.title?.trim() || `column ${i + 1}`;
    const columns = [...shared, { ...column, title: null }];
    const result = attempt(() =>
      markTable(
        { ...request, meanings: [...meanings, { kind: 'component', place: 0 }] },
        { ...table, columns },
      ),
    );
    return result.ok
      ? { student, marking: result.value, why: null }
      : { student, marking: null, why: result.refusal.message };
  });
}
