import type { Plugin } from 'chart.js';
import type { Palette } from '../theme/tokens.ts';

/** The line of a fit over its window, on logarithmic scales. */
export interface FitLine {
  readonly color: string;
  readonly text: string;
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
}

/** Fitted lines over their windows, with ends, and their slopes written beside them. */
export function fitPlugin(lines: readonly FitLine[]): Plugin {
  return {
    id: 'fits',
    afterDatasetsDraw(chart) {
      const { ctx, scales } = chart;
      const [x, y] = [scales['x'], scales['y']];
      if (x === undefined || y === undefined) return;
      ctx.save();
      ctx.font = `600 11px 'IBM Plex Sans', sans-serif`;
      const taken: { readonly x: number; readonly y: number }[] = [];
      for (const { color, text, from, to } of lines) {
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
        const label = { x: (x1 + x2) / 2 + 8, y: (y1 + y2) / 2 + 16 };
        while (taken.some(({ x: tx, y: ty }) => Math.abs(tx - label.x) < 74 && Math.abs(ty - label.y) < 13))
          label.y += 13;
        taken.push(label);
        ctx.fillText(text, label.x, label.y);
      }
      ctx.restore();
    },
  };
}

/** Part of the width that the guides take, and their distance from the corner. */
const GUIDE = 0.16;
const WIDEST_GUIDE = 0.3;
/** Pixels that the labels of two slopes need between them. */
const APART = 10;
const CORNER = 14;

/** Slopes to compare with, as a fan of thin lines in the lower right corner. */
export function guidePlugin(orders: readonly number[], palette: Palette): Plugin {
  return {
    id: 'guides',
    beforeDatasetsDraw(chart) {
      const { ctx, scales, chartArea } = chart;
      const [x, y] = [scales['x'], scales['y']];
      if (x === undefined || y === undefined) return;
      const decade = {
        x: x.getPixelForValue(10) - x.getPixelForValue(1),
        y: y.getPixelForValue(1) - y.getPixelForValue(10),
      };
      const all = chartArea.right - chartArea.left;
      const closest = Math.min(...orders.slice(1).map((order, i) => order - orders[i]!));
      const needed = (APART * decade.x) / (Math.max(1, closest) * decade.y);
      const width = Math.min(WIDEST_GUIDE * all, Math.max(GUIDE * all, needed));
      const [left, bottom] = [chartArea.right - width - 34, chartArea.bottom - CORNER - 12];
      ctx.save();
      ctx.strokeStyle = palette.quiet;
      ctx.fillStyle = palette.quiet;
      ctx.font = `11px 'IBM Plex Sans', sans-serif`;
      ctx.lineWidth = 0.9;
      for (const order of orders) {
        const rise = (order * width * decade.y) / decade.x;
        const part = Math.min(1, (0.45 * (chartArea.bottom - chartArea.top)) / rise);
        ctx.beginPath();
        ctx.moveTo(left, bottom);
        ctx.lineTo(left + part * width, bottom - part * rise);
        ctx.stroke();
        ctx.fillText(String(order), left + part * width + 3, bottom - part * rise + 3);
      }
      ctx.restore();
    },
  };
}
