import type { CompiledRun, Solution } from '../../compile/compile.ts';
import { compileWithStart, type StartChoice } from '../../compile/compile-with-start.ts';
import { isDecimal, type Precision, unitRoundoff } from '../../compile/precision.ts';
import { wider } from '../../decimal/decimal-precision.ts';
import { decimalText } from '../../decimal/decimal-text.ts';
import { distanceOf } from './distance.ts';
import { inspectMethod } from '../../inspect/inspect-method.ts';
import { hasConsistentPowers } from '../../inspect/order/prove-order.ts';
import type { Method } from '../../method/method.ts';
import type { Problem } from '../../problem/problem.ts';
import type { Grid } from '../../run/grid.ts';
import { begin, type RunState } from '../../run/integrate.ts';
import { ln } from '../../elementary/logarithm.ts';
import { branchesOf } from '../../reference/switches.ts';
import { attempt } from '../../text/refusal.ts';
import { logarithmAt } from './expansion.ts';
import { isRelative } from './error-choice.ts';
import { type Errors, errorOfRun, type RunError } from './error-measure.ts';
import { type RhsNoise, rhsNoise } from './rhs-noise.ts';
import type { Study } from './study.ts';
import type { Truth } from './truth.ts';
import { intoUnits, outOfUnits, scaledProblem, type Scales } from '../../problem/scaled-problem.ts';

/** A run whose rounding is looked for: its grid, its values and its error. */
export interface RunWithRounding {
  readonly grid: Grid;
  readonly values: readonly number[];
  /** All digits of the values of a run in decimals; null of another. */
  readonly decimals: readonly string[] | null;
  /** Null where it has no error, so that there is nothing to measure. */
  readonly taken: RunError | null;
}

/** Which method's rounding is looked for, and in which error. */
export interface RoundingCase {
  readonly study: Study;
  readonly truth: Truth;
  readonly method: Method;
  readonly start: StartChoice;
  readonly errors: Errors;
  /** Of the components that the error is of. */
  readonly places: readonly number[];
  /** The order of the method, as far as it is known. */
  readonly order: number | null;
  /** The arithmetic of the runs. */
  readonly precision: Precision;
}

/** Digits that a run beside one in decimals has more. */
const MORE_DIGITS = 16;

/** The same method on the same problem, with other rounding. */
interface PerturbedRun {
  readonly run: CompiledRun;
  readonly problem: Problem;
  readonly scales: Scales;
}

/** Units of the perturbed runs: no powers of two, which would round alike. */
const UNITS: readonly Scales[] = [
  { values: 3, time: 0.75 },
  { values: 0.7, time: 1.25 },
];
/** A rung is measured where its error is below so many times what rounding can come to there. */
const DOUBTFUL = 100;
/** Part of a bound for the rounding of right-hand sides that is mostly seen, over steps that do not add up. */
const WALK = 0.5;
/**
 * An error below so many times its rounding is at the floor, and one below so many times what it has grown to still is.
 */
const AT_FLOOR = 5;
const STILL_THERE = 10;
/**
 * Where right-hand sides switch, runs further apart than this part of the solution have switched at different evaluations: what
 * rounding decides there is not of its size.
 */
const SWITCHED = 1e-9;
/** The same for runs in decimals, in units of their rounding. */
const SWITCHED_UNITS = 1e7;
/** Component steps from which on one run beside it is enough. */
const LONG = 2e4;
/** Component steps beyond which a run is not done again for this. */
const MAX = 1e7;

/** What rounding is known to have done to an error. */
export interface Rounding {
  readonly size: number;
  /** Whether runs with other rounding showed it; else it is what rounding does at least, or has gone on from where it was seen. */
  readonly isMeasured: boolean;
  /** All that it has done, where the same run with more digits stands beside; null where none does. */
  readonly beside: {
    readonly difference: number;
    /** Decimal digits of that run; null for double precision. */
    readonly digits: number | null;
  } | null;
}

/**
 * What rounding is known to have done, to be shown: as a run with more digits tells, or of the size that was measured.
 *
 * @example knownRounding({ size: 1e-16, isMeasured: true, beside: null }) // 1e-16
 */
export function knownRounding(rounding: Rounding | null): number | null {
  if (rounding === null) return null;
  return rounding.beside?.difference ?? (rounding.isMeasured ? rounding.size : null);
}

/** Rounding that was measured at a number of steps. */
interface Seen {
  readonly size: number;
  readonly steps: number;
}

/** The double run beside a single one, a run with more digits beside one in decimals; else runs in other units. */
function perturbedRunsOf({
  study,
  method,
  start,
  precision,
}: RoundingCase): readonly (() => PerturbedRun | null)[] {
  const { problem } = study;
  const made = (of: Problem, scales: Scales, choice: StartChoice): PerturbedRun | null => {
    const run = attempt(() => compileWithStart(of, method, choice));
    return run.ok ? { run: run.value, problem: of, scales } : null;
  };
  const better = besideIt(precision);
  if (better !== null) return [() => made(problem, { values: 1, time: 1 }, { ...start, precision: better })];
  const { linear } = inspectMethod(method);
  // a formula of no known form, such as one that multiplies values, may not be the same in other units
  if (linear === null) return [];
  // neither is one in which a slope lacks its h, where time is measured otherwise
  const isMeasuredWell = hasConsistentPowers(linear);
  return UNITS.map((units) => () => {
    const scales = isMeasuredWell ? units : { ...units, time: 1 };
    const { solution } = start;
    const scaled: Solution | undefined =
      solution &&
      ((t, state) => {
        solution(t / scales.time, state);
        intoUnits(problem, scales, state);
      });
    return made(
      scaledProblem(problem, scales),
      scales,
      scaled === undefined ? start : { ...start, solution: scaled },
    );
  });
}

/** The arithmetic of a run beside one that shows all of its rounding; null for doubles, which have none. */
function besideIt(precision: Precision): Precision | null {
  if (precision === 'double') return null;
  return isDecimal(precision) ? wider(precision.digits + MORE_DIGITS) : 'double';
}

/** A state in the units of the problem. */
function back({ problem, scales }: PerturbedRun, state: ArrayLike<number>): Float64Array {
  const values = Float64Array.from({ length: problem.size }, (_, j) => state[j]!);
  outOfUnits(problem, scales, values);
  return values;
}

/** The errors of a run in other units, in those of the problem. */
function errorsInUnits(perturbed: PerturbedRun, errors: Errors): Errors {
  const { problem, scales } = perturbed;
  return {
    at: (t, state, digits) => errors.at(t / scales.time, back(perturbed, state), digits),
    over: (times, rows, into, count) => {
      for (let r = 0; r < count; r += 1) times[r]! /= scales.time;
      outOfUnits(problem, scales, rows, count);
      return errors.over(times, rows, into, count);
    },
  };
}

interface Found {
  readonly error: number;
  readonly signed: number | null;
  readonly values: ArrayLike<number>;
  readonly decimals: readonly string[] | null;
}

function* runPerturbed(
  perturbed: PerturbedRun,
  { grid }: RunWithRounding,
  { study, errors, order }: RoundingCase,
): Generator<number, Found | null> {
  const { time } = perturbed.scales;
  const begun = attempt(() =>
    begin(perturbed.run, {
      ...grid,
      start: grid.start * time,
      h: grid.h * time,
      wished: grid.wished * time,
      shorter: grid.shorter === null ? null : grid.shorter * time,
    }),
  );
  if (!begun.ok) return null;
  const at: RunState = begun.value;
  const choice =
    typeof study.error.at === 'object' ? { ...study.error, at: { t: study.error.at.t * time } } : study.error;
  const taken = yield* errorOfRun(at, {
    problem: perturbed.problem,
    errors: errorsInUnits(perturbed, errors),
    choice,
    order,
  });
  if (taken === null) return null;
  const decimals = at.decimals && at.decimals.values.slice(0, perturbed.problem.size).map(decimalText);
  return { ...taken, values: back(perturbed, at.state), decimals };
}

/** How far apart two runs are by the error they are asked for. */
function apart(one: Found, other: Found, { study, places }: RoundingCase, size: number): number {
  if (one.signed !== null && other.signed !== null) return Math.abs(one.signed - other.signed);
  if (study.error.at !== 'end') return Math.abs(one.error - other.error);
  return distanceOf(one, other, places) / (isRelative(study.error) ? size : 1);
}

/** Standard deviation of values of which the distances are known. */
function spread(runs: readonly Found[], distance: (one: Found, other: Found) => number): number {
  const n = runs.length;
  let squares = 0;
  for (let i = 0; i < n; i += 1) for (let j = 0; j < i; j += 1) squares += distance(runs[i]!, runs[j]!) ** 2;
  return Math.sqrt(squares / (n * (n - 1)));
}

/** What rounding does at least: to the value and to the exact one once, and within sums that cancel. */
function leastRounding(
  { study, places, precision }: RoundingCase,
  noise: RhsNoise,
  { taken, grid }: RunWithRounding,
): number {
  if (taken === null) return 0;
  const { problem, error } = study;
  const unit = unitRoundoff(precision);
  // a run with more digits beside shows all the rest
  if (isDecimal(precision)) return unit * (isRelative(error) ? 1 : taken.size);
  // errors of the right-hand sides pile up like a random walk, as large as they are where the error is taken
  const ofRhs = noise.rightHandSidesAt(taken.t);
  const walk = WALK * (unit / unitRoundoff()) * ofRhs * Math.sqrt((problem.end - problem.start) * grid.h);
  const own = error.at === 'local' ? ofRhs * grid.h : walk;
  const exact = taken.t === null ? 0 : noise.exactAt(taken.t, places);
  const size = isRelative(error) ? taken.size : 1;
  return unit * (isRelative(error) ? 1 : taken.size) + (size > 0 ? (own + exact) / size : 0);
}

/** How near, in ln e, the finest errors must be to the expansion through those coarser to show no rounding. */
const SHOWS = 0.02;
/** Rungs that such an expansion goes through, and finest ones that are held against it. */
const THROUGH = 3;
const HELD = 2;
/** Errors below so many roundings of the values are measured in any case. */
const SMALL = 1e3;

/**
 * Whether rounding is out of sight at once: the finest errors, where it is largest, are on the expansion of the coarser
 * ones to within two percent, and are no small part of the values.
 */
function isClear(runs: readonly RunWithRounding[], precision: Precision): boolean {
  const small = isDecimal(precision) ? SMALL * unitRoundoff(precision) : 1e-13;
  const points = runs
    .flatMap(({ grid, taken }, rung) =>
      taken !== null && taken.error > 0
        ? [{ rung, h: grid.h, error: taken.error, uncertainty: 0, size: taken.size }]
        : [],
    )
    .sort((a, b) => a.h - b.h);
  if (points.length < THROUGH + HELD) return false;
  return points.slice(0, HELD).every(({ h, error, size }, i) => {
    const expected = logarithmAt(points.slice(i + 1, i + 1 + THROUGH), h);
    return error > small * size && expected !== null && Math.abs(ln(error) - expected.value) < SHOWS;
  });
}

/**
 * Measures how large rounding is in the errors of runs: each is done again in other units, which changes nothing but
 * the rounding, and in single precision in double. Only rungs at which rounding can matter are measured; how large it
 * can be comes from the coarsest one, times the number of steps. Growth along the solution is in it, as it is in the
 * runs. Sums that cancel round alike in all units: what they do is added by running error bounds.
 *
 * @param runs of one method, in any order of h
 * @returns rounding in each error; null where nothing is known of it
 */
export function* measuredRounding(
  of: RoundingCase,
  runs: readonly RunWithRounding[],
): Generator<number, readonly (Rounding | null)[]> {
  const { study, truth } = of;
  const noise = rhsNoise(study.problem, truth);
  const least = runs.map((one) => (one.taken === null ? null : leastRounding(of, noise, one)));
  const found: (Rounding | null)[] = least.map((size) =>
    size === null ? null : { size, isMeasured: false, beside: null },
  );
  if (study.error.at === 'local' || isClear(runs, of.precision)) return found;
  const perturbedRuns: (PerturbedRun | null)[] = [];
  const makers = perturbedRunsOf(of);
  const perturbed = (i: number): PerturbedRun | null =>
    perturbedRuns.length > i ? perturbedRuns[i]! : (perturbedRuns[i] = makers[i]?.() ?? null);
  const bySteps = runs.map((_, i) => i).sort((a, b) => runs[a]!.grid.steps - runs[b]!.grid.steps);
  const isSwitched = branchesOf(study.problem) !== null;
  const switched = isDecimal(of.precision) ? SWITCHED_UNITS * unitRoundoff(of.precision) : SWITCHED;
  let first: Seen | null = null;
  let floor: (Seen & { readonly rungs: number }) | null = null;
  for (const i of bySteps) {
    const one = runs[i]!;
    const { steps } = one.grid;
    const own = least[i];
    if (one.taken === null || own == null) continue;
    const { error, size } = one.taken;
    if (steps * study.problem.size > MAX) {
      // too long to be done again: rounding goes on as it was seen to
      const seen: Seen | null = floor ?? first;
      if (seen !== null)
        found[i] = {
          size: Math.max(own, seen.size * Math.sqrt(steps / seen.steps)),
          isMeasured: false,
          beside: null,
        };
      continue;
    }
    if (first !== null && error > DOUBTFUL * first.size * (steps / first.steps)) continue;
    // behind two rungs at the floor rounding goes on as it does, unless an error is far above it
    const grown = floor === null ? 0 : floor.size * Math.sqrt(steps / floor.steps);
    if (floor !== null && floor.rungs > 1 && error < STILL_THERE * grown && !isDecimal(of.precision)) {
      found[i] = { size: Math.max(own, grown), isMeasured: false, beside: null };
      continue;
    }
    const all: Found[] = [{ ...one.taken, values: one.values, decimals: one.decimals }];
    const isLong = steps * study.problem.size > LONG;
    const count = first === null || isLong ? Math.min(1, makers.length) : makers.length;
    for (let k = 0; k < count; k += 1) {
      const other = perturbed(k);
      if (other === null) return found;
      const made = yield* runPerturbed(other, one, of);
      if (made !== null) all.push(made);
    }
    if (all.length < 2) continue;
    const distance = (a: Found, b: Found): number => apart(a, b, of, size);
    // beside a run with more digits, one with fewer is off by all of the distance
    const isBeside = besideIt(of.precision) !== null;
    const apartBy = isBeside ? distance(all[0]!, all[1]!) : spread(all, distance);
    const seen = Math.max(own, apartBy);
    if (isSwitched && seen > switched * size) {
      found[i] = null;
      continue;
    }
    // two runs may be near each other by chance: rounding is not far below that of half as many steps
    const before = floor === null ? 0 : floor.size / 2;
    const rounding = Math.max(seen, before);
    found[i] = {
      size: rounding,
      isMeasured: true,
      beside: isDecimal(of.precision)
        ? { difference: apartBy, digits: of.precision.digits + MORE_DIGITS }
        : null,
    };
    first ??= { size: seen, steps };
    if (error < AT_FLOOR * rounding)
      floor = { size: rounding, steps, rungs: floor === null ? 1 : floor.rungs + 1 };
  }
  return found;
}
