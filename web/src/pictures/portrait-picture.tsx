import type { Portrait, Stroke } from '@schritt/core/study';
import type { ChartOptions, Plugin } from 'chart.js';
import { type ReactNode, useMemo } from 'react';
import { Scatter } from 'react-chartjs-2';
import type { Palette } from '../theme/tokens.ts';
import { usePalette } from '../theme/use-palette.ts';
import { captionPlugin, paperGrid } from './chart-setup.ts';

/** Strokes of equal length on the screen, each along its direction. */
function fieldPlugin(field: readonly Stroke[], palette: Palette, arrows: boolean): Plugin {
  return {
    id: 'field',
    beforeDatasetsDraw(chart) {
      const x = chart.scales['x'];
      const y = chart.scales['y'];
      if (x === undefined || y === undefined) return;
      const { ctx, chartArea } = chart;
      const perX = chartArea.width / (x.max - x.min);
      const perY = chartArea.height / (y.max - y.min);
      ctx.save();
      ctx.beginPath();
      ctx.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
      ctx.clip();
      ctx.strokeStyle = palette.quiet;
      ctx.globalAlpha = 0.45;
      ctx.lineWidth = 1;
      ctx.beginPath();
      for (const stroke of field) {
        const [px, py] = [x.getPixelForValue(stroke.x), y.getPixelForValue(stroke.y)];
        const [sx, sy] = [stroke.dx * perX, -stroke.dy * perY];
        const size = Math.hypot(sx, sy);
        if (!(size > 0)) continue;
        const [ux, uy] = [(sx / size) * 8, (sy / size) * 8];
        ctx.moveTo(px - ux, py - uy);
        ctx.lineTo(px + ux, py + uy);
        if (arrows) {
          ctx.lineTo(px + ux * 0.5 - uy * 0.3, py + uy * 0.5 + ux * 0.3);
          ctx.moveTo(px + ux, py + uy);
          ctx.lineTo(px + ux * 0.5 + uy * 0.3, py + uy * 0.5 - ux * 0.3);
        }
      }
      ctx.stroke();
      ctx.restore();
    },
  };
}

interface PortraitPictureProps {
  readonly portrait: Portrait;
  readonly names: readonly string[];
  readonly independent: string;
  /** Over time, or for two components in the plane of both. */
  readonly view: 'time' | 'plane';
}

/** The solution of a problem, with the field of its rates behind it. */
export function PortraitPicture({ portrait, names, independent, view }: PortraitPictureProps): ReactNode {
  const palette = usePalette();
  const { t, values, field } = portrait;
  const data = useMemo(() => {
    const [first = [], second = []] = values;
    const common = { showLine: true, pointRadius: 0, borderWidth: 1.8 };
    if (view === 'plane')
      return {
        datasets: [
          { ...common, borderColor: palette.ink, data: first.map((x, i) => ({ x, y: second[i] ?? NaN })) },
        ],
      };
    return {
      datasets: values.map((list, j) => ({
        ...common,
        label: names[j] ?? '',
        borderColor:
          values.length === 1 ? palette.ink : (palette.methods[j % palette.methods.length] ?? palette.ink),
        data: t.map((x, i) => ({ x, y: list[i] ?? NaN })),
      })),
    };
  }, [t, values, names, view, palette]);
  const options = useMemo((): ChartOptions<'scatter'> => {
    const ticks = { color: palette.quiet, maxTicksLimit: 8, maxRotation: 0, padding: 6 };
    const range = view === 'time' ? { min: t[0] ?? 0, max: t.at(-1) ?? 1 } : {};
    return {
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      layout: { padding: { top: 8, right: 12 } },
      scales: {
        x: { type: 'linear', ...range, ticks, ...paperGrid(palette) },
        y: { type: 'linear', ticks, ...paperGrid(palette) },
      },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
    };
  }, [palette, view, t]);
  const shown = view === 'plane' || values.length === 1 ? field : [];
  const upper = view === 'plane' ? (names[1] ?? '') : values.length === 1 ? (names[0] ?? '') : '';
  const plugins = [
    fieldPlugin(shown, palette, view === 'plane'),
    captionPlugin('caption', upper, view === 'plane' ? (names[0] ?? '') : independent, palette),
  ];
  return (
    <Scatter
      key={`${view}/${palette.paper}/${field.length}/${t.at(-1) ?? 0}/${values[0]?.at(-1) ?? 0}/${values[0]?.[200] ?? 0}`}
      data={data}
      options={options}
      plugins={plugins}
      role="img"
      aria-label={
        view === 'plane' ? `Plane of ${names.slice(0, 2).join(' and ')}` : `Solution over ${independent}`
      }
    />
  );
}
