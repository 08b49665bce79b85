import { log10 } from '../../elementary/logarithm.ts';
import { mantissaAndExponent, powerOfTen, short, withMinus } from '../../text/number-text.ts';
import { oneLine } from '../tables/cell-text.ts';
import { colourOf, isSecondRound, outlineOf } from './markers.ts';
import type { Plot, PlotAxis, PlotInk, PlotPoint, PlotSeries, PlotSize } from './plot.ts';
import { linearScale, logarithmicScale, type Scale } from './ticks.ts';

/** How large everything is, in the units of the drawing. */
interface Measures {
  readonly width: number;
  /** Height of all, or of the frame alone: the legend then comes below it. */
  readonly height: { readonly all: number } | { readonly frame: number };
  /** Units of the drawing in one of the file, and what that is. */
  readonly unit: { readonly size: number; readonly name: string };
  readonly type: number;
  readonly radius: number;
  readonly stroke: number;
}

const MEASURES: Readonly<Record<PlotSize, Measures>> = {
  slide: {
    width: 1280,
    height: { all: 720 },
    unit: { size: 1, name: '' },
    type: 27,
    radius: 8.5,
    stroke: 2.8,
  },
  // 85 mm, at 10 units a millimetre
  column: {
    width: 850,
    height: { frame: 420 },
    unit: { size: 10, name: 'mm' },
    type: 28,
    radius: 9,
    stroke: 3,
  },
};

const INK = '#1B2733';
const QUIET = '#5C6873';
const GRID = '#DCE4E6';

/** A text in the file: nothing of it is markup. */
function escaped(text: string): string {
  return oneLine(text).replace(/[&<>"']/gu, (sign) => `&#${sign.codePointAt(0) ?? 0};`);
}

function n(value: number): string {
  return String(Math.round(value * 100) / 100);
}

/** A number at an axis. */
function tickText(value: number, { scale }: PlotAxis): string {
  if (scale === 'linear' || (Math.abs(value) >= 1e-3 && Math.abs(value) < 1e4))
    return withMinus(short(value, 6));
  const [digits, exponent] = mantissaAndExponent(value, 1);
  return digits === '1' ? powerOfTen(exponent) : `${digits}·${powerOfTen(exponent)}`;
}

/** About how wide a text is. */
function widthOf(text: string, type: number): number {
  return 0.56 * type * Array.from(text).length;
}

function scaleOf(axis: PlotAxis, values: readonly number[]): Scale {
  return axis.scale === 'linear' ? linearScale(values) : logarithmicScale(values);
}

/** Where a value is between the ends of an axis, from 0 to 1; NaN for one that has no place. */
function partOf({ scale }: PlotAxis, { low, high }: Scale, value: number): number {
  return scale === 'linear'
    ? (value - low) / (high - low)
    : (log10(value) - log10(low)) / (log10(high) - log10(low));
}

function isShown(point: PlotPoint, { x, y }: Plot): boolean {
  const has = (value: number, axis: PlotAxis): boolean =>
    Number.isFinite(value) && (axis.scale === 'linear' || value > 0);
  return has(point.x, x) && has(point.y, y);
}

/** Entries of the legend in lines that are no longer than the picture. */
function legendLines(
  series: readonly PlotSeries[],
  { width, type }: Measures,
): readonly (readonly PlotSeries[])[] {
  const lines: PlotSeries[][] = [[]];
  let used = 0;
  for (const one of series) {
    const own = widthOf(one.label, type) + 3.4 * type;
    if (used + own > width - 2 * type && used > 0) {
      lines.push([]);
      used = 0;
    }
    lines.at(-1)?.push(one);
    used += own;
  }
  return lines;
}

/**
 * Draws a plot as SVG, for a slide or a column, in colour or in black and white where markers alone tell methods apart.
 */
export function plotSvg(plot: Plot, size: PlotSize, ink: PlotInk): string {
  const m = MEASURES[size];
  const { type } = m;
  const shown = plot.series.map((one) => ({ ...one, points: one.points.filter((p) => isShown(p, plot)) }));
  const all = shown.flatMap(({ points }) => points);
  const [xs, ys] = [
    scaleOf(
      plot.x,
      all.map((p) => p.x),
    ),
    scaleOf(
      plot.y,
      all.map((p) => p.y),
    ),
  ];
  const yTexts = ys.numbered.map((value) => tickText(value, plot.y));
  const named = legendLines(
    shown.filter(({ unnamed }) => unnamed !== true),
    m,
  );
  const left = 0.8 * type + Math.max(...yTexts.map((text) => widthOf(text, type)), type);
  const [right, top] = [m.width - 1.2 * type, 2.4 * type];
  const below = (2.9 + 1.5 * named.length) * type;
  const height = 'all' in m.height ? m.height.all : Math.round(top + m.height.frame + below);
  const bottom = height - below;
  const at = (p: { readonly x: number; readonly y: number }): readonly [number, number] => [
    left + (right - left) * partOf(plot.x, xs, p.x),
    bottom - (bottom - top) * partOf(plot.y, ys, p.y),
  ];
  const inUnits = (length: number): string => `${n(length / m.unit.size)}${m.unit.name}`;
  const paint = (mark: number | null): string => (ink === 'black' || mark === null ? INK : colourOf(mark));
  const text = (x: number, y: number, words: string, anchor: string, more = ''): string =>
    `<text x="${n(x)}" y="${n(y)}" text-anchor="${anchor}"${more}>${escaped(words)}</text>`;

  const frame = [
    ...xs.marked.map((value) => {
      const [x] = at({ x: value, y: ys.low });
      return `<path d="M${n(x)} ${n(bottom)}v${n(-0.3 * type)}" stroke="${QUIET}" stroke-width="1"/>`;
    }),
    ...ys.marked.map((value) => {
      const [, y] = at({ x: xs.low, y: value });
      return `<path d="M${n(left)} ${n(y)}h${n(0.3 * type)}" stroke="${QUIET}" stroke-width="1"/>`;
    }),
    ...xs.numbered.map((value) => {
      const [x] = at({ x: value, y: ys.low });
      const grid = `<path d="M${n(x)} ${n(top)}V${n(bottom)}" stroke="${GRID}" stroke-width="1.2"/>`;
      return `${grid}${text(x, bottom + 1.25 * type, tickText(value, plot.x), 'middle')}`;
    }),
    ...ys.numbered.map((value, i) => {
      const [, y] = at({ x: xs.low, y: value });
      const grid = `<path d="M${n(left)} ${n(y)}H${n(right)}" stroke="${GRID}" stroke-width="1.2"/>`;
      return `${grid}${text(left - 0.35 * type, y + 0.35 * type, yTexts[i] ?? '', 'end')}`;
    }),
    `<path d="M${n(left)} ${n(top)}V${n(bottom)}H${n(right)}" fill="none" stroke="${INK}" stroke-width="${n(m.stroke / 2)}"/>`,
    text(right, bottom + 2.5 * type, plot.x.label, 'end', ' font-style="italic"'),
    text(0.6 * type, 1.5 * type, plot.y.label, 'start', ' font-style="italic"'),
  ];

  const stroke = (path: string, { mark, line }: PlotSeries): string => {
    if (line === 'none' || path === '') return '';
    const width = line === 'full' ? m.stroke : m.stroke / 2;
    const dash = line === 'dashed' ? ` stroke-dasharray="${n(3 * m.stroke)} ${n(2 * m.stroke)}"` : '';
    return `<path d="${path}" fill="none" stroke="${paint(mark)}" stroke-width="${n(width)}" stroke-linejoin="round"${dash}/>`;
  };
  const curve = (one: PlotSeries): string => {
    const path = one.points.map((p, i) => {
      const [x, y] = at(p);
      return `${i === 0 ? 'M' : 'L'}${n(x)} ${n(y)}`;
    });
    return stroke(path.join(''), one);
  };
  const marker = (mark: number, x: number, y: number, hollow: boolean): string =>
    `<path d="${outlineOf(mark, x, y, m.radius)}" fill="${hollow ? '#FFFFFF' : paint(mark)}" stroke="${paint(mark)}" stroke-width="${n(m.stroke / 1.6)}"/>${middle(mark, x, y)}`;
  // the markers of a second round have a light middle
  const middle = (mark: number, x: number, y: number): string =>
    isSecondRound(mark) ? `<circle cx="${n(x)}" cy="${n(y)}" r="${n(0.36 * m.radius)}" fill="#FFFFFF"/>` : '';
  const dots = ({ points, mark }: PlotSeries): string =>
    mark === null ? '' : points.map((p) => marker(mark, ...at(p), p.hollow === true)).join('');

  const legend = named.flatMap((line, i) => {
    const y = bottom + (4 + 1.5 * i) * type;
    let x = type;
    return line.map((one) => {
      const [from, to] = [x, x + 2 * type];
      x = to + widthOf(one.label, type) + 1.4 * type;
      const rule = stroke(`M${n(from)} ${n(y - 0.32 * type)}H${n(to)}`, one);
      const dot = one.mark === null ? '' : marker(one.mark, (from + to) / 2, y - 0.32 * type, false);
      return `${rule}${dot}${text(to + 0.4 * type, y, one.label, 'start')}`;
    });
  });

  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${inUnits(m.width)}" height="${inUnits(height)}" viewBox="0 0 ${m.width} ${height}" role="img">`,
    `<title>${escaped(plot.title)}</title>`,
    `<rect width="${m.width}" height="${height}" fill="#FFFFFF"/>`,
    `<g font-family="'IBM Plex Sans', Helvetica, Arial, sans-serif" font-size="${n(type)}" fill="${INK}">`,
    ...frame,
    ...shown.map(curve),
    ...shown.map(dots),
    ...legend,
    '</g>',
    '</svg>',
    '',
  ].join('\n');
}
