import { short, withMinus } from '@schritt/core/text';
import type { Overlay, Plot, Series } from '@schritt/plot';
import type { Palette } from '@schritt/plot/palette';
import type { StepView } from '../worker/messages.ts';

/**
 * The step from one grid point to the next: where every stage has looked, along its slope, and the step that was taken.
 *
 * @param lines lines of the worked step that are shown; all where null
 */
export function directionFieldPlot(
  { worked, field }: StepView,
  { independent, name, color, palette, shown }: DirectionFieldText,
): Plot {
  const { t, h, from, to, exact } = worked;
  const looks = worked.slopes.slice(0, shown.looks);
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
    id: label,
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
    title: `Direction field and step ${worked.n} to ${worked.n + 1}: ${name} vs ${independent}`,
    x: { scale: 'linear', range: [t - 0.35 * h, t + 1.6 * h], mostTicks: 6 },
    y: { scale: 'linear', range: [low - room, high + room], mostTicks: 6 },
    series: [
      ...(exact[0] === null || exact[1] === null
        ? []
        : [
            {
              kind: 'line' as const,
              id: 'exact',
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
        ? [{ kind: 'line' as const, id: 'step', label: 'the step taken', points: ends, color, width: 3 }]
        : []),
      {
        kind: 'dots',
        id: 'points',
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
    legend: [],
    tip: (label, point) => `${label}: ${independent} = ${short(point.x, 6)}, ${name} = ${short(point.y, 8)}`,
  };
}

export interface DirectionFieldText {
  readonly independent: string;
  readonly name: string;
  readonly color: string;
  readonly palette: Palette;
  /** What is shown while the step is played. */
  readonly shown: { readonly looks: number; readonly step: boolean };
}
