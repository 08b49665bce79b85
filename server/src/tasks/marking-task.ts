import { gridRequestOf, methodAt, studyOrRefusal, writeTable } from '@schritt/core/document';
import {
  AS_FOUND,
  classJson,
  classTable,
  feedbackHtml,
  type MarkRequest,
  markRequest,
  markSteps,
  readSubmitted,
  type StudentMarking,
  type Submission,
  submissionsOf,
  variantStudies,
} from '@schritt/core/marking';
import { Refusal } from '@schritt/core/text';
import { type ArchiveFile, base64 } from './archive-task.ts';
import type { RequestOf } from './task.ts';
import { mathTypeset } from './typeset.ts';

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
  const gridRequest = gridRequestOf(run);
  return studies.map((study) => markRequest(study, { method: methodAt(study, run, true), gridRequest }));
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
export function markedStudents(
  request: RequestOf<'marking'>,
  from: number,
  to: number,
): Generator<number, readonly StudentMarking[]> {
  const keys = keysOf(request);
  return markSteps(keys, submissionsFor(request, keys).slice(from, to));
}

/** A class as files: marks as a table, all of it as JSON, and feedback sheets. */
export async function classFiles(
  request: RequestOf<'marking'>,
  students: readonly StudentMarking[],
): Promise<readonly ArchiveFile[]> {
  const { document, rule } = request;
  const choice = { title: document.title, rule, keys: keysOf(request) };
  const sheets = feedbackHtml(students, choice, await mathTypeset());
  return [
    { name: 'class.csv', content: base64(writeTable(classTable(students, rule), 'csv')) },
    { name: 'class.json', content: base64(`${JSON.stringify(classJson(students, rule), null, 2)}\n`) },
    { name: 'feedback.html', content: base64(sheets) },
  ];
}
