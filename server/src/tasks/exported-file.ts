import { type ExportQuery, exportRequest, exportStudy, type StudyDocument } from '@schritt/core/document';
import type { Study } from '@schritt/core/study';
import { mathTypeset } from './typeset.ts';

/**
 * An export of a study as the bytes of a file.
 *
 * @throws Refusal for what cannot be exported
 */
export async function exportedFile(
  document: StudyDocument,
  study: Study,
  asked: ExportQuery,
): Promise<Uint8Array> {
  const request = exportRequest(document.title, study, asked);
  const made = exportStudy(document, study, request, await mathTypeset());
  if (made.kind === 'workbook') {
    const { ods, xlsx } = await import('@schritt/core/sheets');
    return (asked.as === 'ods' ? ods : xlsx)(made.workbook);
  }
  const { drawnFile } = await import('@schritt/plot/node');
  const file = drawnFile(made, asked.as ?? 'svg', { scale: 1, part: asked.part ?? false });
  return typeof file === 'string' ? new TextEncoder().encode(file) : file;
}
