import type { Portrait } from '@schritt/core/study';
import { type ReactNode, useMemo } from 'react';
import { PlotCanvas } from '../plots/plot-canvas.tsx';
import type { Plot, Series } from '@schritt/plot';
import type { Palette } from '@schritt/plot/palette';
import { usePalette } from '../theme/use-palette.ts';

interface PortraitPanelProps {
  readonly portrait: Portrait;
  readonly names: readonly string[];
  readonly independent: string;
  /** Over time, or for two components in the plane of both. */
  readonly view: 'time' | 'plane';
}

const WIDTH = 1.8;

function planeSeries({ portrait }: PortraitPanelProps, palette: Palette): readonly Series[] {
  const [first = [], second = []] = portrait.values;
  const points = first.map((x, i) => ({ x, y: second[i] ?? NaN }));
  return [{ kind: 'line', id: 'orbit', label: '', points, color: palette.ink, width: WIDTH }];
}

function timeSeries({ portrait, names }: PortraitPanelProps, palette: Palette): readonly Series[] {
  const { t, values } = portrait;
  const colors = values.length === 1 ? [palette.ink] : palette.methods;
  return values.map((list, j) => ({
    kind: 'line',
    id: names[j] ?? '',
    label: names[j] ?? '',
    points: t.map((x, i) => ({ x, y: list[i] ?? NaN })),
    color: colors[j % colors.length] ?? palette.ink,
    width: WIDTH,
  }));
}

/** The solution of a problem as a plot, with the field of its right-hand sides behind it. */
export function portraitPlot(props: PortraitPanelProps, palette: Palette): Plot {
  const { portrait, names, independent, view } = props;
  const { t, values, field } = portrait;
  const isPlane = view === 'plane';
  const upper = isPlane ? (names[1] ?? '') : values.length === 1 ? (names[0] ?? '') : '';
  return {
    title: isPlane ? `Plane of ${names.slice(0, 2).join(' and ')}` : `Solution vs ${independent}`,
    x: { scale: 'linear', mostTicks: 8, ...(isPlane ? {} : { range: [t[0] ?? 0, t.at(-1) ?? 1] }) },
    y: { scale: 'linear', mostTicks: 8 },
    series: isPlane ? planeSeries(props, palette) : timeSeries(props, palette),
    overlays: [
      { kind: 'field', strokes: isPlane || values.length === 1 ? field : [], arrows: isPlane },
      { kind: 'caption', upper, lower: isPlane ? (names[0] ?? '') : independent, falls: false },
    ],
    tip: null,
    legend: [],
  };
}

/** The solution of a problem, with the field of its right-hand sides behind it. */
export function PortraitPanel({ portrait, names, independent, view }: PortraitPanelProps): ReactNode {
  const palette = usePalette();
  const plot = useMemo(
    () => portraitPlot({ portrait, names, independent, view }, palette),
    [portrait, names, independent, view, palette],
  );
  return <PlotCanvas plot={plot} />;
}
