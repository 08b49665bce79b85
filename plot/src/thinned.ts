import type { Plot, Series } from './plot.ts';

/** Radius of a small marker. */
const SMALL = 2;
/** Width of the line that represents markers which would touch. */
const LINE = 1.2;

function thinnedSeries(series: Series, width: number, [from, to]: readonly [number, number]): Series {
  if (series.kind === 'line' || series.radius === 0 || series.keepsMarkers === true) return series;
  const seen = series.points.filter(({ x }) => x >= from && x <= to).length;
  const apart = width / Math.max(1, seen);
  if (apart >= 2 * series.radius) return series;
  if (series.radius > SMALL && apart >= 2 * SMALL) return { ...series, radius: SMALL };
  return { ...series, radius: 0, joined: Math.max(series.joined, LINE) };
}

/**
 * The series of a plot for a width in pixels: markers that would touch are smaller, and a line where these would, too.
 * On a logarithmic axis, which shows rungs, every marker stays.
 */
export function thinned({ series, x }: Plot, width: number): readonly Series[] {
  if (x.scale === 'logarithmic') return series;
  const range = x.range ?? [-Infinity, Infinity];
  return series.map((one) => thinnedSeries(one, width, range));
}
