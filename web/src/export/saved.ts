import { mediaType } from '@schritt/core/document';
import { type ExportSettings, formatOf } from './export-settings.ts';
import type { ExportOutcome } from './use-export.ts';

/** The file that is saved; null where it cannot be made. */
export async function savedFile(
  choice: ExportSettings,
  { text, bytes, still }: ExportOutcome,
): Promise<Blob | null> {
  if (text === null) return null;
  const type = mediaType(formatOf(choice));
  if (still !== null && choice.plotAs === 'png') {
    const { plotPng } = await import('../plots/draw-plot.ts');
    return plotPng(still.plot, still.palette, still.sheet, choice.scale);
  }
  return new Blob([bytes ?? text], { type });
}
