import { compileWithStart } from '../../src/compile/compile-with-start.ts';
import { unitRoundoff } from '../../src/compile/precision.ts';
import { parseMethod } from '../../src/method/parse-method.ts';
import { layGrid } from '../../src/run/grid.ts';
import { integrate } from '../../src/run/integrate.ts';
import { norm } from '../../src/run/norm.ts';
import type { Figures } from '../../src/study/findings/figures.ts';
import { precisionOf, type Study } from '../../src/study/runs/study.ts';
import { fixedRun, lessFixed, type NumbersAre } from '../fixed-point.ts';
import { type Claimed, errorsAt, solutionAt, type Verdict } from './claimed.ts';

/** What rounding did to the error of a run at the end, from a run in 256 binary places. */
function roundingIn(
  study: Study,
  method: number,
  steps: number,
  numbers: NumbersAre = 'doubles',
): number | null {
  const { problem, methods, start } = study;
  const own = methods[method]!.method;
  const fixed = fixedRun(problem, own, steps, numbers);
  if (fixed === null || precisionOf(study, methods[method]!) !== 'double') return null;
  const run = compileWithStart(problem, own, start);
  return Math.abs(
    lessFixed(integrate(run, layGrid(problem.start, problem.end, { steps })).values[0]!, fixed),
  );
}

/** Errors that alternate are those of the run, and not of rounding. */
export function changedSign(_: Figures['sign'], { study, own, method, rungs }: Claimed): Verdict {
  const signs = rungs.map((i) => own.rungs[i]!.taken?.signed ?? 0);
  if (signs[0]! * signs[1]! >= 0) return 'both errors are of one sign';
  const shares = rungs.map((i) => {
    const rounding = roundingIn(study, method, own.rungs[i]!.steps);
    return rounding === null ? 0 : rounding / own.rungs[i]!.error!;
  });
  return Math.max(...shares) > 0.2 ? 'one of the errors is rounding' : null;
}

/** A size of rounding that is off by less than that factor is right. */
const ABOUT = 10;

/** The size of rounding is that of runs with about as many steps; that of one of them may be far below it by chance. */
export function floor(
  { steps, rounding, least }: Figures['floor'],
  { study, own, method }: Claimed,
): Verdict {
  const smallest = Math.min(...own.rungs.flatMap((r) => r.error ?? []));
  if (smallest !== least.error) return `there is an error of ${smallest}`;
  if (study.error.at !== 'end') return null;
  const near = [0, 1, 2, 3].map((more) => roundingIn(study, method, steps + more));
  const known = near.filter((size) => size !== null);
  const seen = norm(known) / Math.sqrt(known.length);
  const size =
    study.error.scale === 'absolute' ? 1 : (own.rungs.find((r) => r.steps === steps)?.taken?.size ?? 1);
  const times = seen / (rounding * size);
  return known.length === 0 || (times > 1 / ABOUT && times < ABOUT) ? null : `rounding is ${seen}`;
}

/** Part by which a rounding error may be off that is the difference of two runs. */
const EXACTLY = 0.02;

/** The difference from a run with more digits is that from a run in 256 binary places with the numbers as typed. */
export function roundingPart(
  { steps, rounding }: Figures['rounding part'],
  { study, own, method }: Claimed,
): Verdict {
  if (precisionOf(study, study.methods[method]!) !== 'double') return null;
  const seen = roundingIn(study, method, steps, 'as typed');
  const rung = own.rungs.find((one) => one.steps === steps);
  const size = study.error.scale === 'absolute' ? 1 : (rung?.taken?.size ?? 1);
  const isSo = seen === null || Math.abs(seen - rounding * size) <= EXACTLY * seen;
  return isSo ? null : `rounding is ${seen}`;
}

export function roundingOnly(_: Figures['rounding only'], of: Claimed): Verdict {
  const { start, end } = of.study.problem;
  const size = norm([...solutionAt(of, end), start, end]);
  const most = Math.max(...of.own.rungs.map((r) => r.error ?? 0));
  return most < 1e4 * unitRoundoff(of.study.start.precision) * Math.max(1, size)
    ? null
    : `an error is ${most}`;
}

/** Fractions that decimals of four digits are rounded from. */
const ROUNDED: Readonly<Record<string, string>> = { '0.1667': '1/6', '0.3333': '1/3' };

/** With exact coefficients the error at that h is another. */
export function roundedCoefficients({ h }: Figures['digits'], { study, own, method }: Claimed): Verdict {
  const of = study.methods[method]!;
  const text = of.method.text.replace(/0\.\d{4}/g, (typed) => ROUNDED[typed] ?? typed);
  const exact = parseMethod(text);
  if (!exact.ok || text === of.method.text) return null;
  const rung = own.rungs.find((r) => r.h === h);
  const methods = study.methods.map((other, i) => (i === method ? { ...of, method: exact.value } : other));
  const [error] = errorsAt({ ...study, methods }, method, [rung?.steps ?? 1]);
  return error == null || Math.abs(error - rung!.error!) > 0.02 * rung!.error!
    ? null
    : `with fractions the error is ${error}`;
}
