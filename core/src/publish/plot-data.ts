import { namesOf } from '../text/names-of.ts';
import type { Problem } from '../problem/problem.ts';
import type { GridRequest } from '../run/grid.ts';
import { type Curves, curvesOf } from '../study/curves.ts';
import { errorCaption } from '../study/error-caption.ts';
import { runStudy } from '../study/run-study.ts';
import type { Study } from '../study/runs/study.ts';
import type { StudyResult } from '../study/study-result.ts';
import { Refusal } from '../text/refusal.ts';

/** Plots that can be asked for by name: of a study, and of one step size. */
export const PLOT_LABELS = {
  order: 'Order',
  work: 'Work',
  solution: 'Solution',
  error: 'Error over time',
} as const;
export const PLOTS = namesOf(PLOT_LABELS);
export type PlotName = keyof typeof PLOT_LABELS;

/** What a plot is drawn for: a slide of 16:9, or a column of a paper. */
export const PLOT_SIZES = ['slide', 'column'] as const;
export type PlotSize = (typeof PLOT_SIZES)[number];

/** Colours, or black and white with markers alone to tell methods apart. */
export const PLOT_INKS = ['colour', 'black'] as const;
export type PlotInk = (typeof PLOT_INKS)[number];

/** How the points of a run are drawn; by default as points, and as a line where there are many. */
export const DRAWN_AS = ['points', 'line', 'both'] as const;
export type DrawnAs = (typeof DRAWN_AS)[number];

/** The numbers of a plot; how they are drawn is said by what draws them. */
export type PlotData =
  | {
      readonly kind: 'order' | 'work';
      /** The study. */
      readonly title: string;
      /** What the errors are, as a sentence. */
      readonly caption: string;
      readonly result: StudyResult;
    }
  | {
      readonly kind: 'solution' | 'error';
      readonly title: string;
      readonly independent: string;
      /** Title of the method at each place of the study. */
      readonly methods: readonly string[];
      readonly curves: Curves;
      /** The component that is shown; null for all of them together. */
      readonly component: number | null;
      readonly drawn: DrawnAs | null;
    };

/** Which plot. */
export interface PlotRequest {
  readonly plot: PlotName;
  /** The only method whose run is drawn; null for all methods of the study. */
  readonly method: number | null;
  /** The step sizes of the runs: several of one method, or one of all. */
  readonly gridRequests: readonly GridRequest[];
  /** A component by its place, or all together. */
  readonly component: number | 'all' | null;
  readonly drawn: DrawnAs | null;
}

/** Orders or work of a study that was run. */
export function studyPlotData(
  kind: 'order' | 'work',
  title: string,
  { problem, error }: { readonly problem: Problem; readonly error: Study['error'] },
  result: StudyResult,
): PlotData {
  return { kind, title, caption: errorCaption(problem, error), result };
}

/** Runs of a study at one step size. */
export function runPlotData(
  kind: 'solution' | 'error',
  title: string,
  study: Study,
  { method, gridRequests, component, drawn }: Omit<PlotRequest, 'plot'>,
): PlotData {
  if (method !== null && study.methods[method] === undefined)
    throw new Refusal('missing', `this study has no method ${method}`);
  if (method === null && gridRequests.length > 1)
    throw new Refusal('grid', 'runs at several step sizes are drawn of one method; name it');
  const chosen = method === null ? study.methods.map((_, i) => i) : [method];
  const runs = chosen.flatMap((place) => gridRequests.map((gridRequest) => ({ method: place, gridRequest })));
  const work = curvesOf(study, runs);
  let next = work.next();
  while (next.done !== true) next = work.next();
  const { independent } = study.problem;
  const curves = next.value;
  // what is not said of the only run of a system is all of it
  const isAll = component === null && runs.length === 1 && curves.components.length > 1;
  return {
    kind,
    title,
    independent,
    methods: study.methods.map((m) => m.title),
    curves,
    component: isAll || component === 'all' ? null : (component ?? 0),
    drawn,
  };
}

/**
 * The numbers of a plot of a study.
 *
 * @throws Refusal for a method that is not in the study
 */
export function plotData(title: string, study: Study, request: PlotRequest): PlotData {
  const { plot } = request;
  if (plot === 'order' || plot === 'work') return studyPlotData(plot, title, study, runStudy(study));
  return runPlotData(plot, title, study, request);
}
