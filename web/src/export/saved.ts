import type { ExportSettings } from './export-settings.ts';
import type { ExportOutcome } from './use-export.ts';

const KINDS = {
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  svg: 'image/svg+xml',
  text: 'text/plain;charset=utf-8',
} as const;

/** The file that is saved; null where it cannot be made. */
export async function savedFile(
  choice: ExportSettings,
  { text, bytes, still }: ExportOutcome,
): Promise<Blob | null> {
  if (text === null) return null;
  if (bytes !== null) return new Blob([bytes], { type: KINDS.xlsx });
  if (still === null) return new Blob([text], { type: KINDS.text });
  if (choice.plotAs === 'png') {
    const { plotPng } = await import('../plots/draw-plot.ts');
    return plotPng(still.plot, still.palette, still.sheet, choice.scale);
  }
  return new Blob([text], { type: KINDS.svg });
}
