import type { ChartOptions, Plugin } from 'chart.js';
import { stepSizeText } from '@schritt/core';
import { type ReactNode, useMemo } from 'react';
import { Scatter } from 'react-chartjs-2';
import { powerOfTen } from '../math/superscript.ts';
import type { KeyedResult } from '../study/use-results.ts';
import { methodMark, type Palette } from '../theme/tokens.ts';
import { usePalette } from '../theme/use-palette.ts';
import { bandPlugin, captionPlugin, paperGrid, pointOptions } from './chart-setup.ts';

interface SlopeLabel {
  readonly color: string;
  readonly text: string;
  readonly h: number;
  readonly error: number;
}

/** The fitted slope, written beside the middle of its line. */
function slopePlugin(labels: readonly SlopeLabel[]): Plugin {
  return {
    id: 'slopes',
    afterDatasetsDraw(chart) {
      const x = chart.scales['x'];
      const y = chart.scales['y'];
      if (x === undefined || y === undefined) return;
      const { ctx } = chart;
      ctx.save();
      ctx.font = `600 11px 'IBM Plex Sans', sans-serif`;
      for (const { color, text, h, error } of labels) {
        ctx.fillStyle = color;
        ctx.fillText(text, x.getPixelForValue(h) + 8, y.getPixelForValue(error) + 16);
      }
      ctx.restore();
    },
  };
}

interface OrderPictureProps {
  readonly keyed: KeyedResult;
  readonly placeOf: (key: string) => number;
  /** What the error is of, for the caption. */
  readonly caption: string;
  readonly chosenSize: number | null;
  readonly onChoose: (rung: number) => void;
}

function labelsOf(
  keyed: KeyedResult,
  placeOf: (key: string) => number,
  palette: Palette,
): readonly SlopeLabel[] {
  return keyed.result.methods.flatMap(({ fit, rungs }, i) => {
    if (fit === null) return [];
    const middle = rungs[Math.floor((fit.from + fit.to) / 2)];
    if (middle?.error == null) return [];
    const { color } = methodMark(palette, placeOf(keyed.keys[i] ?? ''));
    return [{ color, text: `slope ${fit.order.toFixed(2)}`, h: middle.h, error: middle.error }];
  });
}

/** Errors over step sizes, both on logarithmic scales: the slope of a line is the order. */
export function OrderPicture({
  keyed,
  placeOf,
  caption,
  chosenSize,
  onChoose,
}: OrderPictureProps): ReactNode {
  const palette = usePalette();
  const data = useMemo(
    () => ({
      datasets: keyed.result.methods.map((method, i) => ({
        label: method.title,
        data: method.rungs.map((rung) => ({
          x: rung.h,
          y: rung.error !== null && rung.error > 0 ? rung.error : NaN,
        })),
        showLine: true,
        borderWidth: 1.2,
        ...pointOptions(methodMark(palette, placeOf(keyed.keys[i] ?? '')), palette.paper),
      })),
    }),
    [keyed, palette, placeOf],
  );
  const options = useMemo(
    (): ChartOptions<'scatter'> => ({
      responsive: true,
      maintainAspectRatio: false,
      layout: { padding: { top: 8, right: 14 } },
      scales: {
        x: {
          type: 'logarithmic',
          ticks: {
            color: palette.quiet,
            maxRotation: 0,
            padding: 6,
            callback: (value) => {
              const digits = Number(value).toExponential().split('e')[0];
              return digits === '1' ? stepSizeText(Number(value)) : '';
            },
          },
          ...paperGrid(palette),
        },
        y: {
          type: 'logarithmic',
          ticks: {
            color: palette.quiet,
            callback: (value) => {
              const exponent = Math.log10(Number(value));
              return Number.isInteger(exponent) && exponent % 2 === 0 ? powerOfTen(exponent) : '';
            },
          },
          ...paperGrid(palette),
        },
      },
      plugins: {
        legend: { display: false },
        tooltip: {
          backgroundColor: palette.ink,
          bodyColor: palette.paper,
          displayColors: false,
          callbacks: {
            label: ({ dataset, parsed }) =>
              `${dataset.label ?? ''}: error ${parsed.y?.toExponential(3) ?? ''} at h = ${stepSizeText(parsed.x ?? NaN)}`,
          },
        },
      },
      onClick: (_, elements) => {
        const [element] = elements;
        if (element !== undefined) onChoose(element.index);
      },
    }),
    [palette, onChoose],
  );
  const plugins = [
    bandPlugin('chosen', chosenSize, palette),
    captionPlugin('caption', caption, 'h', palette),
    slopePlugin(labelsOf(keyed, placeOf, palette)),
  ];
  const version = keyed.result.methods.map((m) => m.fit?.order ?? 0).join();
  return (
    <Scatter
      key={`${chosenSize ?? ''}/${palette.paper}/${caption}/${version}`}
      data={data}
      options={options}
      plugins={plugins}
      aria-label={`Order: ${caption} over h, both logarithmic`}
      role="img"
    />
  );
}
