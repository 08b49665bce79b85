// Draws plots without a page: as PNG, and as SVG in which letters are outlines.
import { createCanvas, GlobalFonts, type SvgCanvas, SvgExportFlag } from '@napi-rs/canvas';
import { drawnPage, type Exported } from '@schritt/core/document';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { paletteOf, plotOf } from './data-plot.ts';
import { type Palette, PRINT } from './palette.ts';
import type { Plot } from './plot.ts';
import { asCanvas, drawStatic, type Sheet, SHEETS } from './static-plot.ts';
import { svgOf } from './svg-head.ts';

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

/**
 * The file of an export; of a workbook it is written by `xlsx`.
 *
 * @param scale how many times as large as its size says the PNG of a plot is
 */
export function drawnFile(
  taken: Exclude<Exported, { readonly kind: 'workbook' }>,
  format: string,
  scale: number,
): string | Uint8Array {
  if (taken.kind === 'text') return taken.text;
  if (taken.kind === 'page')
    return drawnPage(taken.parts, (data) => plotSvg(plotOf(data, PRINT), PRINT, SHEETS.column));
  const palette = paletteOf(taken.ink);
  const plot = plotOf(taken.plot, palette);
  const sheet = SHEETS[taken.size];
  return format === 'png' ? plotPng(plot, palette, sheet, scale) : plotSvg(plot, palette, sheet);
}
