import type { PagePart, PlotData } from '@schritt/core/document';
import { paletteOf, type Plot, plotOf, plotTikz, type PrintSheet, SHEETS, zipped } from '@schritt/plot';
import { type Palette, PRINT } from '@schritt/plot/palette';
import { plotSvg } from '../plots/draw-plot.ts';
import type { ExportedFile } from '../worker/exported-file.ts';
import type { ExportSettings } from './export-settings.ts';

/** An export as a text; of a plot its SVG. */
export interface Drawn {
  readonly text: string;
  /** The bytes of a file that is no text. */
  readonly bytes: Uint8Array<ArrayBuffer> | null;
  /** What the text was drawn from; null where it is no plot. */
  readonly still: StaticPlot | null;
}

/** A plot with all that its drawing needs. */
export interface StaticPlot {
  readonly plot: Plot;
  readonly palette: Palette;
  readonly sheet: PrintSheet;
}

/** A text as base 64 of its UTF-8. */
function base64(text: string): string {
  return btoa(Array.from(new TextEncoder().encode(text), (byte) => String.fromCharCode(byte)).join(''));
}

/** Lets the page answer before the next plot is drawn. */
function pause(): Promise<void> {
  return new Promise((done) => setTimeout(done, 0));
}

/** A page with its plots drawn, one at a time. */
async function pageText(parts: readonly PagePart[], plots: 'markup' | 'base64'): Promise<string> {
  const lines: string[] = [];
  for (const part of parts) {
    if (typeof part === 'string') {
      lines.push(part);
      continue;
    }
    await pause();
    // a style sheet in a plot would hold for the whole page, whose text has more faces
    const svg = plotSvg(plotOf(part, PRINT), PRINT, SHEETS.column, '');
    lines.push(plots === 'markup' ? svg : base64(svg));
  }
  return lines.join('\n');
}

/** Draws what a worker has left to be drawn. */
export async function drawn(
  file: ExportedFile,
  { plotAs, part }: Pick<ExportSettings, 'plotAs' | 'part'>,
): Promise<Drawn> {
  switch (file.kind) {
    case 'text':
      return { text: file.text, bytes: null, still: null };
    case 'workbook':
      return { text: file.text, bytes: file.bytes, still: null };
    case 'page':
      return { text: await pageText(file.parts, file.plots), bytes: null, still: null };
    case 'package': {
      const draw = (data: PlotData): string => plotSvg(plotOf(data, PRINT), PRINT, SHEETS.column, '');
      const text = file.files.map(({ name }) => name).join('\n');
      return { text, bytes: new Uint8Array(zipped(file.files, draw)), still: null };
    }
    case 'plot': {
      const palette = paletteOf(file.ink);
      const still = { plot: plotOf(file.plot, palette), palette, sheet: SHEETS[file.size] };
      const text =
        plotAs === 'tikz'
          ? plotTikz(still.plot, still.sheet, part)
          : plotSvg(still.plot, palette, still.sheet);
      return { text, bytes: null, still };
    }
  }
}
