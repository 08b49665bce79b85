import type { Complex } from '@schritt/core/inspect';
import { short } from '@schritt/core/text';
import type { Plot, Point, Series } from '@schritt/plot';
import type { MethodMark, Palette } from '@schritt/plot/palette';
import type { Region } from '../worker/messages.ts';

/** h times eigenvalues of a problem, as one method takes them. */
export interface ScaledSpectrum {
  readonly label: string;
  readonly mark: MethodMark;
  readonly eigenvalues: readonly Complex[];
  readonly h: number;
}

/** Segments as one curve with gaps. */
function segmentPoints(segments: Region['edge']): readonly Point[] {
  return segments.flatMap(([x1, y1, x2, y2]) => [
    { x: x1, y: y1 },
    { x: x2, y: y2 },
    { x: NaN, y: NaN },
  ]);
}

function within(values: readonly number[], low: number, high: number): readonly [number, number] {
  const spread = (high - low) / 20;
  return [
    Math.min(low, ...values.map((value) => value - spread)),
    Math.max(high, ...values.map((value) => value + spread)),
  ];
}

/** What is drawn of the stability of a method. */
export interface StabilityShown {
  readonly region: Region;
  /** Null without a run. */
  readonly spectrum: ScaledSpectrum | null;
  /** By how much an error grows over one step at a place. */
  readonly growth: (z: Complex) => number;
}

/** The stability region of a method in the complex plane, with h times the eigenvalues along a run drawn into it. */
export function stabilityPlot(
  title: string,
  { region, spectrum, growth }: StabilityShown,
  palette: Palette,
): Plot {
  const { left, right, bottom, top } = region.box;
  const points = (spectrum?.eigenvalues ?? []).map(({ re, im }) => ({
    x: re * (spectrum?.h ?? 0),
    y: im * (spectrum?.h ?? 0),
  }));
  const edge: Series = {
    kind: 'line',
    id: 'edge',
    label: 'edge',
    points: segmentPoints(region.edge),
    color: spectrum?.mark.color ?? palette.ink,
    width: 1.8,
  };
  const stable: Series = {
    kind: 'line',
    id: 'stable',
    label: 'stable',
    points: segmentPoints(region.hatching),
    color: palette.hairline,
    width: 1.2,
  };
  const axes: readonly Series[] = [
    [
      { x: -1e6, y: 0 },
      { x: 1e6, y: 0 },
    ],
    [
      { x: 0, y: -1e6 },
      { x: 0, y: 1e6 },
    ],
  ].map((line, i): Series => ({
    kind: 'line',
    id: `axis ${i}`,
    label: 'axis',
    points: line,
    color: palette.quiet,
    width: 0.8,
  }));
  const dots: readonly Series[] =
    spectrum === null
      ? []
      : [
          {
            kind: 'dots',
            id: 'spectrum',
            label: 'h times an eigenvalue',
            points,
            mark: { ...spectrum.mark, filled: true },
            radius: 4,
            joined: 0,
            pale: [],
            ground: palette.paper,
          },
        ];
  return {
    title: `Stability region of ${title} in the complex plane, hatched${spectrum === null ? '' : `, with h times the eigenvalues at h = ${short(spectrum.h, 4)}`}`,
    x: {
      scale: 'linear',
      range: within(
        points.map(({ x }) => x),
        left,
        right,
      ),
      mostTicks: 9,
    },
    y: {
      scale: 'linear',
      range: within(
        points.map(({ y }) => y),
        bottom,
        top,
      ),
      mostTicks: 9,
    },
    series: [stable, ...axes, edge, ...dots],
    overlays: [{ kind: 'caption', upper: 'Im z', lower: 'Re z', falls: false }],
    tip: (label, { x, y }) =>
      label === 'axis' || label === 'stable'
        ? ''
        : `z = ${short(x, 4)} ${y < 0 ? '−' : '+'} ${short(Math.abs(y), 4)} i: an error is multiplied by ${short(growth({ re: x, im: y }), 4)} per step`,
    legend: [],
    equal: true,
  };
}
