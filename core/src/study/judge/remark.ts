import { short, significant, stepSizeText } from '../../text/number-text.ts';
import type { RungRun } from '../runs/run-method.ts';
import type { Study } from '../runs/study.ts';

/** How near to a time its digits are, beside the distance of two times. */
const NEAR = 1e-3;

/** Two times to as many digits as tell them apart, from six on. */
function reportedApart(one: number, other: number): readonly [string, string] {
  for (let digits = 6; digits < 17; digits += 1) {
    const [a, b] = [short(one, digits), short(other, digits)];
    const off = Math.max(Math.abs(Number(a) - one), Math.abs(Number(b) - other));
    if (off <= NEAR * Math.abs(one - other)) return [a, b];
  }
  return [String(one), String(other)];
}

/** What was done where h does not divide the interval. */
function lastStepRemark(study: Study, run: RungRun): string | null {
  const { problem, error } = study;
  if (run.divides || run.steps === 0) return null;
  const { independent } = problem;
  const wished = stepSizeText(run.wished);
  if (run.shorter !== null)
    return `h = ${wished} does not divide the interval: the last step is ${short(run.shorter, 6)}`;
  if (run.h !== run.wished)
    return `h = ${wished} does not divide the interval: h = ${stepSizeText(run.h)}, the nearest that does, is used`;
  const { taken, errorAtEnd } = run;
  const [last, end] = reportedApart(run.t, problem.end);
  const there = `at h = ${wished} the last point is ${independent} = ${last}, not ${end}`;
  if (error.at !== 'end' || taken === null || run.stopped !== null) return there;
  const times =
    errorAtEnd === null || !(errorAtEnd > 0)
      ? ''
      : `, ${significant(taken.error / errorAtEnd, 3)} times the one at ${end}`;
  return `${there}: the error is taken there${times}`;
}

/** What was done where an error at a time is taken elsewhere than at a grid point. */
function timeRemark({ problem, error }: Study, { taken }: RungRun): string | null {
  if (typeof error.at !== 'object' || taken?.t == null || taken.how === 'grid') return null;
  const { independent } = problem;
  return taken.how === 'between'
    ? `${independent} = ${short(error.at.t, 6)} is not a grid point: the value there is interpolated from neighbouring grid points`
    : `${independent} = ${short(error.at.t, 6)} is not a grid point: the error is taken at ${independent} = ${short(taken.t, 6)}, the nearest one: there are too few points to interpolate accurately`;
}

/** What is to be said of where a rung ends and where its error is taken; null where all is as it was asked for. */
export function remarkOf(study: Study, run: RungRun): string | null {
  const remarks = [lastStepRemark(study, run), timeRemark(study, run)].filter((remark) => remark !== null);
  return remarks.length === 0 ? null : remarks.join('; ');
}
