import { type Precision, unitRoundoff } from '../../compile/precision.ts';
import { norm } from '../../run/norm.ts';
import { agreeingDigits, correctPlaces } from '../runs/correct-digits.ts';
import { gridMeasureOf, isRelative } from '../runs/error-choice.ts';
import { type MethodRun, programFault, type RungRun } from '../runs/run-method.ts';
import { precisionOf, type Study, type StudyMethod } from '../runs/study.ts';
import { placesOf, type Truth } from '../runs/truth.ts';
import { type TrialOrder, expectedOrder } from '../trial/trial-order.ts';
import { clearRungs } from './clear-rungs.ts';
import { defectOf } from './defect.ts';
import type { UncertainError } from '../runs/expansion.ts';
import type { MethodResult, RungResult } from './method-result.ts';
import { errorRatio, observedOrder } from './order.ts';
import { orderRange } from './order-range.ts';
import { theoryOf } from './predicted.ts';
import { remarkOf } from './remark.ts';
import { type Extrapolated, extrapolate } from './richardson.ts';
import { swingOf } from './swing.ts';
import { fitOrder, type LeftOut, windowOf } from './window.ts';

/** Digits that agree and correct decimal places of an error. */
function digitsOf(run: RungRun, study: Study, precision: Precision): Pick<RungResult, 'digits' | 'places'> {
  const { taken } = run;
  if (taken === null) return { digits: null, places: null };
  const relative = isRelative(study.error) ? taken.error : taken.error / taken.size;
  const absolute = isRelative(study.error) ? taken.error * taken.size : taken.error;
  return {
    digits: Number.isFinite(relative) ? agreeingDigits(relative, precision) : null,
    places: Number.isFinite(absolute) ? correctPlaces(absolute, precision) : null,
  };
}

/** Which rungs of a method do not count for its order, and why: its runs as the rules of the window want them. */
function leftOutOf(
  study: Study,
  truth: Truth | null,
  method: StudyMethod,
  { rungs: runs, refused }: MethodRun,
): readonly (LeftOut | null)[] {
  const swing = truth === null ? NaN : swingOf(study, truth);
  const defect = truth === null || refused !== null ? null : defectOf(study, truth, method);
  const chosen = method.window;
  const inRuns =
    chosen === null
      ? null
      : {
          from: runs.findIndex(({ rung }) => rung >= chosen.from),
          to: runs.findLastIndex(({ rung }) => rung <= chosen.to),
        };
  return windowOf(
    runs.map((run) => {
      return {
        h: run.h,
        steps: run.steps,
        error: run.taken?.error ?? null,
        stopped: run.stopped !== null && run.taken === null,
        nonFinite: run.stopped !== null && run.stopped.step > 0,
        struck: method.struck.includes(run.rung),
        otherTime: isAtOtherTime(study, run),
        large: isLarge(study, run, swing),
        rounding: run.rounding?.size ?? 0,
        reference: run.taken?.doubt ?? 0,
        defect: defect?.(run.h) ?? 0,
      };
    }),
    inRuns,
  );
}

/**
 * Whether an error is larger than the solution is anywhere on its way; not known of the largest or mean relative error, which
 * is large where the solution is small.
 */
function isLarge({ error }: Study, { taken }: RungRun, swing: number): boolean {
  if (taken === null || (isRelative(error) && gridMeasureOf(error) !== null)) return false;
  return taken.error * (isRelative(error) ? taken.size : 1) > swing;
}

/** Whether the error of a run is taken past the end, or beside the time asked for, where that of others is not. */
function isAtOtherTime({ error, problem }: Study, { taken, divides }: RungRun): boolean {
  if (typeof error.at === 'object') return taken !== null && taken.how === 'nearest';
  return error.at === 'end' && taken?.t != null && !divides && taken.t > problem.end;
}

/** An extrapolation with its estimated error in the measure of the study: relative to the extrapolated values. */
function extrapolatedAs(
  { error }: Study,
  found: Extrapolated | null,
  places: readonly number[],
): Extrapolated | null {
  if (found === null || !isRelative(error)) return found;
  return { ...found, error: found.error / norm(places.map((j) => found.values[j] ?? 0)) };
}

function rungResults(
  study: Study,
  precision: Precision,
  runs: readonly RungRun[],
  leftOut: readonly (LeftOut | null)[],
): readonly RungResult[] {
  const places = placesOf(study.problem, study.error.of);
  // the extrapolation of doubles cannot be better than these
  const unit = Math.max(unitRoundoff(precision), unitRoundoff());
  const errorOf = (run: RungRun | undefined): number | null => run?.taken?.error ?? null;
  return runs.map((run, i): RungResult => {
    const [coarse, middle] = [runs[i - 2], runs[i - 1]];
    const error = errorOf(run);
    const alike = [coarse, middle, run].every(
      (other) =>
        other !== undefined && other.stopped === null && !(other.t > study.problem.end && !other.divides),
    );
    const size = 'message' in places ? 0 : norm(places.map((j) => run.values[j] ?? 0));
    return {
      error,
      ...digitsOf(run, study, precision),
      ratio: middle === undefined ? null : errorRatio(errorOf(middle), error),
      order: middle === undefined ? null : observedOrder(middle.h, errorOf(middle), run.h, error),
      extrapolated:
        alike &&
        coarse !== undefined &&
        middle !== undefined &&
        !('message' in places) &&
        study.error.at !== 'local'
          ? extrapolatedAs(study, extrapolate([coarse, middle, run], places, 10 * unit * size), places)
          : null,
      leftOut: leftOut[i] ?? null,
      remark: remarkOf(study, run),
      // last: properties that come behind those of a spread object take an engine some thirty times as long
      ...run,
    };
  });
}

/** Errors that show the method's own error, with what rounding may have done to them. */
export function clearErrors(rungs: readonly RungResult[]): readonly UncertainError[] {
  return clearRungs(rungs).flatMap((rung) =>
    rung.error === null
      ? []
      : [{ rung: rungs.indexOf(rung), h: rung.h, error: rung.error, uncertainty: rung.rounding?.size ?? 0 }],
  );
}

/** What the formula promises; a local error falls with one order more. */
function promisedHere(study: Study, method: StudyMethod): TrialOrder {
  const promised = expectedOrder(method.method, study.problem);
  return promised.kind === 'order' && study.error.at === 'local'
    ? { ...promised, order: promised.order + 1 }
    : promised;
}

/**
 * What the runs of one method mean beside one another; a method whose analysis fails is refused with the reason, and
 * the others are judged all the same.
 */
export function judgeMethod(
  study: Study,
  truth: Truth | null,
  method: StudyMethod,
  run: MethodRun,
): MethodResult {
  try {
    return judged(study, truth, method, run);
  } catch (thrown) {
    if (run.refused !== null) throw thrown;
    return judged(study, truth, method, { ...run, refused: programFault(thrown) });
  }
}

function judged(study: Study, truth: Truth | null, method: StudyMethod, run: MethodRun): MethodResult {
  const leftOut = leftOutOf(study, truth, method, run);
  const rungs = rungResults(study, precisionOf(study, method), run.rungs, leftOut);
  const fit = fitOrder(rungs, leftOut, method.window === null ? 'rules' : 'person');
  return {
    title: run.title,
    rungs,
    fit,
    order: orderRange(clearErrors(rungs)),
    promised: run.refused === null ? promisedHere(study, method) : { kind: 'unknown' },
    ...(run.refused === null && truth !== null
      ? theoryOf(study, truth, method)
      : { predicted: null, leadingZero: false }),
    refused: run.refused,
  };
}
