import { datasetsOf, methodMark, optionsOf, overlaysPlugin, type Plot } from '@schritt/plot';
import type { Palette } from '@schritt/plot/palette';
import { Chart } from 'chart.js';
import { useEffect, useRef } from 'react';
import { whenIdle } from '../frame/when-idle.ts';
import { usePalette } from '../theme/use-palette.ts';

/** Room of the plot, in px. */
const SIZE = { width: 300, height: 200 };

/** A small plot of all that plots of runs have. */
function smallPlot(palette: Palette): Plot {
  const points = [0, 1, 2, 3].map((x) => ({ x, y: 1 / (1 + x) }));
  const mark = methodMark(palette, 0);
  return {
    title: '',
    x: { scale: 'linear' },
    y: { scale: 'linear', grace: 0.1 },
    series: [
      { kind: 'line', id: 'line', label: '', points, color: palette.ink, width: 1 },
      {
        kind: 'dots',
        id: 'dots',
        label: '',
        points,
        mark,
        radius: 3,
        joined: 1,
        pale: [],
        ground: 'transparent',
      },
    ],
    overlays: [
      { kind: 'band', x: 1 },
      { kind: 'caption', upper: 'y', lower: 't', falls: true },
    ],
    tip: null,
    legend: [],
  };
}

/**
 * Draws a plot that nobody sees while the page has nothing else to do. The first plot of a page takes several frames,
 * since its code runs for the first time: a page whose plots come while work is under way has that behind it then.
 */
export function usePreparedPlots(): void {
  const palette = useRef(usePalette());
  useEffect(
    () =>
      whenIdle(() => {
        const plot = smallPlot(palette.current);
        const made = new Chart<'scatter'>(Object.assign(document.createElement('canvas'), SIZE), {
          type: 'scatter',
          data: { datasets: datasetsOf(plot, SIZE.width) },
          options: { ...optionsOf(plot, palette.current, () => ({})), responsive: false },
          plugins: [overlaysPlugin(() => ({ plot, palette: palette.current }))],
        });
        made.destroy();
      }),
    [],
  );
}
