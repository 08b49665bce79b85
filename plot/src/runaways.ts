import { exponential, short, withMinus } from '@schritt/core/text';
import type { Overlay, Plot, Point, Runaway, Series } from './plot.ts';

/** How many times its height a linear plot may grow for one more curve before that curve counts as a runaway. */
const LINEAR = 10;
/** Decades that a logarithmic plot grows for points that do not count, and the part of its own beyond them. */
const DECADES = 4;
const PART = 0.6;
/** Decades between the middle of a curve's points and its highest one above which it runs away. */
const STEEP = 6;

interface Extent {
  readonly low: number;
  readonly high: number;
}

function extentOf(values: readonly number[]): Extent | null {
  let [low, high] = [Infinity, -Infinity];
  for (const value of values)
    if (Number.isFinite(value)) {
      low = Math.min(low, value);
      high = Math.max(high, value);
    }
  return low <= high ? { low, high } : null;
}

function union(a: Extent, b: Extent): Extent {
  return { low: Math.min(a.low, b.low), high: Math.max(a.high, b.high) };
}

function room({ low, high }: Extent, isLogarithmic: boolean): number {
  if (isLogarithmic) return Math.max(DECADES, PART * (high - low));
  return LINEAR * Math.max(high - low, 1e-3 * Math.max(Math.abs(low), Math.abs(high)), Number.MIN_VALUE);
}

function isNear(base: Extent, other: Extent, isLogarithmic: boolean): boolean {
  const more = room(base, isLogarithmic);
  return other.high <= base.high + more && (isLogarithmic || other.low >= base.low - more);
}

/** Logarithms of the points that speak for a curve: those that are not pale; none of a curve that runs away. */
function countedHeights(series: Series): readonly number[] {
  const isPale = (i: number): boolean => series.kind === 'dots' && series.pale[i] === true;
  const counted = series.points
    .filter((_, i) => !isPale(i))
    .map(({ y }) => Math.log10(y))
    .filter(Number.isFinite)
    .sort((a, b) => a - b);
  const middle = counted[Math.floor(counted.length / 2)] ?? NaN;
  return (counted.at(-1) ?? NaN) - middle > STEEP ? [] : counted;
}

/** The range of all curves that do not run away from the others; null where there are none. */
function extentWithoutRunaways(series: readonly Series[], isLogarithmic: boolean): Extent | null {
  if (isLogarithmic) return extentOf(series.flatMap(countedHeights));
  const extents = series
    .flatMap((one) => {
      const extent = extentOf(one.points.map(({ y }) => y));
      return extent === null ? [] : [{ extent, isLine: one.kind === 'line' }];
    })
    // a line is the solution and stays; then the lowest ones first
    .sort(
      (a, b) =>
        Number(b.isLine) - Number(a.isLine) || a.extent.high - a.extent.low - (b.extent.high - b.extent.low),
    );
  const [first, ...rest] = extents;
  if (first === undefined) return null;
  return rest.reduce(
    (base, { extent, isLine }) => (isLine || isNear(base, extent, false) ? union(base, extent) : base),
    first.extent,
  );
}

function runawayOf(series: Series, { low, high }: Extent): Runaway | null {
  const outside = series.points.filter(({ y }) => y > high || y < low);
  const [first] = outside;
  if (first === undefined) return null;
  const far = outside.reduce((most, one) => (Math.abs(one.y) > Math.abs(most.y) ? one : most), first);
  const up = far.y > high;
  const value = Math.abs(far.y) < 1e5 ? short(far.y, 3) : exponential(far.y, 2);
  return {
    x: outside.find(({ y }) => (y > high ? up : !up))?.x ?? far.x,
    up,
    text: withMinus(`${series.label}: ${value}`),
    color: series.kind === 'dots' ? series.mark.color : series.color,
  };
}

/**
 * A plot whose upright axis stays with the curves that belong together: one that ran away flattens none of the
 * others, and is an arrow at the edge with the value that it comes to.
 */
export function withoutRunaways(plot: Plot): Plot {
  if (plot.y.range !== undefined || plot.equal === true) return plot;
  const isLogarithmic = plot.y.scale === 'logarithmic';
  const base = extentWithoutRunaways(plot.series, isLogarithmic);
  if (base === null) return plot;
  const all = plot.series.flatMap((one) => one.points.map(({ y }: Point) => y));
  const whole = extentOf(isLogarithmic ? all.map(Math.log10) : all);
  if (whole === null || isNear(base, whole, isLogarithmic)) return plot;
  const more = isLogarithmic
    ? 0.5 * room(base, true)
    : 0.08 * (base.high - base.low || Math.abs(base.high) || 1);
  const low = base.low - (isLogarithmic ? 0.3 : more);
  const shown: Extent = { low, high: base.high + more };
  const ends: Extent = isLogarithmic ? { low: 10 ** shown.low, high: 10 ** shown.high } : shown;
  // points that are drawn twice, to be pointed at, speak once
  const spoken = new Set<string>();
  const runaways = plot.series.flatMap((one) => {
    const found = spoken.has(one.id) ? null : runawayOf(one, ends);
    if (found === null) return [];
    spoken.add(one.id);
    return [found];
  });
  const arrows: Overlay = { kind: 'runaways', runaways };
  const { scale } = plot.x;
  const across = extentOf(
    plot.series.flatMap(({ points }) =>
      points.flatMap(({ x, y }) => (Number.isNaN(y) || (scale === 'logarithmic' && x <= 0) ? [] : [x])),
    ),
  );
  // what lies beyond the upright axis still has its place along the other
  const x = plot.x.range ?? (across === null ? null : [across.low, across.high]);
  return {
    ...plot,
    x: { ...plot.x, ...(x === null ? {} : { range: x }) },
    y: { ...plot.y, range: [ends.low, ends.high] },
    overlays: [...plot.overlays, arrows],
  };
}
