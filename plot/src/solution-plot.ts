import type { MeasuredSeries } from '@schritt/core/document';
import { short } from '@schritt/core/text';
import type { LegendItem, Note, Plot, Point, Series } from './plot.ts';
import type { MethodMark, Palette } from './palette.ts';
import { componentColor, drawnSizes, runDots, runLegend, type RunView, truthItem } from './run-view.ts';

/** Lines of what is said of a point, at most. */
const MAX_LINES = 9;

/** The components that are shown: the chosen one, or all of them together. */
export function shownComponents({ curves, component }: RunView, together: boolean): readonly number[] {
  return together ? curves.components.map((_, j) => j) : [component];
}

/** Whether colours distinguish components; with several methods or step sizes they distinguish those. */
function isOfComponents({ runs }: RunView, components: readonly number[]): boolean {
  return components.length > 1 && runs.length === 1;
}

/** Dots of every run over the exact line, or over a reference where there is none. */
export function solutionSeries(view: RunView, components: readonly number[]): readonly Series[] {
  const { curves, runs, palette } = view;
  const truth = truthItem(view, components);
  const lines = components.flatMap((j): readonly Series[] => {
    const known = curves.truth[j];
    if (known == null || truth === null) return [];
    return [
      {
        kind: 'line',
        id: 'exact',
        label: truth.label,
        points: curves.t.map((t, i) => ({ x: t, y: known.values[i] ?? NaN })),
        color: components.length > 1 ? componentColor(view, j) : palette.ink,
        width: 1.4,
      },
    ];
  });
  const ofComponents = isOfComponents(view, components);
  const dots = runs.flatMap((drawn) =>
    components.map((j) => {
      const points = drawn.run.components[j];
      const sizes = drawnSizes(drawn.run.steps, view.drawn);
      const color = ofComponents ? componentColor(view, j) : drawn.mark.color;
      return runDots(
        { ...drawn, mark: { ...drawn.mark, color } },
        points?.t.map((t, n) => ({ x: t, y: points.values[n] ?? NaN })) ?? [],
        view.byRungs && view.drawn === null ? { ...sizes, joined: 1 } : sizes,
        'transparent',
      );
    }),
  );
  return [...lines, ...dots];
}

/** What is said of a point: its value, then those of the other runs at the same time, and of the solution. */
function valuesAt(
  view: RunView,
  components: readonly number[],
  independent: string,
): (label: string, point: Point) => readonly string[] {
  const { curves, runs } = view;
  return (label, { x, y }) => {
    // of several components together the one whose value this is
    const component =
      components.find((j) =>
        runs.some(({ run, label: own }) => own === label && valueOf(run.components[j], x) === y),
      ) ??
      components[0] ??
      0;
    const name = curves.components[component] ?? '';
    const others = runs.flatMap(({ run, label: own }) => {
      const value = own === label ? null : valueOf(run.components[component], x);
      return value === null ? [] : [`${own}: ${short(value, 8)}`];
    });
    const truth = runs.flatMap(({ run }) => {
      const at = run.components[component]?.t.indexOf(x) ?? -1;
      const value = run.truth[component]?.[at];
      return at < 0 || value === undefined || Number.isNaN(value) ? [] : [value];
    })[0];
    const kind = curves.truth[component]?.kind ?? 'exact';
    return [
      `${label}: ${name} = ${short(y, 8)} at ${independent} = ${short(x, 6)}`,
      ...others,
      ...(truth === undefined ? [] : [`${kind}: ${short(truth, 8)}`]),
    ].slice(0, MAX_LINES);
  };
}

function valueOf(
  kept: { readonly t: readonly number[]; readonly values: readonly number[] } | undefined,
  t: number,
): number | null {
  const at = kept?.t.indexOf(t) ?? -1;
  return at < 0 ? null : (kept?.values[at] ?? null);
}

/** Names of the components at the right ends of their lines. */
function namesAtEnds(view: RunView, components: readonly number[]): readonly Note[] {
  const { curves, runs } = view;
  if (components.length < 2) return [];
  return components.flatMap((j) => {
    const own = curves.truth[j]?.values ?? runs[0]?.run.components[j]?.values ?? [];
    const y = own.at(-1);
    const x = curves.t.at(-1);
    if (x === undefined || y === undefined || !Number.isFinite(y)) return [];
    return [{ x, y, text: curves.components[j] ?? '', color: componentColor(view, j) }];
  });
}

/** How measured points are drawn: as crosses in ink. */
function measuredMark({ ink }: Palette): MethodMark {
  return { color: ink, shape: 'cross', filled: false };
}

/** Measured points of the components that are shown. */
function measuredSeries(
  { curves, palette }: RunView,
  components: readonly number[],
  measured: readonly MeasuredSeries[],
): readonly Series[] {
  const names = new Set(components.map((j) => curves.components[j]));
  return measured
    .filter(({ component }) => names.has(component))
    .map(({ component, points }) => ({
      kind: 'dots',
      id: 'measured',
      label: names.size > 1 ? `${component} measured` : 'measured',
      points: points.map(({ t, value }) => ({ x: t, y: value })),
      mark: measuredMark(palette),
      radius: 4,
      joined: 0,
      pale: [],
      ground: 'transparent',
    }));
}

/** The plot of the solution; marks are overlays of its panel. */
export function solutionPlot(
  view: RunView,
  independent: string,
  together: boolean,
  measured: readonly MeasuredSeries[] = [],
): Plot {
  const components = shownComponents(view, together);
  const { curves } = view;
  const name = components.length > 1 ? '' : (curves.components[components[0] ?? 0] ?? '');
  const notes = namesAtEnds(view, components);
  const points = measuredSeries(view, components, measured);
  // colours distinguish the components of one run, so its marker is in ink
  const told: RunView = isOfComponents(view, components)
    ? { ...view, runs: view.runs.map((run) => ({ ...run, mark: { ...run.mark, color: view.palette.ink } })) }
    : view;
  const extra: readonly LegendItem[] =
    points.length === 0
      ? []
      : [{ id: 'measured', label: 'measured', mark: measuredMark(view.palette), color: view.palette.ink }];
  return {
    title: `Solution: ${name === '' ? 'all components' : name} vs ${independent}`,
    x: { scale: 'linear', range: [curves.t[0] ?? 0, curves.t.at(-1) ?? 1], mostTicks: 9 },
    y: { scale: 'linear', grace: 0.06, mostTicks: 7 },
    series: [...solutionSeries(view, components), ...points],
    overlays: [
      { kind: 'caption', upper: name, lower: independent, falls: false },
      ...(notes.length > 0 ? [{ kind: 'notes' as const, notes }] : []),
    ],
    tip: valuesAt(view, components, independent),
    legend: [...runLegend(told, truthItem(view, components)), ...extra],
    reads: true,
  };
}
