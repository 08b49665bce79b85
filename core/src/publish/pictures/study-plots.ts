import { pow } from '../../elementary/power.ts';
import type { MethodResult } from '../../study/judge/method-result.ts';
import { evaluations } from '../../study/runs/cost.ts';
import { isRelative } from '../../study/runs/error-choice.ts';
import type { Study } from '../../study/runs/study.ts';
import type { StudyResult } from '../../study/study-result.ts';
import { fixed } from '../../text/number-text.ts';
import type { Plot, PlotPoint, PlotSeries } from './plot.ts';

/** What the error of a study is of, in a few words. */
export function errorLabel({ error, problem }: Study): string {
  const what = isRelative(error) ? 'relative error' : 'error';
  const of = error.of === 'norm' || problem.size === 1 ? '' : ` of ${error.of}`;
  switch (error.at) {
    case 'end':
      return `${what}${of} at the end`;
    case 'max':
      return `largest ${what}${of}`;
    case 'rms':
      return `mean ${what}${of}`;
    case 'local':
      return `local ${what}${of}`;
    default:
      return `${what}${of} at ${problem.independent} = ${error.at.t}`;
  }
}

function pointsOf({ rungs }: MethodResult, over: 'h' | 'evaluations'): readonly PlotPoint[] {
  return rungs.flatMap(({ h, error, cost, leftOut }) =>
    error === null
      ? []
      : [{ x: over === 'h' ? h : Math.max(1, evaluations(cost)), y: error, hollow: leftOut !== null }],
  );
}

function label({ title, order, fit }: MethodResult): string {
  if (order !== null) return `${title}: order ${fixed(order.value, 2)}`;
  return fit === null ? title : `${title}: slope ${fixed(fit.order, 2)}`;
}

/** The fitted line of a method over the rungs that count. */
function fitLine({ title, fit, rungs }: MethodResult): readonly PlotSeries[] {
  if (fit === null) return [];
  const sizes = fit.rungs.map((rung) => rungs[rung]?.h ?? NaN);
  const points = [Math.min(...sizes), Math.max(...sizes)].map((h) => ({
    x: h,
    y: fit.constant * pow(h, fit.order),
  }));
  return [{ label: title, points, mark: null, line: 'dashed', unnamed: true }];
}

/** Errors over step sizes, both logarithmic: what counts filled, what does not hollow, fitted lines dashed. */
export function orderPlot(title: string, study: Study, { methods }: StudyResult): Plot {
  return {
    title: `${title}: ${errorLabel(study)} over h`,
    x: { label: 'h', scale: 'logarithmic' },
    y: { label: errorLabel(study), scale: 'logarithmic' },
    series: [
      ...methods.flatMap(fitLine),
      ...methods.map((method, i): PlotSeries => ({
        label: label(method),
        points: pointsOf(method, 'h'),
        mark: i,
        line: 'none',
      })),
    ],
  };
}

/** Errors over the evaluations that they cost, both logarithmic. */
export function costPlot(title: string, study: Study, { methods }: StudyResult): Plot {
  return {
    title: `${title}: ${errorLabel(study)} over evaluations of f`,
    x: { label: 'evaluations of f', scale: 'logarithmic' },
    y: { label: errorLabel(study), scale: 'logarithmic' },
    series: methods.map((method, i): PlotSeries => ({
      label: method.title,
      points: pointsOf(method, 'evaluations'),
      mark: i,
      line: 'thin',
    })),
  };
}
