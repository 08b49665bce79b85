import type { Chart, Plugin, Scale } from 'chart.js';
import { type Palette, SANS, SERIF } from './palette.ts';
import { type Box, boxOf, labelPlace, type Pixel } from './label-place.ts';
import type { Fit, Note, Overlay, Plot, Runaway } from './plot.ts';

interface Ground {
  readonly chart: Pick<Chart, 'chartArea' | 'data' | 'getDatasetMeta'>;
  readonly ctx: CanvasRenderingContext2D;
  readonly x: Scale;
  readonly y: Scale;
  readonly palette: Palette;
}

/** Half the width of the highlighter's stroke, in pixels. */
const STROKE = 8;

function drawBand({ chart, ctx, x, palette }: Ground, place: number): void {
  const at = x.getPixelForValue(place);
  const { top, bottom, left, right } = chart.chartArea;
  if (at < left - STROKE || at > right + STROKE) return;
  ctx.fillStyle = palette.highlight;
  ctx.globalAlpha = 0.85;
  ctx.fillRect(at - STROKE, top, 2 * STROKE, bottom - top);
}

/** Where a caption begins so that it covers least of what is drawn: at the top, else in the corner that is left. */
function captionPlace({ chart, ctx }: Ground, text: string, falls: boolean): Pixel {
  const { left, right, top, bottom } = chart.chartArea;
  const { width } = ctx.measureText(text);
  const [atLeft, atRight] = [left + 6, right - 4 - width];
  const [usual, other] = falls ? [atRight, atLeft] : [atLeft, atRight];
  const corners: readonly Pixel[] = [
    { x: usual, y: top + 12 },
    { x: other, y: top + 12 },
    // the corner across is that of the name below
    { x: usual, y: bottom - 6 },
  ];
  return leastCovered(chart, corners, width);
}

/** The place among some at which a label covers the fewest points; the first of several. */
function leastCovered(chart: Ground['chart'], places: readonly Pixel[], width: number): Pixel {
  const points = pointsOf(chart);
  let [best, fewest]: [Pixel, number] = [{ x: 0, y: 0 }, Infinity];
  for (const place of places) {
    const box = boxOf(place, width, LABEL.height);
    const isIn = ({ x, y }: Pixel): boolean =>
      x > box.left - MARKER && x < box.right + MARKER && y > box.top - MARKER && y < box.bottom + MARKER;
    const covered = points.filter(isIn).length;
    if (covered < fewest) [best, fewest] = [place, covered];
    // drawn with every movement of the pointer: no other place is better
    if (fewest === 0) break;
  }
  return best;
}

/** Where the name of the lower axis begins: near its end, and off the points. */
function lowerPlace({ chart, ctx }: Ground, text: string, falls: boolean): Pixel {
  const { left, right, bottom } = chart.chartArea;
  const { width } = ctx.measureText(text);
  const steps = Math.max(1, Math.floor((right - left) / 2 / SHIFT));
  const places = Array.from({ length: steps }, (_, i) => ({
    x: falls ? left + 6 + i * SHIFT : right - 4 - width - i * SHIFT,
    y: bottom - 6,
  }));
  return leastCovered(chart, places, width);
}

/** Ground around the letters of a caption, in pixels. */
const HALO = 3;

function drawCaption(ground: Ground, caption: Overlay & { readonly kind: 'caption' }): void {
  const { ctx, palette } = ground;
  const { upper, lower, falls } = caption;
  ctx.font = `italic 13px ${SERIF}`;
  ctx.fillStyle = palette.quiet;
  ctx.strokeStyle = palette.paper;
  ctx.lineWidth = 2 * HALO;
  ctx.lineJoin = 'round';
  ctx.textAlign = 'left';
  const write = (text: string, { x, y }: Pixel): void => {
    // curves end before the letters where no place is free of them
    ctx.strokeText(text, x, y);
    ctx.fillText(text, x, y);
  };
  write(upper, captionPlace(ground, upper, falls));
  write(lower, lowerPlace(ground, lower, falls));
}

/** Labels nearer than that, in pixels, would overprint one another. */
const LABEL = { height: 13 };

/** Radius of a marker, and how far the name of an axis is moved at a time, in pixels. */
const [MARKER, SHIFT] = [5, 12];

/** Where the points of all series of a chart are. */
function pointsOf(chart: Ground['chart']): readonly Pixel[] {
  return chart.data.datasets.flatMap((_, i) => chart.getDatasetMeta(i).data.map(({ x, y }) => ({ x, y })));
}

function drawFits({ chart, ctx, x, y }: Ground, fits: readonly Fit[]): void {
  const { chartArea } = chart;
  ctx.font = `600 12px ${SANS}`;
  const points = pointsOf(chart);
  const taken: Box[] = [];
  for (const { color, text, from, to } of fits) {
    const [x1, y1] = [x.getPixelForValue(from.x), y.getPixelForValue(from.y)];
    const [x2, y2] = [x.getPixelForValue(to.x), y.getPixelForValue(to.y)];
    ctx.strokeStyle = color;
    ctx.lineWidth = 2.2;
    ctx.beginPath();
    ctx.moveTo(x1, y1);
    ctx.lineTo(x2, y2);
    for (const [px, py] of [
      [x1, y1],
      [x2, y2],
    ] as const) {
      ctx.moveTo(px, py - 7);
      ctx.lineTo(px, py + 7);
    }
    ctx.stroke();
    ctx.fillStyle = color;
    const size = { width: ctx.measureText(text).width, height: LABEL.height };
    // where there is no room for it the order is in the table and in the sentences
    const place = labelPlace(
      [
        { x: x1, y: y1 },
        { x: x2, y: y2 },
      ],
      size,
      chartArea,
      { points, taken },
    );
    if (place === null) continue;
    taken.push(boxOf(place, size.width, size.height));
    ctx.fillText(text, place.x, place.y);
  }
}

/** Part of the width that the guides take, at least and at most. */
const GUIDE = [0.16, 0.3] as const;
/** Pixels that the labels of two slopes need between them, and the distance from the corner. */
const APART = 10;
const CORNER = 14;

function drawGuides({ chart, ctx, x, y, palette }: Ground, orders: readonly number[]): void {
  const { chartArea } = chart;
  const decade = {
    x: x.getPixelForValue(10) - x.getPixelForValue(1),
    y: y.getPixelForValue(1) - y.getPixelForValue(10),
  };
  const all = chartArea.right - chartArea.left;
  const closest = Math.min(...orders.slice(1).map((order, i) => order - orders[i]!));
  const needed = (APART * decade.x) / (Math.max(1, closest) * decade.y);
  const width = Math.min(GUIDE[1] * all, Math.max(GUIDE[0] * all, needed));
  const [left, bottom] = [chartArea.right - width - 34, chartArea.bottom - CORNER - 12];
  ctx.strokeStyle = palette.quiet;
  ctx.fillStyle = palette.quiet;
  ctx.font = `12px ${SANS}`;
  ctx.lineWidth = 0.9;
  let below = Infinity;
  for (const order of orders) {
    const rise = (order * width * decade.y) / decade.x;
    const part = Math.min(1, (0.45 * (chartArea.bottom - chartArea.top)) / rise);
    ctx.beginPath();
    ctx.moveTo(left, bottom);
    ctx.lineTo(left + part * width, bottom - part * rise);
    ctx.stroke();
    const at = bottom - part * rise + 3;
    // digits that would overprint one another: the steeper line has none
    if (below - at < LABEL.height - 2) continue;
    ctx.fillText(String(order), left + part * width + 3, at);
    below = at;
  }
}

/** Half the length of a stroke of a field, in pixels: all are alike, each along its direction. */
const HALF = 8;

function drawField({ chart, ctx, x, y, palette }: Ground, field: Overlay & { readonly kind: 'field' }): void {
  const { chartArea } = chart;
  const perX = chartArea.width / (x.max - x.min);
  const perY = chartArea.height / (y.max - y.min);
  ctx.beginPath();
  ctx.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
  ctx.clip();
  ctx.strokeStyle = palette.quiet;
  ctx.globalAlpha = 0.45;
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (const stroke of field.strokes) {
    const [px, py] = [x.getPixelForValue(stroke.x), y.getPixelForValue(stroke.y)];
    const [sx, sy] = [stroke.dx * perX, -stroke.dy * perY];
    const size = Math.hypot(sx, sy);
    if (!(size > 0)) continue;
    const [ux, uy] = [(sx / size) * HALF, (sy / size) * HALF];
    ctx.moveTo(px - ux, py - uy);
    ctx.lineTo(px + ux, py + uy);
    if (field.arrows) {
      ctx.lineTo(px + ux * 0.5 - uy * 0.3, py + uy * 0.5 + ux * 0.3);
      ctx.moveTo(px + ux, py + uy);
      ctx.lineTo(px + ux * 0.5 + uy * 0.3, py + uy * 0.5 - ux * 0.3);
    }
  }
  ctx.stroke();
}

/** Words beside their places, moved down until none lies on another. */
function drawNotes({ chart, ctx, x, y, palette }: Ground, notes: readonly Note[]): void {
  const { chartArea } = chart;
  ctx.font = `600 12px ${SANS}`;
  const taken: { readonly x: number; readonly y: number; readonly width: number }[] = [];
  for (const { x: at, y: height, text, color } of notes) {
    const { width } = ctx.measureText(text);
    const left = Math.min(x.getPixelForValue(at) + 8, chartArea.right - width - 4);
    let top = y.getPixelForValue(height) + 4;
    while (
      taken.some((t) => left < t.x + t.width && left + width > t.x && Math.abs(t.y - top) < LABEL.height)
    )
      top += LABEL.height;
    taken.push({ x: left, y: top, width });
    // what lies below does not make the words hard to read
    ctx.fillStyle = palette.paper;
    ctx.globalAlpha = 0.8;
    ctx.fillRect(left - 2, top - 10, width + 4, LABEL.height);
    ctx.globalAlpha = 1;
    ctx.fillStyle = color;
    ctx.fillText(text, left, top);
  }
}

/** Pixels from the edge to the tip of an arrow, its half width, and its length. */
const ARROW = { edge: 3, half: 4, long: 9 };

/** Arrows where curves leave the plot, with their names and how far they go. */
function drawRunaways({ chart, ctx, x }: Ground, runaways: readonly Runaway[]): void {
  const { left, right, top, bottom } = chart.chartArea;
  ctx.font = `600 12px ${SANS}`;
  const lines = { up: 0, down: 0 };
  for (const { x: place, up, text, color } of runaways) {
    const at = Math.min(right - ARROW.half, Math.max(left + ARROW.half, x.getPixelForValue(place)));
    const [tip, base] = up
      ? [top + ARROW.edge, top + ARROW.edge + ARROW.long]
      : [bottom - ARROW.edge, bottom - ARROW.edge - ARROW.long];
    ctx.fillStyle = color;
    ctx.beginPath();
    ctx.moveTo(at, tip);
    ctx.lineTo(at - ARROW.half, base);
    ctx.lineTo(at + ARROW.half, base);
    ctx.closePath();
    ctx.fill();
    const { width } = ctx.measureText(text);
    const line = up ? (lines.up += 1) : (lines.down += 1);
    const start = at + 8 + width > right ? at - 8 - width : at + 8;
    const first = up ? top + 26 : bottom - 24;
    ctx.fillText(text, start, first + (up ? 1 : -1) * LABEL.height * (line - 1));
  }
}

/** Whether an overlay lies behind the series. */
function isBehind({ kind }: Overlay): boolean {
  return kind === 'band' || kind === 'guides' || kind === 'field';
}

function draw(ground: Ground, overlay: Overlay): void {
  switch (overlay.kind) {
    case 'band':
      drawBand(ground, overlay.x);
      return;
    case 'caption':
      drawCaption(ground, overlay);
      return;
    case 'fits':
      drawFits(ground, overlay.fits);
      return;
    case 'guides':
      drawGuides(ground, overlay.orders);
      return;
    case 'notes':
      drawNotes(ground, overlay.notes);
      return;
    case 'runaways':
      drawRunaways(ground, overlay.runaways);
      return;
    case 'field':
      drawField(ground, overlay);
  }
}

/** Draws the overlays that lie behind the series, or those before them. */
export function drawOverlays(
  chart: Chart,
  overlays: readonly Overlay[],
  palette: Palette,
  behind: boolean,
): void {
  const {
    ctx,
    scales: { x, y },
  } = chart;
  if (x === undefined || y === undefined) return;
  for (const overlay of overlays.filter((one) => isBehind(one) === behind)) {
    ctx.save();
    draw({ chart, ctx, x, y, palette }, overlay);
    ctx.restore();
  }
}

/**
 * Draws the overlays of a plot with its chart.
 *
 * @param now the plot and the palette at the moment of drawing
 */
export function overlaysPlugin(
  now: () => { readonly plot: Plot; readonly palette: Palette },
): Plugin<'scatter'> {
  const drawNow = (chart: Chart, behind: boolean): void => {
    const { plot, palette } = now();
    drawOverlays(chart, plot.overlays, palette, behind);
  };
  return {
    id: 'overlays',
    beforeDatasetsDraw: (chart) => drawNow(chart, true),
    afterDatasetsDraw: (chart) => drawNow(chart, false),
  };
}
