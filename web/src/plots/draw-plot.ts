import { asCanvas, drawStatic, type Plot, type Sheet, svgOf } from '@schritt/plot';
import type { Palette } from '@schritt/plot/palette';
import { Element } from 'svgcanvas';
import { PLOT_FACES } from './plot-fonts.ts';

/**
 * A plot as SVG.
 *
 * @param faces the style sheet with its faces; '' for a plot within a page
 */
export function plotSvg(plot: Plot, palette: Palette, sheet: Sheet, faces = PLOT_FACES): string {
  let recorder = new Element({ width: 1, height: 1 });
  const make = (width: number, height: number): HTMLCanvasElement =>
    asCanvas((recorder = new Element({ width, height })));
  return drawStatic(plot, palette, { ...sheet, pixels: 1, make }, () =>
    svgOf(recorder.getContext('2d').getSerializedSvg(true), plot.title, sheet, faces),
  );
}

/**
 * A plot as PNG; null where the browser makes none.
 *
 * @param scale how many times as large as the sheet says
 */
export function plotPng(plot: Plot, palette: Palette, sheet: Sheet, scale: number): Promise<Blob | null> {
  const make = (width: number, height: number): HTMLCanvasElement =>
    Object.assign(document.createElement('canvas'), { width, height });
  return drawStatic(
    plot,
    palette,
    { ...sheet, pixels: scale * sheet.scale, make },
    (canvas) => new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png')),
  );
}
