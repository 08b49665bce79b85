import {
  fileEnding,
  openStudy,
  STUDY_TABLES,
  type StudyDocument,
  type StudyReport,
  studyReport,
  studyTable,
  type StudyTable,
  TABLE_FORMATS,
  writeTable,
} from '@schritt/core/document';
import { type VariantDocument, variantDocuments } from '@schritt/core/marking';
import { type Study, studySteps } from '@schritt/core/study';
import { Refusal } from '@schritt/core/text';
import { type ArchiveFile, base64 } from './archive-task.ts';
import { exportedFile } from './exported-file.ts';
import type { FileQuery, RequestOf } from './task.ts';

/** The studies of all sheets, not yet opened. */
export function sheetsOf({ document, variants }: RequestOf<'sheets'>): readonly VariantDocument[] {
  return variantDocuments(document, variants);
}

/** The name of a sheet's folder: as long as that of any other. */
export function sheetName(number: number): string {
  return `sheet ${String(number).padStart(3, '0')}`;
}

function isStudyTable(what: FileQuery['what']): what is StudyTable {
  return STUDY_TABLES.some((known) => known === what);
}

/** A table of the whole study; it is run for the first of them. */
function tableText(report: StudyReport, what: StudyTable, { as = 'csv' }: FileQuery): string {
  const format = TABLE_FORMATS.find((known) => known === as);
  if (format === undefined)
    throw new Refusal('form', `${what} can be written as ${TABLE_FORMATS.join(', ')}`);
  return writeTable(studyTable(report, what), format);
}

/** One file of a sheet; a table of the study is made from its report. */
async function fileOf(
  document: StudyDocument,
  study: Study,
  query: FileQuery,
  report: StudyReport | null,
): Promise<ArchiveFile> {
  const { what, as = 'csv' } = query;
  const name = `${what}.${fileEnding(as)}`;
  if (!isStudyTable(what))
    return { name, content: base64(await exportedFile(document, study, { ...query, what })) };
  if (report === null) throw new Error('a table is made of a study that was run');
  return { name, content: base64(tableText(report, what, query)) };
}

/** The files of one sheet; yields the part of its study that is done. */
export async function* sheetFiles(
  request: RequestOf<'sheets'>,
  number: number,
): AsyncGenerator<number, readonly ArchiveFile[]> {
  const sheet = sheetsOf(request)[number - 1];
  if (sheet === undefined) throw new Error(`there is no sheet ${number}`);
  const { document, variant } = sheet;
  const numbers = variant.map(({ name, value }) => `${name} = ${value}`).join(', ');
  const opened = openStudy(document);
  if (!opened.ok)
    throw new Refusal('form', `sheet ${number} (${numbers}): ${opened.errors[0]?.errors[0]?.message ?? ''}`);
  const { study } = opened;
  let report: StudyReport | null = null;
  if (request.files.some(({ what }) => isStudyTable(what))) {
    const work = studySteps(study);
    let next = work.next();
    for (; next.done !== true; next = work.next()) yield next.value.part;
    report = studyReport(document.title, study.problem, next.value);
  }
  const files: ArchiveFile[] = [];
  for (const query of request.files) files.push(await fileOf(document, study, query, report));
  const text = `${JSON.stringify(document, null, 2)}\n`;
  const own: ArchiveFile = { name: 'study.schritt.json', content: base64(text) };
  return [own, ...files].map(({ name, content }) => ({ name: `${sheetName(number)}/${name}`, content }));
}
