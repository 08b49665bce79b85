import { type Complex, growthAt, relativeGrowthAt } from '@schritt/core/inspect';
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

/** The edge of the region of another method. */
export interface OtherRegion {
  readonly id: string;
  readonly label: string;
  readonly mark: MethodMark;
  readonly edge: Region['edge'];
}

/** What is drawn of the stability of a method. */
export interface StabilityShown {
  readonly region: Region;
  /** The method itself, where it is one of several. */
  readonly own: { readonly id: string; readonly mark: MethodMark } | null;
  readonly others: readonly OtherRegion[];
  /** Null without a run. */
  readonly spectrum: ScaledSpectrum | null;
}

/** The name of a picture of the stability of a method. */
function titleOf(title: string, { region, spectrum, others }: StabilityShown): string {
  if (region.isStar) return `Order star of ${title}, hatched: |R(z)| > |exp(z)|`;
  const along = spectrum === null ? '' : `, with h times the eigenvalues at h = ${short(spectrum.h, 4)}`;
  const beside =
    others.length === 0 ? '' : `, and edges of those of ${others.map(({ label }) => label).join(', ')}`;
  return `Stability region of ${title} in the complex plane, hatched${along}${beside}`;
}

/** The real and the imaginary axis. */
function axesOf(palette: Palette): readonly Series[] {
  return [
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
}

/** The stability region of a method in the complex plane, with h times the eigenvalues along a run drawn into it. */
export function stabilityPlot(title: string, shown: StabilityShown, palette: Palette): Plot {
  const { region, own, others, spectrum } = shown;
  const { left, right, bottom, top } = region.box;
  const points = (spectrum?.eigenvalues ?? []).map(({ re, im }) => ({
    x: re * (spectrum?.h ?? 0),
    y: im * (spectrum?.h ?? 0),
  }));
  const edge: Series = {
    kind: 'line',
    id: own?.id ?? 'edge',
    label: title,
    points: segmentPoints(region.edge),
    color: own?.mark.color ?? palette.ink,
    width: 1.8,
  };
  const edges = others.map(({ id, label, mark, edge: points }): Series => ({
    kind: 'line',
    id,
    label,
    points: segmentPoints(points),
    color: mark.color,
    width: 1.5,
  }));
  const stable: Series = {
    kind: 'line',
    id: own?.id ?? 'stable',
    label: 'stable',
    points: segmentPoints(region.hatching),
    color: palette.hairline,
    width: 1.2,
  };
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
    title: titleOf(title, shown),
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
    series: [stable, ...axesOf(palette), ...edges, edge, ...dots],
    overlays: [{ kind: 'caption', upper: 'Im z', lower: 'Re z', falls: false }],
    tip: (label, { x, y }) => {
      if (label === 'axis' || label === 'stable') return '';
      const place = `z = ${short(x, 4)} ${y < 0 ? '−' : '+'} ${short(Math.abs(y), 4)} i`;
      if (others.some((one) => one.label === label)) return `${label}: ${place}`;
      const z = { re: x, im: y };
      return region.isStar
        ? `${place}: |R(z)/exp(z)| = ${short(relativeGrowthAt(region.polynomial, z), 4)}`
        : `${place}: an error is multiplied by ${short(growthAt(region.polynomial, z), 4)} per step`;
    },
    legend:
      own === null || others.length === 0
        ? []
        : [{ id: own.id, label: title, mark: own.mark }, ...others].map(({ id, label, mark }) => ({
            id,
            label,
            mark: null,
            color: mark.color,
          })),
    equal: true,
  };
}
