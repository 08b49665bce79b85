import { short, stepSizeText } from '@schritt/core/text';
import type { DrawnAs } from '@schritt/core/document';
import type { Curves, Trajectory } from '@schritt/core/study';
import type { KeyedCurves } from './keyed.ts';
import type { Dots, LegendItem, Point } from './plot.ts';

import { methodMark, type MethodMark, mixed, type Palette } from './palette.ts';

/** A run as plots draw it. */
export interface DrawnRun {
  readonly id: string;
  readonly label: string;
  readonly mark: MethodMark;
  readonly run: Trajectory;
}

/** What of the runs their plots show. */
export interface RunView {
  readonly curves: Curves;
  readonly runs: readonly DrawnRun[];
  /** Whether they are runs of one method at several step sizes. */
  readonly byRungs: boolean;
  readonly component: number;
  /** As points, as a line or both; null for what suits the number of points. */
  readonly drawn: DrawnAs | null;
  readonly palette: Palette;
}

/** Above this many points the markers shrink, above the next they vanish into a line. */
const FEW = 70;
const MANY = 200;

/** How big the markers of a run are: they thin out to a line where they would touch. */
export function markersOf(steps: number): { readonly radius: number; readonly joined: number } {
  return { radius: steps > MANY ? 0 : steps > FEW ? 2 : 4.5, joined: steps > MANY ? 1.2 : 0 };
}

/** How large the markers of a run are, and whether they are joined. */
type RunMarkers = Pick<Dots, 'radius' | 'joined' | 'keepsMarkers'>;

/** How the points of a run are drawn where a person has chosen it, and where she has not. */
export function drawnSizes(steps: number, drawn: DrawnAs | null): RunMarkers {
  const usual = markersOf(steps);
  if (drawn === null) return usual;
  const radius = drawn === 'line' ? 0 : steps > FEW ? 2 : 4.5;
  return { radius, joined: drawn === 'points' ? 0 : drawn === 'line' ? 1.4 : 1, keepsMarkers: true };
}

/** The colour of each of several components that are shown together. */
export function componentColor({ palette }: Pick<RunView, 'palette'>, component: number): string {
  return palette.methods[component % palette.methods.length] ?? palette.ink;
}

/** How far the coarsest of several rungs is faded into the paper. */
const PALEST = 0.62;

/** The runs of a study as they are drawn: each in its method's colour; of one method coarse ones are faded. */
export function drawnAs(
  { curves, keys }: KeyedCurves,
  placeOf: (key: string) => number,
  titleOf: (key: string) => string,
  palette: Palette,
): Pick<RunView, 'runs' | 'byRungs'> {
  const { runs } = curves;
  const byRungs = runs.length > 1 && runs.every(({ method }) => method === runs[0]?.method);
  const drawn = runs.map((run, i): DrawnRun => {
    const key = keys[run.method] ?? '';
    const mark = methodMark(palette, placeOf(key));
    if (!byRungs) return { id: key, label: titleOf(key), mark, run };
    const h = 'h' in run.gridRequest ? stepSizeText(run.gridRequest.h) : `1/${run.gridRequest.steps}`;
    const part = PALEST * (1 - i / (runs.length - 1));
    return {
      id: `h = ${h}`,
      label: `${titleOf(key)}, h = ${h}`,
      mark: { ...mark, color: mixed(mark.color, palette.paper, part) },
      run,
    };
  });
  return { runs: drawn, byRungs };
}

/** The line that runs are compared with, in the legend; null where nothing is known of a component. */
export function truthItem({ curves, palette }: RunView, components: readonly number[]): LegendItem | null {
  const known = components.flatMap((j) => curves.truth[j] ?? []);
  const [first] = known;
  if (first === undefined) return null;
  const reference = known.find(({ kind }) => kind === 'reference');
  return {
    id: 'exact',
    label: reference === undefined ? 'exact' : 'reference',
    mark: null,
    color: palette.ink,
    ...(reference === undefined
      ? {}
      : {
          remark: `no exact solution is given; reference solution with an error of about ${short(reference.error, 1)}`,
        }),
  };
}

/** The legend of a plot of runs. */
export function runLegend(view: RunView, truth: LegendItem | null): readonly LegendItem[] {
  return [
    ...(truth === null ? [] : [truth]),
    ...view.runs.map(({ id, label, mark }) => ({ id, label, mark, color: mark.color })),
  ];
}

/** Points of a run with its markers, joined or not. */
export function runDots(
  { id, label, mark }: DrawnRun,
  points: readonly Point[],
  sizes: RunMarkers,
  ground: string,
): Dots {
  return { kind: 'dots', id, label, points, mark, ...sizes, pale: [], ground };
}
