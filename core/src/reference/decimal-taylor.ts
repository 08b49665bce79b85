import type { Decimal } from 'decimal.js';
import { MAX_DECIMAL_COMPONENTS } from '../compile/decimal/decimal-loop.ts';
import { decimalNumbers } from '../compile/decimal/decimal-numbers.ts';
import { type DecimalJets, decimalJets } from '../compile/jets/decimal-jets.ts';
import { seriesOperations } from '../compile/jets/series-size.ts';
import { wider } from '../decimal/decimal-precision.ts';
import { type Decimals, decimalsOf } from '../decimal/decimals.ts';
import { exp } from '../elementary/exponential.ts';
import { ln } from '../elementary/logarithm.ts';
import type { Problem } from '../problem/problem.ts';
import { branchesOf } from './switches.ts';

/** A solution with many digits, at any time up to the one it was made for. */
export interface DecimalReference {
  /** Estimated error, relative to the largest component on the way. */
  readonly error: number;
  readonly at: (t: Decimal) => readonly Decimal[];
}

/** Digits of a reference beyond those of the runs that are compared with it. */
const MORE_DIGITS = 10;
/** Operations that both runs of a reference may take together: some seconds. */
const MAX_OPERATIONS = 3e6;
/** Segments of a solution, at most. */
const MAX_SEGMENTS = 2_000;
/** Steps shorter than that, as a part of the interval, go nowhere. */
const SHORTEST = 1e-10;
/** Times at which two runs of a reference are compared. */
const COMPARED = 24;

/** The polynomials that hold from a time on: coefficient k of component j at [k][j]. */
interface Segment {
  readonly t: Decimal;
  readonly coefficients: readonly (readonly Decimal[])[];
}

/** A solution, and the arithmetic it was made in. */
interface Solved {
  readonly segments: readonly Segment[];
  readonly decimals: Decimals;
}

/** Order of the series with the least work for some digits: d/dp of p^2 * 10^(digits/p) is zero. */
function bestOrder(digits: number): number {
  return Math.ceil((digits * Math.LN10) / 2);
}

/** ln of a number of any size; -Infinity for 0. */
function logarithm(value: Decimal): number {
  if (value.isZero()) return -Infinity;
  return ln(value.div(`1e${value.e}`).abs().toNumber()) + value.e * Math.LN10;
}

function evaluated(
  { t, coefficients }: Segment,
  at: Decimal,
  size: number,
  decimals: Decimals,
): readonly Decimal[] {
  const s = at.minus(t);
  return Array.from({ length: size }, (_, j) => {
    let value = decimals.zero;
    for (let k = coefficients.length - 1; k >= 0; k -= 1) value = value.times(s).plus(coefficients[k]![j]!);
    return value;
  });
}

/** Step over which the last two terms of all components stay below 10^-digits of the solution. */
function stepLength(coefficients: Segment['coefficients'], digits: number, decimals: Decimals): number {
  const scale = Math.max(
    logarithm(decimals.largest(coefficients[0] ?? [])),
    logarithm(decimals.largest(coefficients[1] ?? [])),
  );
  const order = coefficients.length - 1;
  return [order - 1, order].reduce((length, k) => {
    const term = logarithm(decimals.largest(coefficients[k] ?? []));
    return term === -Infinity ? length : Math.min(length, 0.9 * exp((scale - digits * Math.LN10 - term) / k));
  }, Infinity);
}

interface Solving {
  readonly problem: Problem;
  readonly until: number;
  readonly decimals: Decimals;
  /** Digits to which the last terms are left out. */
  readonly digits: number;
  readonly jets: DecimalJets;
  /** Segments, at most. */
  readonly most: number;
}

/** The segments of a solution; null where it does not come to its end, or takes too many. */
function solve({ problem, until, decimals, digits, jets, most }: Solving): readonly Segment[] | null {
  const { start, end, initial } = decimalNumbers(problem, decimals);
  const last = decimals.call('max', [end, decimals.fromDouble(until)]);
  const interval = last.minus(start).toNumber();
  const segments: Segment[] = [];
  let [t, y] = [start, initial];
  while (t.lt(last)) {
    const coefficients = jets(t, y);
    if (!coefficients.every((row) => row.every((value) => value.isFinite()))) return null;
    const length = stepLength(coefficients, digits, decimals);
    if (!(length > SHORTEST * interval) || segments.length >= most) return null;
    const segment = { t, coefficients };
    segments.push(segment);
    const next = Number.isFinite(length) ? t.plus(decimals.fromDouble(length)) : last;
    t = next.lt(last) ? next : last;
    y = evaluated(segment, t, problem.size, decimals);
  }
  return segments;
}

function at(segments: readonly Segment[], t: Decimal, size: number, decimals: Decimals): readonly Decimal[] {
  const segment = segments.findLast((one) => one.t.lte(t)) ?? segments[0];
  return segment === undefined ? [] : evaluated(segment, t, size, decimals);
}

/**
 * A solution by Taylor series in decimals, with an estimate of its error from a second run with another order, more
 * digits and shorter steps.
 *
 * @param until the last time that is asked for
 * @param digits of the runs that are compared with it
 * @returns null where right-hand sides switch, where the solution ends before, and where it takes too many operations
 */
export function decimalReference(problem: Problem, until: number, digits: number): DecimalReference | null {
  if (problem.size > MAX_DECIMAL_COMPONENTS || branchesOf(problem) !== null) return null;
  const wanted = digits + MORE_DIGITS;
  const order = bestOrder(wanted);
  const work = seriesOperations(problem, order);
  if (work > MAX_OPERATIONS / 4) return null;
  const run = (more: number): Solved | null => {
    const decimals = decimalsOf(wider(wanted + 3 + more));
    const jets = decimalJets(problem, order + more, decimals);
    const most = Math.min(MAX_SEGMENTS, MAX_OPERATIONS / (2 * work));
    const segments = solve({ problem, until, decimals, digits: wanted + more / 2, jets, most });
    return segments && { segments, decimals };
  };
  const [one, other] = [run(0), run(6)];
  if (one === null || other === null) return null;
  return {
    error: difference(problem, until, one, other),
    at: (t) => at(other.segments, t, problem.size, other.decimals),
  };
}

/** The largest difference of two solutions, relative to the largest component on the way. */
function difference(problem: Problem, until: number, one: Solved, other: Solved): number {
  const { decimals } = other;
  let [scale, apart] = [decimals.zero, decimals.zero];
  for (let i = 0; i <= COMPARED; i += 1) {
    const t = decimals.fromDouble(problem.start + ((until - problem.start) * i) / COMPARED);
    const [a, b] = [
      at(one.segments, t, problem.size, one.decimals),
      at(other.segments, t, problem.size, decimals),
    ];
    b.forEach((value, j) => {
      scale = decimals.call('max', [scale, value.abs()]);
      apart = decimals.call('max', [apart, value.minus(a[j] ?? decimals.notANumber).abs()]);
    });
  }
  return scale.isZero() ? 0 : apart.div(scale).toNumber();
}
