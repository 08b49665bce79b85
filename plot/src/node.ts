// Draws plots without a page: as PNG, as PDF, and as SVG in which letters are outlines.
import { createCanvas, GlobalFonts, PDFDocument, type SvgCanvas, SvgExportFlag } from '@napi-rs/canvas';
import { drawnPage, type Exported, type PlotData } from '@schritt/core/document';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { paletteOf, plotOf } from './data-plot.ts';
import { type Palette, PRINT } from './palette.ts';
import type { Plot } from './plot.ts';
import { asCanvas, drawStatic, type PrintSheet, type Sheet, SHEETS } from './static-plot.ts';
import { svgOf } from './svg-head.ts';
import { plotTikz } from './tikz.ts';
import { zipped } from './zipped.ts';

/** Files of the faces that plots are set in, and the names under which `palette.ts` knows them. */
const FACES: readonly (readonly [file: string, name: string])[] = [
  ...['400', '600'].flatMap((weight): readonly (readonly [string, string])[] => [
    [`ibm-plex-sans/files/ibm-plex-sans-latin-${weight}-normal.woff2`, 'IBM Plex Sans'],
    [`ibm-plex-sans/files/ibm-plex-sans-latin-ext-${weight}-normal.woff2`, 'IBM Plex Sans Extended'],
    [`ibm-plex-sans/files/ibm-plex-sans-greek-${weight}-normal.woff2`, 'IBM Plex Sans Greek'],
  ]),
  ['source-serif-4/files/source-serif-4-latin-400-italic.woff2', 'Source Serif 4'],
  ['source-serif-4/files/source-serif-4-latin-ext-400-italic.woff2', 'Source Serif 4 Extended'],
  ['source-serif-4/files/source-serif-4-greek-400-italic.woff2', 'Source Serif 4 Greek'],
  ['dejavu-sans/files/dejavu-sans-latin-400-normal.woff2', 'DejaVu Sans'],
];

let isReady = false;

/** Registers the faces once; a machine without any font draws the same letters. */
function registerFaces(): void {
  if (isReady) return;
  const { resolve } = createRequire(import.meta.url);
  for (const [file, name] of FACES) GlobalFonts.register(readFileSync(resolve(`@fontsource/${file}`)), name);
  isReady = true;
}

/**
 * A plot as PNG.
 *
 * @param scale how many times as large as the sheet says
 */
export function plotPng(plot: Plot, palette: Palette, sheet: Sheet, scale: number): Uint8Array {
  registerFaces();
  let native = createCanvas(1, 1);
  const make = (width: number, height: number): HTMLCanvasElement =>
    asCanvas((native = createCanvas(width, height)));
  return drawStatic(plot, palette, { ...sheet, pixels: scale * sheet.scale, make }, () =>
    native.toBuffer('image/png'),
  );
}

/** A plot as SVG. */
export function plotSvg(plot: Plot, palette: Palette, sheet: Sheet): string {
  registerFaces();
  const blank = (width: number, height: number): SvgCanvas =>
    createCanvas(width, height, SvgExportFlag.ConvertTextToPaths);
  let native = blank(1, 1);
  const make = (width: number, height: number): HTMLCanvasElement =>
    asCanvas((native = blank(width, height)));
  return drawStatic(plot, palette, { ...sheet, pixels: 1, make }, () =>
    svgOf(native.getContent().toString(), plot.title, sheet),
  );
}

/** A plot as a page of PDF, as wide as its sheet says; letters stay letters. */
export function plotPdf(plot: Plot, palette: Palette, sheet: PrintSheet): Uint8Array {
  registerFaces();
  const pixels = sheet.points / sheet.width;
  let pdf = new PDFDocument({ title: plot.title, creator: 'Schritt' });
  const make = (width: number, height: number): HTMLCanvasElement => {
    pdf = new PDFDocument({ title: plot.title, creator: 'Schritt' });
    const context = pdf.beginPage(width * pixels, height * pixels);
    // what a chart reads of the canvas that a page of PDF does not have
    const canvas = { width, height, style: {}, getContext: (): typeof context => context };
    Object.defineProperty(context, 'canvas', { value: canvas });
    return asCanvas(canvas);
  };
  return drawStatic(plot, palette, { ...sheet, pixels, make }, () => {
    pdf.endPage();
    return pdf.close();
  });
}

/** How a plot becomes a file. */
export interface FileOptions {
  /** How many times as large as its size says a PNG is. */
  readonly scale: number;
  /** LaTeX as a part to be put into a document. */
  readonly part: boolean;
}

/**
 * The file of an export; of a workbook it is written by `xlsx`.
 */
export function drawnFile(
  taken: Exclude<Exported, { readonly kind: 'workbook' }>,
  format: string,
  { scale, part }: FileOptions = { scale: 1, part: false },
): string | Uint8Array {
  if (taken.kind === 'text') return taken.text;
  const svg = (data: PlotData): string => plotSvg(plotOf(data, PRINT), PRINT, SHEETS.column);
  if (taken.kind === 'page')
    return drawnPage(taken.parts, (data) =>
      taken.plots === 'markup' ? svg(data) : Buffer.from(svg(data)).toString('base64'),
    );
  if (taken.kind === 'package') return zipped(taken.files, svg);
  const palette = paletteOf(taken.ink);
  const plot = plotOf(taken.plot, palette);
  const sheet = SHEETS[taken.size];
  switch (format) {
    case 'png':
      return plotPng(plot, palette, sheet, scale);
    case 'pdf':
      return plotPdf(plot, palette, sheet);
    case 'tikz':
      return plotTikz(plot, sheet, part);
    default:
      return plotSvg(plot, palette, sheet);
  }
}
