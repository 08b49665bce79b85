import type { Chart, Scale } from 'chart.js';
import { type Palette, SANS } from '../theme/tokens.ts';
import { DASH } from './chart.ts';
import { drawOverlays } from './overlays.ts';
import type { Dots, Picture, Point, Series } from './picture.ts';
import { thinned } from './thinned.ts';
import { SvgPen } from './svg-pen.ts';

interface Ground {
  readonly pen: SvgPen;
  readonly x: Scale;
  readonly y: Scale;
}

function drawLine({ pen, x, y }: Ground, points: readonly Point[], color: string, width: number): void {
  pen.strokeStyle = color;
  pen.lineWidth = width;
  pen.beginPath();
  let isDown = false;
  for (const point of points) {
    const [px, py] = [x.getPixelForValue(point.x), y.getPixelForValue(point.y)];
    if (!Number.isFinite(px) || !Number.isFinite(py)) {
      isDown = false;
      continue;
    }
    if (isDown) pen.lineTo(px, py);
    else pen.moveTo(px, py);
    isDown = true;
  }
  pen.stroke();
}

/** The outline of a marker around a place; false for one of strokes alone, which is not filled. */
function outline(pen: SvgPen, shape: Dots['mark']['shape'], px: number, py: number, r: number): boolean {
  const side = r * Math.SQRT1_2;
  pen.beginPath();
  switch (shape) {
    case 'square':
      pen.rect(px - side, py - side, 2 * side, 2 * side);
      return true;
    case 'circle':
      pen.arc(px, py, r);
      return true;
    case 'triangle':
      for (const [i, angle] of [-90, 30, 150].entries()) {
        const [dx, dy] = [r * Math.cos((angle * Math.PI) / 180), r * Math.sin((angle * Math.PI) / 180)];
        if (i === 0) pen.moveTo(px + dx, py + dy);
        else pen.lineTo(px + dx, py + dy);
      }
      pen.closePath();
      return true;
    case 'diamond':
      pen.moveTo(px, py - r);
      pen.lineTo(px + r, py);
      pen.lineTo(px, py + r);
      pen.lineTo(px - r, py);
      pen.closePath();
      return true;
    case 'plus':
      pen.moveTo(px, py - r);
      pen.lineTo(px, py + r);
      pen.moveTo(px - r, py);
      pen.lineTo(px + r, py);
      return false;
    case 'cross':
      pen.moveTo(px - side, py - side);
      pen.lineTo(px + side, py + side);
      pen.moveTo(px + side, py - side);
      pen.lineTo(px - side, py + side);
      return false;
  }
}

function drawMarkers({ pen, x, y }: Ground, dots: Dots): void {
  const { mark, radius, pale, ground, points } = dots;
  const r = mark.shape === 'square' ? radius + 0.5 : radius;
  for (const [i, point] of points.entries()) {
    const [px, py] = [x.getPixelForValue(point.x), y.getPixelForValue(point.y)];
    if (!Number.isFinite(px) || !Number.isFinite(py)) continue;
    const isPale = pale[i] === true;
    pen.globalAlpha = isPale ? 0.6 : 1;
    if (outline(pen, mark.shape, px, py, r)) {
      pen.fillStyle = mark.filled && !isPale ? mark.color : ground === 'transparent' ? 'none' : ground;
      pen.fill();
    }
    pen.strokeStyle = mark.color;
    pen.lineWidth = 1.6;
    pen.stroke();
  }
  pen.globalAlpha = 1;
}

function drawSeries(ground: Ground, series: Series): void {
  if (series.kind === 'line') {
    ground.pen.dash = series.dashed === true ? DASH.join(' ') : null;
    drawLine(ground, series.points, series.color, series.width);
    ground.pen.dash = null;
    return;
  }
  if (series.joined > 0) drawLine(ground, series.points, series.mark.color, series.joined);
  if (series.radius > 0) drawMarkers(ground, series);
}

/** The lines of the graph paper and the numbers beside them. */
function drawAxes(chart: Chart, { pen, x, y }: Ground, palette: Palette): void {
  const { left, right, top, bottom } = chart.chartArea;
  pen.font = `11px ${SANS}`;
  for (const scale of [x, y])
    for (const { value, label } of scale.ticks) {
      const at = scale.getPixelForValue(value);
      const text = Array.isArray(label) ? label.join(' ') : (label ?? '');
      pen.strokeStyle = text === '' ? palette.gridFine : palette.gridCoarse;
      pen.lineWidth = 0.9;
      pen.beginPath();
      pen.moveTo(scale === x ? at : left, scale === x ? top : at);
      pen.lineTo(scale === x ? at : right, scale === x ? bottom : at);
      pen.stroke();
      pen.fillStyle = palette.quiet;
      pen.textAlign = scale === x ? 'center' : 'right';
      pen.fillText(text, scale === x ? at : left - 6, scale === x ? bottom + 16 : at + 4);
    }
  pen.textAlign = 'left';
}

/** A picture as it stands in its chart, as SVG: lines, markers and words, each an element of its own. */
export function pictureSvg(chart: Chart, picture: Picture, palette: Palette): string {
  const { x, y } = chart.scales;
  if (x === undefined || y === undefined) return '';
  const { left, top, width, height } = chart.chartArea;
  const pen = new SvgPen((text, font) => {
    chart.ctx.save();
    chart.ctx.font = font;
    const measured = chart.ctx.measureText(text);
    chart.ctx.restore();
    return measured;
  });
  const ground: Ground = { pen, x, y };
  pen.fillStyle = palette.paper;
  pen.fillRect(0, 0, chart.width, chart.height);
  drawAxes(chart, ground, palette);
  drawOverlays(chart, picture.overlays, palette, true, pen);
  pen.save();
  pen.beginPath();
  pen.rect(left, top, width, height);
  pen.clip();
  // lines lie below markers, as on the screen
  for (const series of [...thinned(picture, width)].sort(
    (a, b) => Number(a.kind === 'dots') - Number(b.kind === 'dots'),
  ))
    drawSeries(ground, series);
  pen.restore();
  drawOverlays(chart, picture.overlays, palette, false, pen);
  return pen.sheet(chart.width, chart.height, picture.title);
}
