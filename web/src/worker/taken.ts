import { type StudyDocument, takeAway, type Wanted } from '@schritt/core/document';
import { typesetOptions } from '@schritt/core/notation';
import type { Study } from '@schritt/core/study';

/** What was taken away: as text, and for sheets the bytes of the file besides a text of what is in it. */
export interface TakenFile {
  readonly text: string;
  readonly bytes: Uint8Array<ArrayBuffer> | null;
}

/** Makes what is to be taken away; what sets formulas and writes sheets is loaded when it is first wanted. */
export async function takenFile(document: StudyDocument, study: Study, wanted: Wanted): Promise<TakenFile> {
  const needsFormulas = wanted.what === 'handout' && wanted.as === 'html';
  const katex = needsFormulas ? (await import('katex')).default : null;
  const made = takeAway(
    document,
    study,
    wanted,
    (tex, wide) => katex?.renderToString(tex, typesetOptions(wide, 'mathml')) ?? '',
  );
  if (typeof made === 'string') return { text: made, bytes: null };
  const { workbookText, xlsx } = await import('@schritt/core/sheets');
  return { text: workbookText(made), bytes: new Uint8Array(await xlsx(made)) };
}
