import { exponential, mantissaAndExponent, powerOfTen, short, withMinus } from '@schritt/core/notation';
import type { KeyedCurves } from '../desk/use-results.ts';
import type { Overlay, Picture, Point, Series } from '../pictures/picture.ts';
import { methodMark, type Palette } from '../theme/tokens.ts';
import type { StepView } from '../worker/messages.ts';

/** What of a run its pictures show. */
export interface RunView {
  readonly keyed: KeyedCurves;
  readonly placeOf: (key: string) => number;
  readonly titleOf: (key: string) => string;
  readonly component: number;
  readonly palette: Palette;
}

/** Above this many points the markers shrink, above the next they vanish into a line. */
const FEW = 70;
const MANY = 200;

/** How big the markers of a run are: they thin out to a line where they would touch. */
export function markersOf(steps: number): { readonly radius: number; readonly joined: number } {
  return { radius: steps > MANY ? 0 : steps > FEW ? 2 : 4.5, joined: steps > MANY ? 1.2 : 0 };
}

export interface ErrorScale {
  readonly logarithmic: boolean;
  readonly relative: boolean;
}

/** The errors of every method over time; a logarithmic scale has no room for an error of nothing. */
export function errorSeries(
  { keyed, placeOf, titleOf, component, palette }: RunView,
  { logarithmic, relative }: ErrorScale,
): readonly Series[] {
  return keyed.curves.methods.map(({ components, exact, steps }, i): Series => {
    const key = keyed.keys[i] ?? '';
    const own = components[component];
    const known = exact[component];
    const points = (own?.t ?? []).map((t, n): Point => {
      const truth = known?.[n] ?? NaN;
      const error = (own?.values[n] ?? NaN) - truth;
      const sized = relative ? error / Math.abs(truth) : error;
      const shown = logarithmic ? Math.abs(sized) : sized;
      return { x: t, y: Number.isFinite(shown) && (shown > 0 || !logarithmic) ? shown : NaN };
    });
    return {
      kind: 'dots',
      label: titleOf(key),
      points,
      mark: methodMark(palette, placeOf(key)),
      radius: Math.min(3.5, markersOf(steps).radius),
      joined: 1,
      pale: [],
      ground: palette.paper,
    };
  });
}

/** The frame of the errors over time. */
export function errorFrame(
  { keyed, component }: RunView,
  independent: string,
  { logarithmic, relative }: ErrorScale,
): Pick<Picture, 'title' | 'x' | 'y' | 'tip' | 'overlays'> {
  const { exact, components } = keyed.curves;
  const name = components[component] ?? '';
  const what = `${relative ? 'relative error' : 'error'} of ${name}`;
  return {
    title: `${what} over ${independent}${logarithmic ? ', logarithmic' : ''}`,
    x: { scale: 'linear', range: [exact.t[0] ?? 0, exact.t.at(-1) ?? 1], mostTicks: 9 },
    y: logarithmic
      ? { scale: 'logarithmic', tick: (value) => tenth(value) }
      : { scale: 'linear', grace: 0.06, mostTicks: 7 },
    tip: (label, { x, y }) => `${label}: ${what} ${exponential(y, 4)} at ${independent} = ${short(x, 6)}`,
    overlays: [
      { kind: 'caption', upper: logarithmic ? `|${what}|` : what, lower: independent, falls: false },
    ],
  };
}

/** Powers of ten as ticks of errors. */
function tenth(value: number): string {
  const [digits, exponent] = mantissaAndExponent(value, 1);
  return digits === '1' ? powerOfTen(exponent) : `${digits}·${powerOfTen(exponent)}`;
}

/** Two components of every run against one another, and the exact orbit. */
export function phaseSeries(
  { keyed, placeOf, titleOf, palette }: RunView,
  [across, up]: readonly [number, number],
): readonly Series[] {
  const { curves, keys } = keyed;
  const [x, y] = [curves.exact.values[across], curves.exact.values[up]];
  const orbit: Series = {
    kind: 'line',
    label: 'exact',
    points: x == null || y == null ? [] : x.map((value, i) => ({ x: value, y: y[i] ?? NaN })),
    color: palette.ink,
    width: 1.4,
  };
  const runs = curves.methods.map(({ components, steps }, i): Series => {
    const key = keys[i] ?? '';
    const [first, second] = [components[across], components[up]];
    const heights = new Map(second?.t.map((t, k) => [t, second.values[k] ?? NaN]));
    return {
      kind: 'dots',
      label: titleOf(key),
      // of long runs only the points that both components have kept
      points: (first?.t ?? []).flatMap((t, k) => {
        const height = heights.get(t);
        return height === undefined ? [] : [{ x: first?.values[k] ?? NaN, y: height }];
      }),
      mark: methodMark(palette, placeOf(key)),
      radius: Math.min(3.5, markersOf(steps).radius),
      joined: 1,
      pale: [],
      ground: palette.paper,
    };
  });
  return [orbit, ...runs];
}

/** The frame of two components against one another. */
export function phaseFrame(
  { keyed }: RunView,
  [across, up]: readonly [number, number],
): Pick<Picture, 'title' | 'x' | 'y' | 'tip' | 'overlays'> {
  const [x, y] = [keyed.curves.components[across] ?? '', keyed.curves.components[up] ?? ''];
  return {
    title: `Phase: ${y} over ${x}`,
    x: { scale: 'linear', grace: 0.08, mostTicks: 7 },
    y: { scale: 'linear', grace: 0.08, mostTicks: 7 },
    tip: (label, point) => `${label}: ${x} = ${short(point.x, 6)}, ${y} = ${short(point.y, 6)}`,
    overlays: [{ kind: 'caption', upper: y, lower: x, falls: false }],
  };
}

/**
 * The step from one grid point to the next: where every stage has looked, along its slope, and the step that was taken.
 *
 * @param lines lines of the worked step that are shown; all where null
 */
export function slopesPicture(
  { worked, field }: StepView,
  { independent, name, color, palette, shown }: SlopesWords,
): Picture {
  const { t, h, from, to, exact } = worked;
  const looks = worked.looks.slice(0, shown.looks);
  const heights = [
    from,
    to,
    ...exact.filter((value) => value !== null),
    ...looks.flatMap(({ value, slope }) => [value, value + (slope * h) / 2]),
  ].filter(Number.isFinite);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const room = Math.max(high - low, Math.abs(high) * 1e-6) * 0.35 || 1;
  const segments: Series[] = looks.map(({ label, t: at, value, slope }) => ({
    kind: 'line',
    label: `${label} = ${short(slope, 6)}`,
    points: [
      { x: at, y: value },
      { x: at + h / 2, y: value + (slope * h) / 2 },
    ],
    color,
    width: 1.6,
  }));
  const ends = [{ x: t, y: from }, ...(shown.step ? [{ x: t + h, y: to }] : [])];
  const mark = { color, shape: 'circle', filled: false } as const;
  const overlays: Overlay[] = [
    { kind: 'band', x: t },
    { kind: 'field', strokes: field, arrows: false },
    { kind: 'caption', upper: name, lower: independent, falls: false },
    {
      kind: 'notes',
      notes: looks.map(({ label, t: at, value, slope }) => ({
        x: at + h / 2,
        y: value + (slope * h) / 2,
        text: withMinus(`${label} = ${short(slope, 5)}`),
        color,
      })),
    },
  ];
  return {
    title: `Slopes of step ${worked.n} to ${worked.n + 1}: ${name} over ${independent}`,
    x: { scale: 'linear', range: [t - 0.35 * h, t + 1.6 * h], mostTicks: 6 },
    y: { scale: 'linear', range: [low - room, high + room], mostTicks: 6 },
    series: [
      ...(exact[0] === null || exact[1] === null
        ? []
        : [
            {
              kind: 'line' as const,
              label: 'exact, at both ends',
              points: [
                { x: t, y: exact[0] },
                { x: t + h, y: exact[1] },
              ],
              color: palette.quiet,
              width: 1,
            },
          ]),
      ...segments,
      ...(shown.step
        ? [{ kind: 'line' as const, label: 'the step taken', points: ends, color, width: 3 }]
        : []),
      {
        kind: 'dots',
        label: 'points',
        points: ends,
        mark,
        radius: 5,
        joined: 0,
        pale: [],
        ground: palette.paper,
      },
    ],
    overlays,
    tip: (label, point) => `${label}: ${independent} = ${short(point.x, 6)}, ${name} = ${short(point.y, 8)}`,
  };
}

export interface SlopesWords {
  readonly independent: string;
  readonly name: string;
  readonly color: string;
  readonly palette: Palette;
  /** What is shown while the step is played. */
  readonly shown: { readonly looks: number; readonly step: boolean };
}
