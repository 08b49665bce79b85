import type { ChartOptions } from 'chart.js';
import { type ReactNode, useMemo } from 'react';
import { Scatter } from 'react-chartjs-2';
import type { KeyedCurves } from '../study/use-results.ts';
import { methodMark } from '../theme/tokens.ts';
import { usePalette } from '../theme/use-palette.ts';
import { bandPlugin, captionPlugin, paperGrid, pointOptions } from './chart-setup.ts';

/** Above this many points the markers shrink, above the next they vanish into a line. */
const FEW = 70;
const MANY = 200;

interface SolutionPictureProps {
  readonly keyed: KeyedCurves;
  /** Place of a method in the study, by key: its colour and marker. */
  readonly placeOf: (key: string) => number;
  readonly titleOf: (key: string) => string;
  readonly component: number;
  readonly independent: string;
  /** A time to mark with the highlighter. */
  readonly marked: number | null;
  readonly onMark: (t: number | null) => void;
}

/** Dots of every method over the exact line, at the chosen step size. */
export function SolutionPicture(props: SolutionPictureProps): ReactNode {
  const { keyed, placeOf, titleOf, component, independent, marked, onMark } = props;
  const palette = usePalette();
  const { curves, keys } = keyed;
  const data = useMemo(() => {
    const exact = curves.exact.values[component] ?? null;
    const line = {
      label: 'exact',
      data: exact === null ? [] : curves.exact.t.map((t, i) => ({ x: t, y: exact[i] ?? NaN })),
      showLine: true,
      borderColor: palette.ink,
      borderWidth: 1.4,
      pointRadius: 0,
      pointHitRadius: 0,
      order: 2,
    };
    const dots = curves.methods.map((run, i) => {
      const key = keys[i] ?? '';
      const mark = methodMark(palette, placeOf(key));
      const count = run.steps;
      const points = run.components[component];
      return {
        label: titleOf(key),
        data: points?.t.map((t, n) => ({ x: t, y: points.values[n] ?? NaN })) ?? [],
        showLine: count > MANY,
        borderWidth: 1.2,
        order: 1,
        ...pointOptions(mark, 'transparent', count > MANY ? 0 : count > FEW ? 2 : 4.5),
      };
    });
    return { datasets: [line, ...dots] };
  }, [curves, keys, component, palette, placeOf, titleOf]);

  const times = curves.exact.t;
  const options = useMemo(
    (): ChartOptions<'scatter'> => ({
      responsive: true,
      maintainAspectRatio: false,
      interaction: { mode: 'nearest', intersect: true },
      layout: { padding: { top: 8, right: 12 } },
      scales: {
        x: {
          type: 'linear',
          min: times[0] ?? 0,
          max: times.at(-1) ?? 1,
          ticks: { color: palette.quiet, maxTicksLimit: 9, maxRotation: 0, padding: 6 },
          ...paperGrid(palette),
        },
        y: {
          type: 'linear',
          grace: '6%',
          ticks: { color: palette.quiet, maxTicksLimit: 7 },
          ...paperGrid(palette),
        },
      },
      plugins: {
        legend: { display: false },
        tooltip: { backgroundColor: palette.ink, bodyColor: palette.paper, displayColors: false },
      },
      onHover: (_, elements, chart) => {
        const [element] = elements;
        const point =
          element === undefined ? undefined : chart.data.datasets[element.datasetIndex]?.data[element.index];
        onMark(typeof point === 'object' && point !== null && 'x' in point ? Number(point.x) : null);
      },
    }),
    [palette, times, onMark],
  );
  const name = curves.components[component] ?? '';
  const plugins = [
    bandPlugin('marked', marked, palette),
    captionPlugin('caption', name, independent, palette),
  ];
  return (
    <Scatter
      key={`${name}/${marked ?? ''}/${palette.paper}`}
      data={data}
      options={options}
      plugins={plugins}
      aria-label={`Solution: ${name} over ${independent}`}
      role="img"
    />
  );
}
