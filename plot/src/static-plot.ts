import type { PlotSize } from '@schritt/core/document';
import { rounded } from '@schritt/core/text';
import {
  BasicPlatform,
  Chart,
  type ChartConfiguration,
  Legend,
  type LegendItem as ChartLegendItem,
} from 'chart.js';
import { datasetsOf, optionsOf, STYLES } from './chart.ts';
import { equalise } from './equal-units.ts';
import { overlaysPlugin } from './overlays.ts';
import type { Palette } from './palette.ts';
import type { Plot } from './plot.ts';

Chart.register(Legend);

/** How large a plot is drawn. */
export interface Sheet {
  /** In pixels of the layout, in which letters are 11 high. */
  readonly width: number;
  readonly height: number;
  /** Pixels of a PNG for each pixel of the layout. */
  readonly scale: number;
  /** Width and height as an SVG gives them, with their unit. */
  readonly svg: { readonly width: string; readonly height: string };
}

/** A sheet that is printed. */
export interface PrintSheet extends Sheet {
  /** Width of a PDF in points of 1/72 inch. */
  readonly points: number;
  /** Width and height in LaTeX, with their unit. */
  readonly tikz: { readonly width: string; readonly height: string };
}

/** Width of a column of a paper, in millimetres and in pixels of 1/96 inch. */
const [COLUMN, COLUMN_PIXELS] = [85, 321];
const COLUMN_HEIGHT = 241;

/** What the sizes of plots are: a slide of 1280 by 720, and a column of a paper. */
export const SHEETS: Readonly<Record<PlotSize, PrintSheet>> = {
  slide: {
    width: 512,
    height: 288,
    scale: 2.5,
    svg: { width: '1280', height: '720' },
    points: 960,
    tikz: { width: '15cm', height: '9cm' },
  },
  column: {
    width: COLUMN_PIXELS,
    height: COLUMN_HEIGHT,
    scale: 1,
    svg: { width: `${COLUMN}mm`, height: `${rounded((COLUMN * COLUMN_HEIGHT) / COLUMN_PIXELS, 3)}mm` },
    points: (COLUMN / 25.4) * 72,
    tikz: { width: `${COLUMN}mm`, height: `${rounded((COLUMN * COLUMN_HEIGHT) / COLUMN_PIXELS, 3)}mm` },
  },
};

function isCanvas(canvas: object): canvas is HTMLCanvasElement {
  return 'getContext' in canvas;
}

/** A canvas of another make than that of a page, which does what Chart.js needs of one. */
export function asCanvas(canvas: object): HTMLCanvasElement {
  if (!isCanvas(canvas)) throw new TypeError('this canvas has no context');
  return canvas;
}

/** The curves of the plot by name, with their markers. */
function legendItems({ legend }: Plot): ChartLegendItem[] {
  return legend.map(({ label, mark, color }) => ({
    text: label,
    fontColor: color,
    strokeStyle: color,
    lineWidth: 1.6,
    fillStyle: mark?.filled === true ? color : 'transparent',
    pointStyle: mark === null ? 'line' : STYLES[mark.shape],
  }));
}

/** What Chart.js takes for a plot that is drawn once. */
function configuration(
  plot: Plot,
  palette: Palette,
  width: number,
  pixels: number,
): ChartConfiguration<'scatter'> {
  const options = optionsOf(plot, palette, () => ({}));
  return {
    type: 'scatter',
    platform: BasicPlatform,
    // with styles of segments, lines are drawn without Path2D, which no canvas that records vectors knows
    data: { datasets: datasetsOf(plot, width).map((dataset) => ({ ...dataset, segment: {} })) },
    options: {
      ...options,
      responsive: false,
      animation: false,
      events: [],
      devicePixelRatio: pixels,
      plugins: {
        ...options.plugins,
        legend: {
          display: plot.legend.length > 1,
          position: 'bottom',
          labels: {
            color: palette.ink,
            usePointStyle: true,
            boxHeight: 8,
            generateLabels: () => legendItems(plot),
          },
        },
      },
    },
    plugins: [
      {
        id: 'ground',
        beforeDraw: ({ ctx, width: across, height }) => {
          ctx.fillStyle = palette.paper;
          ctx.fillRect(0, 0, across, height);
        },
      },
      overlaysPlugin(() => ({ plot, palette })),
    ],
  };
}

/** The plot with axes on which a unit is as long across as up; they depend on the room that is left for them. */
function withEqualUnits(plot: Plot, palette: Palette, canvas: HTMLCanvasElement, width: number): Plot {
  const chart = new Chart(canvas, configuration(plot, palette, width, 1));
  equalise(chart);
  const { x, y } = chart.scales;
  chart.destroy();
  if (x === undefined || y === undefined) return plot;
  return {
    ...plot,
    equal: false,
    x: { ...plot.x, range: [x.min, x.max] },
    y: { ...plot.y, range: [y.min, y.max] },
  };
}

/** What a plot is drawn on. */
export interface StaticCanvas extends Pick<Sheet, 'width' | 'height'> {
  /** Pixels of the canvas for each pixel of the layout; 1 for vectors. */
  readonly pixels: number;
  /** A new canvas of that size; the first one may be thrown away. */
  readonly make: (width: number, height: number) => HTMLCanvasElement;
}

/**
 * Draws a plot once, with its legend below it.
 *
 * @param take what is wanted of the canvas that was drawn on, which is cleared afterwards
 */
export function drawStatic<R>(
  plot: Plot,
  palette: Palette,
  { width, height, pixels, make: makeCanvas }: StaticCanvas,
  take: (canvas: HTMLCanvasElement) => R,
): R {
  const laid = plot.equal === true ? withEqualUnits(plot, palette, makeCanvas(width, height), width) : plot;
  const canvas = makeCanvas(width, height);
  const chart = new Chart(canvas, configuration(laid, palette, width, pixels));
  const taken = take(canvas);
  chart.destroy();
  return taken;
}
