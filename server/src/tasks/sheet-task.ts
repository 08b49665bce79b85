import {
  exportRequest,
  fileEnding,
  FORMATS_OF,
  STUDY_TABLES,
  type StudyDocument,
  studyOrRefusal,
  type StudyReport,
  studyReport,
  studyTable,
  type StudyTable,
  TABLE_FORMATS,
  type TableFormat,
  writeTable,
} from '@schritt/core/document';
import { ofSheet, type VariantDocument, variantDocuments } from '@schritt/core/marking';
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

/** The format of a table of the whole study. */
function tableFormat(what: StudyTable, as = 'csv'): TableFormat {
  const format = TABLE_FORMATS.find((known) => known === as);
  if (format === undefined)
    throw new Refusal('form', `${what} can be written as ${TABLE_FORMATS.join(', ')}, not as ${as}`);
  return format;
}

/**
 * Checks what is asked for before anything is run.
 *
 * @throws Refusal for a file that cannot be made of the study
 */
export function checkFile({ title }: StudyDocument, study: Study, query: FileQuery): void {
  const { what, as } = query;
  if (isStudyTable(what)) tableFormat(what, as);
  else exportRequest(title, study, { ...query, what });
}

/** The bytes of a file of a sheet, in base 64; a table of the study is made from its report. */
async function contentOf(
  document: StudyDocument,
  study: Study,
  query: FileQuery,
  report: StudyReport | null,
): Promise<string> {
  const { what, as } = query;
  if (!isStudyTable(what)) return base64(await exportedFile(document, study, { ...query, what }));
  if (report === null) throw new Error('a table is made of a study that was run');
  return base64(writeTable(studyTable(report, what), tableFormat(what, as)));
}

/**
 * The names of files, by what they are; several of the same are numbered.
 *
 * @example fileNames([{ what: 'rows', as: 'md' }, { what: 'rows', as: 'md' }]) // ['rows.md', 'rows 2.md']
 */
export function fileNames(queries: readonly Pick<FileQuery, 'what' | 'as'>[]): readonly string[] {
  const seen = new Map<string, number>();
  return queries.map(({ what, as }) => {
    const ending = fileEnding(as ?? (isStudyTable(what) ? 'csv' : FORMATS_OF[what][0]));
    const count = (seen.get(`${what}.${ending}`) ?? 0) + 1;
    seen.set(`${what}.${ending}`, count);
    return count === 1 ? `${what}.${ending}` : `${what} ${count}.${ending}`;
  });
}

/** The files of one sheet; yields the part of its study that is done. */
export async function* sheetFiles(
  request: RequestOf<'sheets'>,
  number: number,
): AsyncGenerator<number, readonly ArchiveFile[]> {
  const sheet = sheetsOf(request)[number - 1];
  if (sheet === undefined) throw new Error(`there is no sheet ${number}`);
  const { document, variant } = sheet;
  const study = ofSheet(number, variant, () => studyOrRefusal(document));
  let report: StudyReport | null = null;
  if (request.files.some(({ what }) => isStudyTable(what))) {
    const work = studySteps(study);
    let next = work.next();
    for (; next.done !== true; next = work.next()) yield next.value.part;
    report = studyReport(document.title, study.problem, next.value);
  }
  const files: ArchiveFile[] = [];
  const names = fileNames(request.files);
  for (const [i, query] of request.files.entries())
    files.push({ name: names[i] ?? '', content: await contentOf(document, study, query, report) });
  const text = `${JSON.stringify(document, null, 2)}\n`;
  const own: ArchiveFile = { name: 'study.schritt.json', content: base64(text) };
  return [own, ...files].map(({ name, content }) => ({ name: `${sheetName(number)}/${name}`, content }));
}
