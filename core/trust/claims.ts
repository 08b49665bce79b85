import { compileWithStart } from '../src/compile/compile-with-start.ts';
import { unitRoundoff } from '../src/compile/precision.ts';
import { systemRightHandSides } from '../src/compile/right-hand-sides.ts';
import { ln } from '../src/elementary/logarithm.ts';
import { pow } from '../src/elementary/power.ts';
import { layGrid } from '../src/run/grid.ts';
import { integrate } from '../src/run/integrate.ts';
import { norm } from '../src/run/norm.ts';
import type { Finding } from '../src/study/findings/facts.ts';
import type { MethodResult } from '../src/study/judge/method-result.ts';
import { finish } from '../src/study/run-study.ts';
import { methodSigns } from '../src/study/runs/run-methods.ts';
import type { Study } from '../src/study/runs/study.ts';
import { placesOf, type Truth, truthOf } from '../src/study/runs/truth.ts';
import type { StudyResult } from '../src/study/study-result.ts';
import { fixedRun, lessFixed } from './fixed-point.ts';

/** A claim and what another way of working it out says: what is wrong with it, or null. */
type Check = (of: {
  readonly study: Study;
  readonly result: StudyResult;
  readonly truth: Truth;
}) => string | null;

/** The error of a method of a study at a number of steps, where it is clear of rounding; null elsewhere. */
function clearError(study: Study, method: number, steps: number): number | null {
  const run = finish(methodSigns({ ...study, ladder: { counts: [steps] } }, method));
  const rung = run.rungs[0];
  const error = rung?.taken?.error ?? null;
  return error !== null && error > 1000 * (rung?.rounding ?? 0) ? error : null;
}

/** The errors of a method of a study with other numbers of steps. */
function errorsAt(study: Study, method: number, counts: readonly number[]): readonly (number | null)[] {
  const run = finish(methodSigns({ ...study, ladder: { counts: [...counts] } }, method));
  return run.rungs.map(({ taken }) => taken?.error ?? null);
}

/** Whether orders of finer runs, that are clear of rounding, lie within a range; null where none can be had. */
function finerOrders(study: Study, result: MethodResult, method: number): readonly number[] {
  const finest = Math.max(...result.rungs.filter((r) => r.leftOut === null).map((r) => r.steps));
  const counts = [1, 2, 4].map((k) => k * finest);
  const errors = counts.map((steps) => clearError(study, method, steps));
  return errors.slice(1).flatMap((error, i) => {
    const before = errors[i];
    return error === null || before == null ? [] : [ln(before / error) / ln(2)];
  });
}

function inRange(orders: readonly number[], low: number, high: number): string | null {
  const last = orders.at(-1);
  if (last === undefined || (last > low - 0.1 && last < high + 0.1)) return null;
  return `finer runs show ${orders.join(', ')}`;
}

/** What rounding did to the error of a run at the end, from a run in 256 binary places. */
function roundingIn(study: Study, method: number, steps: number): number | null {
  const { problem, methods, start } = study;
  const own = methods[method]!.method;
  const fixed = fixedRun(problem, own, steps);
  if (fixed === null || start.precision === 'single') return null;
  const run = compileWithStart(problem, own, start);
  return Math.abs(
    lessFixed(integrate(run, layGrid(problem.start, problem.end, { steps })).values[0]!, fixed),
  );
}

/** Size of the largest eigenvalue of one or two equations, by differences along the solution; null for more. */
function steepness({ problem }: Study, truth: Truth): number | null {
  const { size } = problem;
  if (size > 2) return null;
  const rightHandSides = systemRightHandSides(problem);
  let most = 0;
  for (let i = 0; i <= 20; i += 1) {
    const t = problem.start + ((problem.end - problem.start) * i) / 20;
    const y = Float64Array.from({ length: size }, (_, j) => truth.value(j, t));
    const d = 1e-6 * Math.max(1, norm(y));
    const base = rightHandSides(t, y).slice();
    const columns = Array.from({ length: size }, (_, j) => {
      const moved = y.slice();
      moved[j]! += d;
      return Array.from(rightHandSides(t, moved), (rhs, k) => (rhs - base[k]!) / d);
    });
    const [[a = 0, c = 0] = [], [b = 0, e = 0] = []] = columns;
    if (size === 1) most = Math.max(most, Math.abs(a));
    else {
      const [half, determinant] = [(a + e) / 2, a * e - b * c];
      const inner = half * half - determinant;
      // a pair of complex ones is of the size of the root of the determinant
      most = Math.max(most, inner < 0 ? Math.sqrt(determinant) : Math.abs(half) + Math.sqrt(inner));
    }
  }
  return most;
}

/** Ends of the stretch of the negative real axis on which methods are stable, as books print them. */
const LIMITS: Readonly<Record<string, number>> = {
  Euler: 2,
  Heun: 2,
  Midpoint: 2,
  'Kutta 3': 2.5127,
  RK4: 2.7853,
  '3/8 rule': 2.7853,
  'Adams-Bashforth 2': 1,
  'Adams-Bashforth 3': 6 / 11,
  'Adams-Bashforth 4': 0.3,
  'Adams-Bashforth 5': 0.1633,
  Leapfrog: 0,
};

function methodCheck(finding: Finding, method: number): Check {
  return ({ study, result, truth }) => {
    const own = result.methods[method]!;
    const local = study.error.at === 'local';
    switch (finding.kind) {
      case 'as promised': {
        const { low, high, promised } = finding.figures;
        if (promised < low || promised > high) return 'the range does not hold the promise';
        return local
          ? null
          : inRange(finerOrders(study, own, method), Math.min(low, promised), Math.max(high, promised));
      }
      case 'better than promised':
      case 'order lost':
        return inRange(finerOrders(study, own, method), finding.figures.low, finding.figures.high);
      case 'predicted': {
        const { constant, order, off, h } = finding.figures;
        const steps = Math.round((study.problem.end - study.problem.start) / h);
        const finer = clearError(study, method, 4 * steps);
        if (finer === null) return null;
        const part = finer / (constant * pow(h / 4, order));
        return Math.abs(part - 1) <= Math.max(2 * off, 0.05)
          ? null
          : `a quarter of h gives ${part} times the leading term`;
      }
      case 'not yet': {
        const { order, times, h } = finding.figures;
        const constant = own.predicted?.constant ?? NaN;
        const rung = own.rungs.find((r) => r.h === h);
        const part = (rung?.error ?? NaN) / (constant * pow(h, order));
        return Math.abs(part / times - 1) < 1e-9 ? null : `it is ${part} times`;
      }
      case 'leading zero': {
        const orders = finerOrders(study, own, method);
        return inRange(orders, finding.figures.order - 0.2, finding.figures.order + 0.2);
      }
      case 'sign': {
        const signs = finding.rungs.map((i) => own.rungs[i]!.taken?.signed ?? 0);
        if (signs[0]! * signs[1]! >= 0) return 'both errors are of one sign';
        const shares = finding.rungs.map((i) => {
          const rounding = roundingIn(study, method, own.rungs[i]!.steps);
          return rounding === null ? 0 : rounding / own.rungs[i]!.error!;
        });
        return Math.max(...shares) > 0.2 ? 'one of the errors is rounding' : null;
      }
      case 'floor': {
        if (study.error.at !== 'end') return null;
        const { steps, error } = finding.figures;
        const rounding = roundingIn(study, method, steps);
        if (rounding !== null && rounding < 0.02 * error) return `rounding is ${rounding} of ${error}`;
        const least = Math.min(...own.rungs.flatMap((r) => r.error ?? []));
        return least === finding.figures.least.error ? null : `there is an error of ${least}`;
      }
      case 'rounding only': {
        const size = norm(
          Array.from({ length: study.problem.size }, (_, j) => truth.value(j, study.problem.end)),
        );
        const most = Math.max(...own.rungs.map((r) => r.error ?? 0));
        return most < 1e4 * unitRoundoff(study.start.precision) * Math.max(1, size)
          ? null
          : `an error is ${most}`;
      }
      case 'unstable': {
        const { limit, decay, sizes } = finding.figures;
        const known = LIMITS[own.title];
        if (known !== undefined && Math.abs(known - limit) > 2e-4 * Math.max(1, known))
          return `the limit is ${known}`;
        const steepest = steepness(study, truth);
        if (steepest === null) return null;
        if (decay > 1.1 * steepest + 1e-9) return `nothing decays faster than ${steepest}`;
        return sizes.every((h) => h * steepest > limit * 0.97) ? null : 'a step is below the limit';
      }
      case 'oscillation': {
        const { re, im, growth } = finding.figures;
        const steepest = steepness(study, truth);
        if (steepest !== null && norm([re, im]) > 1.05 * steepest)
          return `no motion is faster than ${steepest}`;
        return growth > 1 ? null : 'nothing grows';
      }
      case 'large': {
        const { swing, error } = finding.figures;
        return error > swing ? null : `${error} is not larger than ${swing}`;
      }
      case 'formula': {
        // runs that converge would have errors that fall to nothing
        const errors = errorsAt(study, method, [64, 256, 1024]);
        const [coarse, , fine] = errors;
        return coarse == null || fine == null || fine > 0.5 * coarse
          ? null
          : `errors fall: ${errors.join(', ')}`;
      }
      default:
        return null;
    }
  };
}

/** What a comparison says is run: with so many steps the error is the target, with fewer it is larger. */
const comparisonCheck: Check = ({ study, result }) => {
  const { comparison } = result;
  if (comparison === null) return null;
  for (const { method, steps, atMost } of comparison.needs) {
    const half = Math.max(study.methods[method]!.method.depth + 3, Math.floor(steps / 2));
    const [error, fewer] = errorsAt(study, method, [steps, half]);
    if (error != null && error > 1.6 * comparison.wished) return `${steps} steps give ${error}`;
    const isEnough = half < 0.6 * steps && fewer != null && fewer < 0.5 * comparison.wished;
    if (!atMost && isEnough) return `${half} steps give ${fewer} already`;
  }
  return null;
};

/** Every claim of a study that another way of working it out contradicts. */
export function falseClaims(study: Study, result: StudyResult): readonly string[] {
  const places = placesOf(study.problem, study.error.of);
  if ('message' in places) return [];
  const truth = truthOf(study.problem, places, study.problem.end);
  return result.findings.flatMap((finding) => {
    const check =
      finding.method !== null
        ? methodCheck(finding, finding.method)
        : finding.kind === 'comparison'
          ? comparisonCheck
          : null;
    const wrong = check?.({ study, result, truth }) ?? null;
    return wrong === null ? [] : [`${finding.kind}: ${finding.sentence}; but ${wrong}`];
  });
}
