import { exponential, short } from '@schritt/core/text';
import type { Plot, Point, Series } from './plot.ts';
import { type DrawnRun, markersOf, runDots, runLegend, type RunView } from './run-view.ts';
import { powerLabel } from './tick-text.ts';

export interface ErrorScale {
  readonly logarithmic: boolean;
  readonly relative: boolean;
  /** The run that others are compared with instead of the solution; null for the solution. */
  readonly against: string | null;
}

/** What a run is compared with at each of its times; NaN where there is nothing. */
function comparedWith(view: RunView, drawn: DrawnRun, other: DrawnRun | null): readonly number[] {
  const times = drawn.run.components[view.component]?.t ?? [];
  if (other === null) {
    const truth = drawn.run.truth[view.component];
    return times.map((_, n) => truth?.[n] ?? NaN);
  }
  const kept = other.run.components[view.component];
  const values = new Map(kept?.t.map((t, n) => [t, kept.values[n] ?? NaN]));
  return times.map((t) => values.get(t) ?? NaN);
}

/** The errors of every run over time; a logarithmic scale has no room for an error of nothing. */
export function errorSeries(
  view: RunView,
  { logarithmic, relative, against }: ErrorScale,
): readonly Series[] {
  const other = view.runs.find(({ id }) => id === against) ?? null;
  return view.runs
    .filter((drawn) => drawn !== other)
    .map((drawn) => {
      const own = drawn.run.components[view.component];
      const known = comparedWith(view, drawn, other);
      const points = (own?.t ?? []).map((t, n): Point => {
        const truth = known[n] ?? NaN;
        const difference = other === null ? own?.errors?.[n] : undefined;
        const error = difference ?? (own?.values[n] ?? NaN) - truth;
        const sized = relative ? error / Math.abs(truth) : error;
        const shown = logarithmic ? Math.abs(sized) : sized;
        return { x: t, y: Number.isFinite(shown) && (shown > 0 || !logarithmic) ? shown : NaN };
      });
      const radius = Math.min(3.5, markersOf(drawn.run.steps).radius);
      return runDots(drawn, points, { radius, joined: 1 }, view.palette.paper);
    });
}

/** What theory says the errors are over time, dashed: the leading term at the step size of each run. */
export function leadingSeries(view: RunView, scale: ErrorScale): readonly Series[] {
  if (scale.against !== null || scale.relative) return [];
  return view.runs.flatMap(({ id, label, mark, run }): readonly Series[] => {
    const values = run.leading?.values[view.component];
    if (run.leading === null || values === undefined) return [];
    const points = run.leading.t.map((t, i) => {
      const error = values[i] ?? NaN;
      const shown = scale.logarithmic ? Math.abs(error) : error;
      return { x: t, y: shown > 0 || !scale.logarithmic ? shown : NaN };
    });
    return [
      {
        kind: 'line',
        id,
        label: `${label}, leading term`,
        points,
        color: mark.color,
        width: 1.2,
        dashed: true,
      },
    ];
  });
}

/** What is shown, as a sentence: an error, or the difference from another run. */
function whatOf({ curves, component, runs }: RunView, { relative, against }: ErrorScale): string {
  const name = curves.components[component] ?? '';
  const other = runs.find(({ id }) => id === against);
  const kind = other === undefined ? 'error' : 'difference';
  const words = `${relative ? `relative ${kind}` : kind} of ${name}`;
  if (other !== undefined) return `${words} from ${other.label}`;
  return curves.truth[component]?.kind === 'reference' ? `${words} against a reference` : words;
}

/** The errors of every run over time, or their differences from one of them. */
export function errorPlot(view: RunView, independent: string, scale: ErrorScale): Plot {
  const { curves } = view;
  const what = whatOf(view, scale);
  const { logarithmic } = scale;
  return {
    title: `${what} vs ${independent}${logarithmic ? ', logarithmic' : ''}`,
    x: { scale: 'linear', range: [curves.t[0] ?? 0, curves.t.at(-1) ?? 1], mostTicks: 9 },
    y: logarithmic
      ? { scale: 'logarithmic', tick: (value) => powerLabel(value, 1) }
      : { scale: 'linear', grace: 0.06, mostTicks: 7 },
    series: [...leadingSeries(view, scale), ...errorSeries(view, scale)],
    overlays: [
      { kind: 'caption', upper: logarithmic ? `|${what}|` : what, lower: independent, falls: false },
    ],
    tip: (label, { x, y }) => `${label}: ${what} ${exponential(y, 4)} at ${independent} = ${short(x, 6)}`,
    legend: runLegend(view, null).filter(({ id }) => id !== scale.against),
    reads: true,
  };
}
