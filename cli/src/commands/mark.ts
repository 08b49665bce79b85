import { readFileSync } from 'node:fs';
import { markClass, markColumn, type Marking, markingJson, type StudentMarking } from '@schritt/core/marking';
import { sheetText } from '@schritt/core/sheets';
import { layGrid } from '@schritt/core/study';
import { csv, gridRequestOf, plainTable } from '@schritt/core/document';
import { Failure } from '../failure.ts';
import { lineWidth } from '../line-width.ts';
import { loadStudy, textOf } from '../load.ts';
import { pickMethod } from '../pick-method.ts';

export interface MarkOptions {
  readonly method: string;
  readonly h?: string;
  readonly steps?: string;
  readonly eachColumn?: boolean;
  readonly format: 'json' | 'table' | 'csv';
}

/** The rows of a file as text: those of a spreadsheet, or a text as it is. */
async function columnsOf(file: string): Promise<string> {
  const [, format] = /\.(xlsx|ods)$/i.exec(file) ?? [];
  if (format === undefined) return textOf(file);
  try {
    return await sheetText(
      new Uint8Array(readFileSync(file)),
      format.toLowerCase() === 'ods' ? 'ods' : 'xlsx',
    );
  } catch (thrown) {
    throw new Failure([`${file}: ${thrown instanceof Error ? thrown.message : String(thrown)}`]);
  }
}

/** One student in words. */
function markingText({ sentences, mistakes, table }: Marking): string {
  const unread = table.unread.map(
    ({ line, text }) => `Line ${line}: “${text}” is not a number and was skipped.`,
  );
  const likely =
    mistakes.length === 0
      ? []
      : [
          mistakes.length === 1
            ? 'This mistake gives exactly these numbers:'
            : 'Each of these mistakes gives exactly these numbers:',
          ...mistakes.map(({ sentence }) => `- ${sentence}`),
        ];
  const none =
    mistakes.length === 0 && sentences.length > 1
      ? ['None of the known mistakes gives exactly these numbers.']
      : [];
  return [...unread, ...sentences, ...likely, ...none].join('\n');
}

function studentRow({ student, marking, why }: StudentMarking): readonly string[] {
  if (marking === null) return [student, '', '', '', why ?? ''];
  const { rows, firstWrong, mistakes } = marking;
  const right = rows.filter(({ agrees }) => agrees).length;
  return [
    student,
    `${right} of ${rows.length}`,
    firstWrong === null ? '' : String(firstWrong),
    firstWrong === null ? 'right' : 'wrong',
    mistakes.map(({ sentence }) => sentence).join(' Or: '),
  ];
}

const HEADER = ['student', 'rows right', 'first wrong', 'result', 'likely mistake'];

function classText(students: readonly StudentMarking[], format: MarkOptions['format']): string {
  switch (format) {
    case 'json':
      return `${JSON.stringify(
        students.map(({ student, marking, why }) =>
          marking === null ? { student, error: why } : { student, ...markingJson(marking) },
        ),
        null,
        2,
      )}\n`;
    case 'csv':
      return csv([HEADER, ...students.map(studentRow)]);
    case 'table':
      return `${plainTable(HEADER, students.map(studentRow), lineWidth())}\n`;
  }
}

/** Marks the rows of one student, or of a class with one column per student. */
export async function markCommand(file: string, columns: string, options: MarkOptions): Promise<string> {
  const { study } = loadStudy(file);
  const chosen = pickMethod(study, options.method);
  const { problem, lastStep } = study;
  const grid = layGrid(problem.start, problem.end, gridRequestOf(options), lastStep);
  const request = { study, method: study.methods.indexOf(chosen), grid };
  const text = await columnsOf(columns);
  if (options.eachColumn === true) return classText(markClass(request, text), options.format);
  if (options.format === 'csv')
    throw new Failure(['--format csv is for a class; use it together with --each-column']);
  const marking = markColumn(request, text);
  return options.format === 'json'
    ? `${JSON.stringify(markingJson(marking), null, 2)}\n`
    : `${markingText(marking)}\n`;
}
