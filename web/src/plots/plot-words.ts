import { exponential } from '@schritt/core/text';
import type { Plot, Series } from '@schritt/plot';

/** One curve as a sentence: where it begins and ends, from left to right. */
function curveWords({ label, points }: Series): string | null {
  const known = points.filter(({ x, y }) => Number.isFinite(x) && Number.isFinite(y));
  const [first, last] = [known[0], known.at(-1)];
  if (label === '' || first === undefined || last === undefined) return null;
  const at = ({ x, y }: typeof first): string => `${exponential(y, 3)} at ${exponential(x, 3)}`;
  return known.length === 1 ? `${label}: ${at(first)}` : `${label}: from ${at(first)} to ${at(last)}`;
}

/** What a plot shows, for those who do not see it. */
export function plotWords({ title, series }: Plot): string {
  return [title, ...series.flatMap((one) => curveWords(one) ?? [])].join('. ');
}
