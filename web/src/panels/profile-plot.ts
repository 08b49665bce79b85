import { short } from '@schritt/core/text';
import { type LegendItem, markersOf, type Plot, type Point, type Series } from '@schritt/plot';
import type { MethodMark, Palette } from '@schritt/plot/palette';
import type { Profile } from '../worker/messages.ts';

/** A method of a profile as it is drawn. */
export interface ProfileMethod {
  readonly id: string;
  readonly label: string;
  readonly mark: MethodMark;
}

/** A family over its index at one time: dots of every method over the solution. */
export function profilePlot(
  profile: Profile,
  methods: readonly ProfileMethod[],
  independent: string,
  palette: Palette,
): Plot {
  const { name, indices, truth, t } = profile;
  const pointsOf = (values: readonly number[]): readonly Point[] =>
    indices.map((index, k) => ({ x: index, y: values[k] ?? NaN }));
  const word = truth?.kind ?? 'exact';
  const line: readonly Series[] =
    truth === null
      ? []
      : [
          {
            kind: 'line',
            id: 'exact',
            label: word,
            points: pointsOf(truth.values),
            color: palette.ink,
            width: 1.4,
          },
        ];
  const dots = methods.map(({ id, label, mark }, i): Series => ({
    kind: 'dots',
    id,
    label,
    points: pointsOf(profile.methods[i] ?? []),
    mark,
    ...markersOf(indices.length),
    pale: [],
    ground: 'transparent',
  }));
  const item: readonly LegendItem[] =
    truth === null ? [] : [{ id: 'exact', label: word, mark: null, color: palette.ink }];
  return {
    title: `Profile: ${name} vs index at ${independent} = ${short(t, 6)}`,
    x: { scale: 'linear', mostTicks: 9, range: [indices[0] ?? 0, indices.at(-1) ?? 1] },
    y: { scale: 'linear', grace: 0.06, mostTicks: 7 },
    series: [...line, ...dots],
    overlays: [{ kind: 'caption', upper: name, lower: 'index', falls: false }],
    tip: (label, { x, y }) => `${label}: ${name}[${x}] = ${short(y, 8)}`,
    legend: [...item, ...methods.map(({ id, label, mark }) => ({ id, label, mark, color: mark.color }))],
    reads: true,
  };
}
