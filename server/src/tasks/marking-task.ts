import { gridRequestOf, studyOrRefusal, writeTable } from '@schritt/core/document';
import {
  AS_FOUND,
  classTable,
  feedbackHtml,
  markingJson,
  type MarkRequest,
  markRequest,
  marksOf,
  markSubmission,
  readSubmitted,
  type StudentMarking,
  type Submission,
  submissionsOf,
  variantStudies,
} from '@schritt/core/marking';
import { Refusal, typesetOptions } from '@schritt/core/text';
import { type ArchiveFile, base64 } from './archive-task.ts';
import type { RequestOf } from './task.ts';

/**
 * What rows are compared with: one run, or one for each sheet.
 *
 * @throws Refusal for a method, step size or values that there are not
 */
export function keysOf({ document, run, variants }: RequestOf<'marking'>): readonly MarkRequest[] {
  const studies =
    variants === null
      ? [studyOrRefusal(document)]
      : variantStudies(document, variants).map(({ study }) => study);
  const titles = document.methods.map(({ title }) => title);
  const method = titles.indexOf(run.method ?? '');
  if (method < 0)
    throw new Refusal(
      'missing',
      `there is no method "${run.method ?? ''}" in this study; there are ${titles.join(', ')}`,
    );
  const gridRequest = gridRequestOf(run);
  return studies.map((study) => markRequest(study, { method, gridRequest }));
}

/** What each student has handed in, in the order of the files and their columns. */
export function submissionsFor(
  { texts, layout }: RequestOf<'marking'>,
  [request]: readonly MarkRequest[],
): readonly Submission[] {
  if (request === undefined) throw new Refusal('missing', 'there is no sheet');
  return submissionsOf(readSubmitted(texts, { request, layout, roles: {}, reading: AS_FOUND }));
}

/** Marks some students; yields the part of them that is done. */
export function* markedStudents(
  request: RequestOf<'marking'>,
  from: number,
  to: number,
): Generator<number, readonly StudentMarking[]> {
  const keys = keysOf(request);
  const own = submissionsFor(request, keys).slice(from, to);
  const students: StudentMarking[] = [];
  for (const submission of own) {
    students.push(markSubmission(keys, submission, null));
    yield students.length / own.length;
  }
  return students;
}

/** A class as files: marks as a table, all of it as JSON, and feedback sheets. */
export async function classFiles(
  request: RequestOf<'marking'>,
  students: readonly StudentMarking[],
): Promise<readonly ArchiveFile[]> {
  const { document, rule } = request;
  const { default: katex } = await import('katex');
  const sheets = feedbackHtml(students, { title: document.title, rule, keys: keysOf(request) }, (tex, wide) =>
    katex.renderToString(tex, typesetOptions(wide, 'mathml')),
  );
  const all = students.map(({ student, sheet, marking, why }) => ({
    student,
    sheet,
    ...(marking === null ? { error: why } : { marks: marksOf(marking, rule), ...markingJson(marking) }),
  }));
  return [
    { name: 'class.csv', content: base64(writeTable(classTable(students, rule), 'csv')) },
    { name: 'class.json', content: base64(`${JSON.stringify(all, null, 2)}\n`) },
    { name: 'feedback.html', content: base64(sheets) },
  ];
}
