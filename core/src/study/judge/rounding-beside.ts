import { decimalDigits, type Precision } from '../../compile/precision.ts';
import { distanceOf } from '../runs/distance.ts';
import { isRelative } from '../runs/error-choice.ts';
import type { MethodRun, RungRun } from '../runs/run-method.ts';
import { precisionOf, type Study, type StudyMethod } from '../runs/study.ts';
import { placesOf } from '../runs/truth.ts';

/** Significant digits of the results of an arithmetic. */
function digitsOf(precision: Precision): number {
  return decimalDigits(precision) ?? (precision === 'single' ? 7 : 16);
}

/** Digits that another run must have more to show the rounding of one. */
const MORE = 4;

/** The method of a study that is the same with the most digits, where it has enough more of them. */
function besideOf(study: Study, method: StudyMethod): number | null {
  const least = digitsOf(precisionOf(study, method)) + MORE;
  const better = study.methods.flatMap((other, place) => {
    const precision = precisionOf(study, other);
    const digits = digitsOf(precision);
    return other.method.text === method.method.text && digits >= least ? [{ place, digits }] : [];
  });
  const [best] = better.sort((a, b) => b.digits - a.digits);
  return best?.place ?? null;
}

/**
 * Runs with all that rounding has done to them, where the same method stands in the study with more digits: the
 * distance of both at the end of the interval.
 */
export function withRoundingBeside(study: Study, runs: readonly MethodRun[]): readonly MethodRun[] {
  const places = placesOf(study.problem, study.error.of);
  if (study.error.at !== 'end' || 'message' in places) return runs;
  return runs.map((run, i) => {
    const method = study.methods[i];
    const place = method === undefined ? null : besideOf(study, method);
    const beside = place === null ? undefined : study.methods[place];
    const other = place === null ? undefined : runs[place];
    if (beside === undefined || other === undefined) return run;
    const digits = decimalDigits(precisionOf(study, beside));
    const withDifference = (rung: RungRun): RungRun => {
      const finer = other.rungs.find((one) => one.rung === rung.rung);
      if (finer?.stopped !== null || rung.stopped !== null || rung.taken === null || rung.rounding === null)
        return rung;
      const scale = isRelative(study.error) ? rung.taken.size : 1;
      const difference = distanceOf(rung, finer, places) / scale;
      return { ...rung, rounding: { ...rung.rounding, beside: { difference, digits } } };
    };
    return { ...run, rungs: run.rungs.map(withDifference) };
  });
}
