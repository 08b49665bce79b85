import { short } from '@schritt/core/text';
import {
  markersOf,
  type Plot,
  runDots,
  runLegend,
  type RunView,
  type Series,
  truthItem,
} from '@schritt/plot';

/** Two components of every run against one another, and the orbit of the solution. */
export function phaseSeries(view: RunView, [across, up]: readonly [number, number]): readonly Series[] {
  const { curves, runs, palette } = view;
  const [x, y] = [curves.truth[across], curves.truth[up]];
  const truth = truthItem(view, [across, up]);
  const orbit: readonly Series[] =
    x == null || y == null || truth === null
      ? []
      : [
          {
            kind: 'line',
            id: 'exact',
            label: truth.label,
            points: x.values.map((value, i) => ({ x: value, y: y.values[i] ?? NaN })),
            color: palette.ink,
            width: 1.4,
          },
        ];
  const drawn = runs.map((one): Series => {
    const [first, second] = [one.run.components[across], one.run.components[up]];
    const heights = new Map(second?.t.map((t, k) => [t, second.values[k] ?? NaN]));
    // of long runs only the points that both components have kept
    const points = (first?.t ?? []).flatMap((t, k) => {
      const height = heights.get(t);
      return height === undefined ? [] : [{ x: first?.values[k] ?? NaN, y: height }];
    });
    const radius = Math.min(3.5, markersOf(one.run.steps).radius);
    return runDots(one, points, { radius, joined: 1 }, palette.paper);
  });
  return [...orbit, ...drawn];
}

/**
 * Two components against one another.
 *
 * @param equal whether both have the same unit of length
 */
export function phasePlot(view: RunView, axes: readonly [number, number], equal: boolean): Plot {
  const [across, up] = axes;
  const [x, y] = [view.curves.components[across] ?? '', view.curves.components[up] ?? ''];
  return {
    title: `Phase plane: ${y} vs ${x}`,
    x: { scale: 'linear', grace: 0.08, mostTicks: 7 },
    y: { scale: 'linear', grace: 0.08, mostTicks: 7 },
    series: phaseSeries(view, axes),
    overlays: [{ kind: 'caption', upper: y, lower: x, falls: false }],
    tip: (label, point) => `${label}: ${x} = ${short(point.x, 6)}, ${y} = ${short(point.y, 6)}`,
    legend: runLegend(view, truthItem(view, axes)),
    equal,
  };
}
