import { short, significant, stepSizeText } from '../../text/number-text.ts';
import type { RungRun } from '../runs/run-method.ts';
import type { Study } from '../runs/study.ts';

/** What was done where h does not divide the interval. */
function lastStepRemark(study: Study, run: RungRun): string | null {
  const { problem, error } = study;
  if (run.divides || run.steps === 0) return null;
  const { independent } = problem;
  const wished = stepSizeText(run.wished);
  if (run.shorter !== null)
    return `h = ${wished} does not divide the interval: the last step is ${short(run.shorter, 6)}`;
  if (run.h !== run.wished)
    return `h = ${wished} does not divide the interval: h = ${stepSizeText(run.h)}, the nearest that does, was taken`;
  const { taken, errorAtEnd } = run;
  const there = `at h = ${wished} the last point is ${independent} = ${short(run.t, 6)}, not ${short(problem.end, 6)}`;
  if (error.at !== 'end' || taken === null || run.stopped !== null) return there;
  const times =
    errorAtEnd === null || !(errorAtEnd > 0)
      ? ''
      : `, ${significant(taken.error / errorAtEnd, 3)} times the one at ${short(problem.end, 6)}`;
  return `${there}: the error is taken there${times}`;
}

/** What was done where an error at a time is taken elsewhere than at a grid point. */
function timeRemark({ problem, error }: Study, { taken }: RungRun): string | null {
  if (typeof error.at !== 'object' || taken?.t == null || taken.how === 'grid') return null;
  const { independent } = problem;
  return taken.how === 'between'
    ? `${independent} = ${short(error.at.t, 6)} is no grid point: the value there is that of a cubic between its neighbours`
    : `${independent} = ${short(error.at.t, 6)} is no grid point: the error is taken at ${independent} = ${short(taken.t, 6)}, the nearest one, since a cubic between grid points is not exact enough for this method`;
}

/** What is to be said of where a rung ends and where its error is taken; null where all is as it was asked for. */
export function remarkOf(study: Study, run: RungRun): string | null {
  const remarks = [lastStepRemark(study, run), timeRemark(study, run)].filter((remark) => remark !== null);
  return remarks.length === 0 ? null : remarks.join('; ');
}
