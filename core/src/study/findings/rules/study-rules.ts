import { decimalDigits } from '../../../compile/precision.ts';
import { timeAxis } from '../../../problem/time-text.ts';
import { exactCheck } from '../../judge/exact-check.ts';
import { wrongDerivatives } from '../../judge/wrong-derivatives.ts';
import { gridMeasureOf, isRelative } from '../../runs/error-choice.ts';
import { layLadder } from '../../runs/ladder.ts';
import { latestTime } from '../../runs/run-method.ts';
import { precisionOf, type Study } from '../../runs/study.ts';
import { decimalTruthOf, placesOf } from '../../runs/truth.ts';
import { firstRemark, indices, type StudyCase } from '../cases.ts';
import type { FactOf } from '../facts.ts';
import type { ReferenceFigures } from '../figures.ts';

/** An exact value this small beside the largest on the way is near zero. */
const NEAR_ZERO = 1e-6;
/** Times at which the largest value is looked for. */
const LOOKS = 32;

/** An exact solution that is none: errors against it are no errors. */
export function wrongExact({ study: { problem }, truth }: StudyCase): readonly FactOf<'wrong exact'>[] {
  const check = truth.kind === 'exact' ? exactCheck(problem) : null;
  if (check === null || check.satisfied) return [];
  const figures = { check, axis: timeAxis(problem), equations: problem.unknowns.length };
  return [{ kind: 'wrong exact', rungs: [], tone: 'trouble', figures }];
}

/** Errors of the references with as many digits as the runs of each method; null for runs without one. */
function referencesInDecimals(study: Study): readonly (number | null)[] {
  const { problem, error, ladder, lastStep } = study;
  const places = placesOf(problem, error.of);
  const rungs = layLadder(ladder, problem.start, problem.end, lastStep);
  return study.methods.map((method) => {
    const digits = decimalDigits(precisionOf(study, method));
    if (digits === null || 'message' in places) return null;
    return decimalTruthOf(problem, places, latestTime(study, rungs), digits)?.error ?? null;
  });
}

/** What errors are taken against, where no exact solution is given. */
export function reference({ study, truth }: StudyCase): readonly FactOf<'reference'>[] {
  if (truth.kind === 'exact') return [];
  const { start, end } = study.problem;
  const axis = timeAxis(study.problem);
  const inDecimals = referencesInDecimals(study);
  const known = inDecimals.filter((error) => error !== null);
  if (known.length > 0 && known.length === inDecimals.length) {
    const error = known.reduce((most, one) => Math.max(most, one));
    const figures = { kind: 'whole', by: 'decimals', error, broken: false, axis, ended: null } as const;
    return [{ kind: 'reference', rungs: [], tone: 'plain', figures: { ...figures, someInDecimals: false } }];
  }
  const isThere = truth.reached > start;
  const figures: ReferenceFigures = isThere
    ? {
        kind: 'whole',
        by: truth.kind,
        error: truth.error,
        broken: truth.switches.length > 0,
        someInDecimals: known.length > 0,
        axis,
        ended: truth.reached < end ? { t: truth.reached, why: truth.ending ?? 'leaves' } : null,
      }
    : { kind: 'none', axis };
  return [{ kind: 'reference', rungs: [], tone: isThere ? 'plain' : 'trouble', figures }];
}

/** Relative errors of a value near zero. */
export function nearZero({ study, truth, methods }: StudyCase): readonly FactOf<'near zero'>[] {
  const taken = methods.flatMap(({ rungs }) => rungs).find((rung) => rung.taken?.t != null)?.taken;
  if (!isRelative(study.error) || taken?.t == null) return [];
  // a clean order shows that they do say something
  if (methods.every(({ order, refused }) => refused !== null || order !== null)) return [];
  const { problem } = study;
  const places = problem.blocks.flatMap((block) =>
    study.error.of === 'norm' || study.error.of === block.name ? [block.offset] : [],
  );
  const times = Array.from(
    { length: LOOKS + 1 },
    (_, i) => problem.start + ((problem.end - problem.start) * i) / LOOKS,
  );
  const largest = Math.max(...times.flatMap((t) => places.map((place) => Math.abs(truth.value(place, t)))));
  if (!(taken.size < NEAR_ZERO * largest)) return [];
  const figures = { axis: timeAxis(problem), t: taken.t, value: taken.size };
  return [{ kind: 'near zero', rungs: [], tone: 'trouble', figures }];
}

/** A relative error has no value where the solution is zero; then neither has its maximum or mean. */
export function noRelativeError({
  study,
  truth,
  methods,
}: StudyCase): readonly FactOf<'no relative error'>[] {
  const { problem, error } = study;
  if (!isRelative(error) || gridMeasureOf(error) === null) return [];
  const run = methods.flatMap(({ rungs }) => rungs).filter(({ stopped }) => stopped === null);
  if (run.length === 0 || run.some((rung) => rung.error !== null)) return [];
  const places = placesOf(problem, error.of);
  const isZero = (t: number): boolean =>
    !('message' in places) && places.every((place) => truth.value(place, t) === 0);
  const t = [problem.start, problem.end].find(isZero);
  if (t === undefined) return [];
  const figures = { axis: timeAxis(problem), t };
  return [{ kind: 'no relative error', rungs: [], tone: 'trouble', figures }];
}

/** Step sizes that do not divide the interval, under a rule that mends it. */
export function mended({ methods }: StudyCase): readonly FactOf<'last step'>[] {
  const rungs = methods.find(({ refused }) => refused === null)?.rungs ?? [];
  const which = indices(
    rungs,
    (rung) => !rung.divides && rung.remark !== null && (rung.shorter !== null || rung.h !== rung.wished),
  );
  if (which.length === 0) return [];
  return [{ kind: 'last step', rungs: which, tone: 'plain', figures: firstRemark(rungs, which) }];
}

/** Derivatives typed by hand that are not those of the right-hand sides. */
export function typedWrong({ study: { problem } }: StudyCase): readonly FactOf<'typed derivative'>[] {
  return wrongDerivatives(problem).map(({ derivative, t, typed, made }) => ({
    kind: 'typed derivative',
    rungs: [],
    tone: 'trouble',
    figures: { derivative, axis: timeAxis(problem), t, typed, made },
  }));
}

/** What each method costs for one error. */
export function comparison({ methods, comparison: compared }: StudyCase): readonly FactOf<'comparison'>[] {
  if (compared === null || compared.needs.length === 0) return [];
  if (compared.needs.length + compared.short.length < 2) return [];
  const title = (i: number): string => methods[i]?.title ?? '';
  const figures = {
    wished: compared.wished,
    needs: compared.needs.map(({ method, evaluations, atMost, isCoarsest }) => ({
      title: title(method),
      evaluations,
      atMost,
      isCoarsest,
    })),
    short: compared.short.map(title),
  };
  return [{ kind: 'comparison', rungs: [], tone: 'plain', figures }];
}
