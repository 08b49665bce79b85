import { compileWithStart } from '../../compile/compile-with-start.ts';
import { componentNames } from '../../problem/problem.ts';
import { type Grid, timeAt } from '../../run/grid.ts';
import { norm } from '../../run/norm.ts';
import { begin, goTo } from '../../run/integrate.ts';
import type { Study, StudyMethod } from '../../study/runs/study.ts';
import { placesOf, truthOf } from '../../study/runs/truth.ts';
import { stepSizeText } from '../../text/number-text.ts';
import { attempt, Refusal } from '../../text/refusal.ts';
import type { Plot, PlotPoint, PlotSeries } from './plot.ts';

/** Points of a curve. */
const CURVE = 500;
/** Above so many points they are drawn as a line instead of markers. */
const MOST_MARKERS = 80;
/** Components that are drawn together. */
const MOST_COMPONENTS = 6;

interface Drawn {
  readonly t: number;
  readonly values: Float64Array;
}

/** Grid points of a run, at most so many. */
function pointsOf(study: Study, { method }: StudyMethod, grid: Grid): readonly Drawn[] {
  const run = attempt(() => compileWithStart(study.problem, method, study.start));
  if (!run.ok) return [];
  const begun = attempt(() => begin(run.value, grid));
  if (!begun.ok) return [];
  const at = begun.value;
  const every = Math.ceil(grid.steps / CURVE);
  const found: Drawn[] = [];
  for (let n = 0; n <= grid.steps; n += every) {
    goTo(at, n);
    if (at.stopped !== null) break;
    found.push({ t: timeAt(grid, at.n), values: at.state.slice(0, study.problem.size) });
  }
  return found;
}

/** A curve with its markers, or without where they would touch. */
function curve(label: string, points: readonly PlotPoint[], mark: number): readonly PlotSeries[] {
  if (points.length <= MOST_MARKERS) return [{ label, points, mark, line: 'thin' }];
  const every = Math.ceil(points.length / 12);
  return [
    { label, points, mark: null, line: 'full', unnamed: true },
    { label, points: points.filter((_, i) => i % every === 0), mark, line: 'none' },
  ];
}

/** The solution of one run: markers at its grid points beside the exact line or the reference. */
export function solutionPlot(title: string, study: Study, place: number, grid: Grid): Plot {
  const method = study.methods[place];
  if (method === undefined) throw new Refusal('missing', `this study has no method ${place}`);
  const { problem } = study;
  const names = componentNames(problem).slice(0, MOST_COMPONENTS);
  const truth = truthOf(
    problem,
    names.map((_, j) => j),
    Math.max(problem.end, timeAt(grid, grid.steps)),
  );
  const run = pointsOf(study, method, grid);
  const times = Array.from(
    { length: CURVE + 1 },
    (_, i) => problem.start + ((problem.end - problem.start) * i) / CURVE,
  );
  const known = truth.kind === 'exact' ? 'exact' : 'reference';
  return {
    title: `${title}: ${method.title}, h = ${stepSizeText(grid.h)}`,
    x: { label: problem.independent, scale: 'linear' },
    y: { label: names.join(', '), scale: 'linear' },
    series: [
      ...names.map((_, j): PlotSeries => ({
        label: known,
        points: times.map((t) => ({ x: t, y: truth.value(j, t) })),
        mark: null,
        line: 'thin',
        ...(j > 0 ? { unnamed: true } : {}),
      })),
      ...names.flatMap((name, j) =>
        curve(
          `${names.length > 1 ? `${name}, ` : ''}${method.title}, h = ${stepSizeText(grid.h)}`,
          run.map(({ t, values }) => ({ x: t, y: values[j]! })),
          names.length > 1 ? j : place,
        ),
      ),
    ],
  };
}

/** The error over time of every method at one step size, logarithmic. */
export function errorPlot(title: string, study: Study, grid: Grid): Plot {
  const { problem, error } = study;
  const places = placesOf(problem, error.of);
  if ('message' in places) throw new Refusal('form', places.message);
  const truth = truthOf(problem, places, Math.max(problem.end, timeAt(grid, grid.steps)));
  return {
    title: `${title}: error over ${problem.independent}, h = ${stepSizeText(grid.h)}`,
    x: { label: problem.independent, scale: 'linear' },
    y: {
      label: `error${error.of === 'norm' ? '' : ` of ${error.of}`}, h = ${stepSizeText(grid.h)}`,
      scale: 'logarithmic',
    },
    series: study.methods.flatMap((method, i) =>
      curve(
        method.title,
        pointsOf(study, method, grid).map(({ t, values }) => ({
          x: t,
          y: norm(places.map((place) => values[place]! - truth.value(place, t))),
        })),
        i,
      ),
    ),
  };
}
