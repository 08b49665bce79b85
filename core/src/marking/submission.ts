import { type MarkRequest, rowsFor } from './mark-column.ts';
import {
  type ColumnMeaning,
  columnMeanings,
  headingMeaning,
  type ReadingChoice,
  type RowsOf,
} from './student-rows.ts';
import { readStudentTable, type StudentTable, type StudentTableColumn } from './student-table.ts';

/** A file that was handed in, or a pasted text, as text. */
export interface SubmittedText {
  readonly name: string;
  readonly text: string;
}

/** How files hold students: one in each, or one in each column; null for what their headings suggest. */
export const LAYOUTS = ['one per file', 'one per column'] as const;
export type Layout = (typeof LAYOUTS)[number];

/** What a column of a file is for: what it holds of the file's own student, or that it is one of a student. */
export type ColumnRole =
  | ColumnMeaning
  /** Values of one component of a student of the class. */
  | StudentRole;

interface StudentRole {
  readonly kind: 'student';
  readonly name: string;
  readonly place: number;
}

/** A file as it is understood. */
export interface SubmittedFile {
  readonly name: string;
  readonly table: StudentTable;
  readonly roles: readonly ColumnRole[];
  readonly reading: ReadingChoice;
}

/** What one student has handed in. */
export interface Submission {
  readonly student: string;
  readonly table: StudentTable;
  readonly meanings: readonly ColumnMeaning[];
  readonly reading: ReadingChoice;
}

const COUNT = /^\s*(?:n|i|k|step|row|#)\s*$/i;
const TIME = /^\s*(?:t|time|x)\s*$/i;

/** Whether a column counts the rows or has their times, for all students together. */
function sharedMeaning(
  { title, cells }: StudentTableColumn,
  place: number,
  independent: string,
): ColumnMeaning | null {
  if (title !== null) {
    if (COUNT.test(title)) return { kind: 'n' };
    return TIME.test(title) || title.trim() === independent ? { kind: 't' } : null;
  }
  // without headings the first columns are shared as far as they rise by equal amounts
  const values = cells.map((cell) => cell?.value ?? NaN);
  const [first = NaN, second = NaN] = values;
  const step = second - first;
  const isEven = values.every((value, i) => Math.abs(value - first - i * step) < 1e-9);
  if (place > 1 || !(step > 0) || !isEven) return null;
  return { kind: values.every((value, n) => value === n) ? 'n' : 't' };
}

/** A heading as a student and a component: `Anna level`, `Anna (level)`; the first component where none is named. */
function studentOf(heading: string, components: readonly string[]): StudentRole {
  const words = /^(.*?)[\s_,:/]*[([]?\s*([^\s_,:/()[\]]+)\s*[)\]]?$/.exec(heading.trim());
  const place = components.length > 1 ? components.indexOf(words?.[2] ?? '') : -1;
  const name = place < 0 ? heading.trim() : (words?.[1] ?? '').trim();
  return { kind: 'student', name, place: Math.max(0, place) };
}

function classRoles({ columns }: StudentTable, { components, independent }: RowsOf): readonly ColumnRole[] {
  let unnamed = 0;
  return columns.map((column, i): ColumnRole => {
    const shared = sharedMeaning(column, i, independent);
    if (shared !== null) return shared;
    if (column.cells.every((cell) => cell === null)) return { kind: 'other' };
    unnamed += 1;
    const role = studentOf(column.title ?? '', components);
    return role.name === '' ? { ...role, name: `column ${unnamed}` } : role;
  });
}

/** Whether the headings of a table look like those of students: at least two name nothing of the run. */
function looksLikeClass({ columns }: StudentTable, of: RowsOf): boolean {
  if (columns.every(({ title }) => title === null))
    return columns.length > 2 + of.components.length + of.stages.length;
  const unknown = columns.filter(
    ({ title, cells }) => cells.some((cell) => cell !== null) && headingMeaning(title ?? '', of) === null,
  );
  return unknown.length > 1;
}

/** What tells tables of one form: their headings, or how many columns they have. */
export function formOf({ columns }: StudentTable): string {
  return columns.map(({ title }) => title ?? '').join('\t');
}

/** What files are read with. */
export interface SubmissionsOf {
  readonly request: MarkRequest;
  readonly layout: Layout | null;
  /** Roles of columns as a person has set them, by `formOf` a table. */
  readonly roles: Readonly<Record<string, readonly ColumnRole[]>>;
  readonly reading: ReadingChoice;
}

/** Names without what they have in common: folders and endings, as far as they stay different. */
function studentNames(files: readonly SubmittedText[]): readonly string[] {
  const plain = files.map(({ name }) => name.replace(/\.[A-Za-z]{1,5}$/, ''));
  const short = plain.map((name) => name.split('/').at(-1) ?? name);
  return new Set(short).size === short.length ? short : plain;
}

/**
 * Reads what was handed in: what each column is for, by its heading or by what is in it.
 *
 * @example readSubmitted([{ name: 'Anna.csv', text: '0;1' }], of)[0]?.roles.length // 2
 */
export function readSubmitted(
  files: readonly SubmittedText[],
  { request, layout, roles, reading }: SubmissionsOf,
): readonly SubmittedFile[] {
  const names = studentNames(files);
  const rows = rowsFor(request);
  return files.map(({ text }, i): SubmittedFile => {
    const table = readStudentTable(text, reading.decimalSign);
    const isClass = layout === null ? looksLikeClass(table, rows) : layout === 'one per column';
    const own = roles[formOf(table)];
    return {
      name: names[i] ?? '',
      table,
      reading,
      roles: own ?? (isClass ? classRoles(table, rows) : columnMeanings(table, rows)),
    };
  });
}

/** The rows of each student in a file. */
function submissionsIn({ name, table, roles, reading }: SubmittedFile): readonly Submission[] {
  const students = [...new Set(roles.flatMap((role) => (role.kind === 'student' ? [role.name] : [])))];
  const meanings = roles.flatMap((role) => (role.kind === 'student' ? [] : [role]));
  if (students.length === 0) return [{ student: name, table, meanings, reading }];
  const shared = table.columns.filter((_, i) => roles[i]?.kind !== 'student');
  return students.map((student): Submission => {
    const own = roles.flatMap((role, i) => {
      const column = table.columns[i];
      return role.kind === 'student' && role.name === student && column !== undefined
        ? [{ column, at: i, place: role.place }]
        : [];
    });
    return {
      student,
      reading,
      table: {
        ...table,
        columns: [...shared, ...own.map(({ column }) => column)],
        unread: table.unread.filter(({ column }) => own.some(({ at }) => at === column)),
      },
      meanings: [
        // of shared columns those that are values of a component are nobody's
        ...meanings.map((one): ColumnMeaning =>
          one.kind === 'n' || one.kind === 't' ? one : { kind: 'other' },
        ),
        ...own.map(({ place }): ColumnMeaning => ({ kind: 'component', place })),
      ],
    };
  });
}

/**
 * The rows of all students, in the order of the files and their columns.
 *
 * @example submissionsOf(readSubmitted(files, of)).length // 40
 */
export function submissionsOf(files: readonly SubmittedFile[]): readonly Submission[] {
  return files.flatMap(submissionsIn);
}
