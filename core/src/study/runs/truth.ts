import type { Decimal } from 'decimal.js';
import type { DecimalSolution } from '../../compile/compile.ts';
import { decimalNumbers, type DecimalNumbers } from '../../compile/decimal/decimal-numbers.ts';
import { wider } from '../../decimal/decimal-precision.ts';
import { type Decimals, decimalsOf } from '../../decimal/decimals.ts';
import { decimalReference } from '../../reference/decimal-taylor.ts';
import { exactInDecimals } from '../../run/decimal-exact.ts';
import { componentNames, type Problem } from '../../problem/problem.ts';
import { problemKey } from '../../problem/problem-key.ts';
import { estimatedReference } from '../../reference/reference-solution.ts';
import type { DenseSolution } from '../../reference/taylor-solution.ts';
import { exactSolution } from '../../run/exact-solution.ts';
import type { ErrorChoice } from './error-choice.ts';
import { memoize } from '../../text/memoize.ts';

/** What the runs of a study are compared with: the exact solution, or a reference with an error of its own. */
export interface Truth {
  readonly kind: 'exact' | 'taylor' | 'fine steps';
  /** Estimated error of the reference, relative to the largest component; 0 for the exact solution. */
  readonly error: number;
  /** Times at which a right-hand side changes its branch; known for a reference by Taylor series only. */
  readonly switches: readonly number[];
  /**
   * The last time it reaches; a reference ends where the solution becomes non-finite or has no series, or where it
   * takes too many steps.
   */
  readonly reached: number;
  /** Why it ends before that; null where it does not. */
  readonly ending: DenseSolution['ending'];
  /** Value of the component at a place of the state at a time; NaN where the solution does not reach. */
  readonly value: (place: number, t: number) => number;
  /** Values of some components at many times, one row a time. */
  readonly fill: (places: readonly number[], times: Float64Array, count: number, out: Float64Array) => void;
}

/** The exact values for runs in decimals, with more digits than these have. */
export interface DecimalTruth {
  readonly kind: 'exact' | 'taylor';
  /** Estimated error of the reference, relative to the largest component; 0 for the exact solution. */
  readonly error: number;
  readonly decimals: Decimals;
  readonly numbers: DecimalNumbers;
  readonly value: DecimalSolution;
}

/** Digits of exact values beyond those of the runs. */
const MORE_DIGITS = 20;

const knownInDecimals = memoize<{ readonly truth: DecimalTruth | null }>(8);

/**
 * The exact solution in decimals where it is known for all components that are asked for, and else a reference with as
 * many digits; null where there is neither.
 *
 * @param digits of the runs that are compared with it
 */
export function decimalTruthOf(
  problem: Problem,
  places: readonly number[],
  until: number,
  digits: number,
): DecimalTruth | null {
  const isKnown = isExact(problem, places);
  return knownInDecimals(problemKey(problem, until, digits, isKnown), () => {
    const decimals = decimalsOf(wider(digits + MORE_DIGITS));
    const common = { decimals, numbers: decimalNumbers(problem, decimals) };
    if (isKnown)
      return { truth: { ...common, kind: 'exact', error: 0, value: exactInDecimals(problem, decimals) } };
    const reference = decimalReference(problem, until, digits);
    if (reference === null) return { truth: null };
    let last: { readonly t: Decimal; readonly values: readonly Decimal[] } | null = null;
    const value: DecimalSolution = (place, t) => {
      if (last?.t.eq(t) !== true) last = { t, values: reference.at(t) };
      return last.values[place] ?? decimals.notANumber;
    };
    return { truth: { ...common, kind: 'taylor', error: reference.error, value } };
  }).truth;
}

/** Places of the components an error is taken of; a message where there is no such component. */
export function placesOf(
  problem: Problem,
  of: ErrorChoice['of'],
): readonly number[] | { readonly message: string } {
  const names = componentNames(problem);
  if (of === 'norm') return names.map((_, j) => j);
  const place = names.indexOf(of);
  return place >= 0
    ? [place]
    : { message: `there is no component ${of}; there are ${names.slice(0, 6).join(', ')}` };
}

/** What is wrong with the place an error is wanted at, as a sentence; null where nothing is. */
export function wrongPlace(problem: Problem, { at }: ErrorChoice): string | null {
  const { start, end, independent } = problem;
  if (typeof at !== 'object' || (at.t >= start && at.t <= end)) return null;
  return `the error time ${independent} = ${at.t} is outside the interval ${start} <= ${independent} <= ${end}`;
}

/** Whether the exact solution is known for all components that are asked for. */
export function isExact(problem: Problem, places: readonly number[]): boolean {
  const { known } = exactSolution(problem);
  return places.every((place) => known(place));
}

/** References that were made last; a study run method by method wants the same one again and again. */
const known = memoize<Truth>(4);

function fromReference(problem: Problem, until: number): Truth {
  const { kind, error, solution } = estimatedReference(problem, until);
  const state = new Float64Array(problem.size);
  let last = NaN;
  return {
    kind,
    error,
    switches: solution.switches,
    reached: solution.reached,
    ending: solution.ending,
    value: (place, t) => {
      if (t !== last) solution.at(t, state);
      last = t;
      return state[place] ?? NaN;
    },
    fill: (places, times, count, out) => {
      for (let r = 0; r < count; r += 1) {
        solution.at(times[r]!, state);
        for (let k = 0; k < places.length; k += 1) out[r * places.length + k] = state[places[k]!] ?? NaN;
      }
      last = NaN;
    },
  };
}

/**
 * The exact solution where it is known for all components that are asked for, and a reference otherwise.
 *
 * @param until the last time that is asked for: past the end of the interval where runs overrun it
 * @example truthOf(problem, [0], 8).value(0, 0) // 4
 */
export function truthOf(problem: Problem, places: readonly number[], until: number): Truth {
  if (isExact(problem, places)) {
    const { value, fill } = exactSolution(problem);
    return {
      kind: 'exact',
      error: 0,
      switches: [],
      reached: Infinity,
      ending: null,
      value,
      fill: (of, times, count, out) =>
        of.forEach((place, k) => fill(place, times, count, { of: out, first: k, stride: of.length })),
    };
  }
  return known(problemKey(problem, until), () => fromReference(problem, until));
}
