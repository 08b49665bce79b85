import { type StudyDocument, type Exported, exportStudy, type ExportRequest } from '@schritt/core/document';
import { typesetOptions } from '@schritt/core/text';
import type { Study } from '@schritt/core/study';

/** What a worker makes of an export: a workbook as the bytes of its file, with a text of what is in it. */
export type ExportedFile =
  | Exclude<Exported, { readonly kind: 'workbook' }>
  | { readonly kind: 'workbook'; readonly text: string; readonly bytes: Uint8Array<ArrayBuffer> };

/** Makes an export; what sets formulas and writes sheets is loaded when it is first wanted. */
export async function exportedFile(
  document: StudyDocument,
  study: Study,
  request: ExportRequest,
): Promise<ExportedFile> {
  const needsFormulas =
    (request.what === 'handout' && request.as === 'html') ||
    (request.what === 'questions' && request.as === 'qti');
  const katex = needsFormulas ? (await import('katex')).default : null;
  const made = exportStudy(
    document,
    study,
    request,
    (tex, wide) => katex?.renderToString(tex, typesetOptions(wide, 'mathml')) ?? '',
  );
  if (made.kind !== 'workbook') return made;
  const { ods, workbookText, xlsx } = await import('@schritt/core/sheets');
  const { workbook } = made;
  const write = request.what === 'sheet' && request.as === 'ods' ? ods : xlsx;
  return { kind: 'workbook', text: workbookText(workbook), bytes: new Uint8Array(await write(workbook)) };
}
