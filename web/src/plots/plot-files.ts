import { plainName } from '@schritt/core/text';
import type { Plot } from '@schritt/plot';

/** A cell of a table of comma-separated values (RFC 4180); no text becomes a formula of a spreadsheet. */
function cell(value: string | number): string {
  if (typeof value === 'number') return Number.isFinite(value) ? String(value) : '';
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/** The data of a plot: a line for each point, with the series that it belongs to. */
export function plotCsv({ series }: Plot): string {
  const lines = series.flatMap(({ label, points }) =>
    points.map(({ x, y }) => [label, x, y].map(cell).join(',')),
  );
  return ['series,x,y', ...lines, ''].join('\r\n');
}

/** What a file of the plot is called: its title in plain letters. */
export function plotName({ title }: Plot): string {
  return plainName(title, 'plot');
}
