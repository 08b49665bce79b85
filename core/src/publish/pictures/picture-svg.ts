import { layGrid, type Wish } from '../../run/grid.ts';
import { runStudy } from '../../study/run-study.ts';
import type { Study } from '../../study/runs/study.ts';
import type { Plot, PlotInk, PlotSize } from './plot.ts';
import { plotSvg } from './plot-svg.ts';
import { errorPlot, solutionPlot } from './run-plots.ts';
import { costPlot, orderPlot } from './study-plots.ts';

/** Pictures that are taken away: of a study, and of one step size. */
export const PICTURES = ['order', 'cost', 'solution', 'error'] as const;
export type PictureName = (typeof PICTURES)[number];

export interface PictureRequest {
  readonly picture: PictureName;
  readonly size: PlotSize;
  readonly ink: PlotInk;
  /** The method and the step size of a solution; the step size of errors over time. */
  readonly method: number;
  readonly wish: Wish;
}

function plotOf(title: string, study: Study, { picture, method, wish }: PictureRequest): Plot {
  if (picture === 'order') return orderPlot(title, study, runStudy(study));
  if (picture === 'cost') return costPlot(title, study, runStudy(study));
  const grid = layGrid(study.problem.start, study.problem.end, wish, study.lastStep);
  return picture === 'solution' ? solutionPlot(title, study, method, grid) : errorPlot(title, study, grid);
}

/** A picture of a study as SVG. */
export function pictureSvg(title: string, study: Study, request: PictureRequest): string {
  return plotSvg(plotOf(title, study, request), request.size, request.ink);
}
