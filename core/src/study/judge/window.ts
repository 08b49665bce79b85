import { exp } from '../../elementary/exponential.ts';
import { ln } from '../../elementary/logarithm.ts';
import { logarithmAt, type UncertainError } from '../runs/expansion.ts';
import { leastSquares } from './order.ts';
import { orderRange } from './order-range.ts';

/** Why a rung does not count for the order. */
export type LeftOut =
  | { readonly kind: 'struck' }
  /** It became non-finite, or could not be run. */
  | { readonly kind: 'stopped' }
  /** There is no error, or none at all is left. */
  | { readonly kind: 'no error' }
  /** Its error is taken at another time than that of the other rungs. */
  | { readonly kind: 'other time' }
  /** It was run on the same grid as another rung. */
  | { readonly kind: 'same grid' }
  /** Its error is larger than the solution itself. */
  | { readonly kind: 'large' }
  /** A good part of its error is rounding, or the reference's own error. */
  | { readonly kind: 'floor' }
  /** The rounding of the method's decimals shows in its error. */
  | { readonly kind: 'defect' }
  /** It is off the expansion of the error that the finer rungs show: h is not yet small enough. */
  | { readonly kind: 'coarse' }
  /** A person chose a window, and it lies outside. */
  | { readonly kind: 'outside' };

/** What the rules need of a rung. */
export interface WindowPoint {
  readonly h: number;
  readonly steps: number;
  /** Null where the run became non-finite, or nothing is known to compare with. */
  readonly error: number | null;
  readonly stopped: boolean;
  /** It became non-finite on its way. */
  readonly nonFinite: boolean;
  readonly struck: boolean;
  readonly otherTime: boolean;
  /** The error is larger than the solution. */
  readonly large: boolean;
  /** Size of rounding in the error. */
  readonly rounding: number;
  /** Estimated error of the reference the values are compared with; 0 for an exact solution. */
  readonly reference: number;
  /** The error that the rounding of the method's decimals makes; 0 where none is known. */
  readonly defect: number;
}

/** An error counts as long as it is so many times what rounding has made of it. */
const CLEAR_OF_ROUNDING = 5;
/** Behind the first that does not, it must be that clear: rounding is small by chance now and then. */
const CLEAR_AGAIN = 20;
/** Likewise for the error of a reference, which is an estimate. */
const CLEAR_OF_REFERENCE = 20;
/** Likewise for what the rounding of the method's decimals makes of it: 3 % change an order by 0.04. */
const CLEAR_OF_DEFECT = 30;
/** How far, in ln e, a coarser rung may lie off the expansion through the finer ones. */
const OFF = 0.15;
/** How far, in ln e, it may lie off the leading term of that expansion. */
const OFF_LEADING = 0.7;
/** Finest errors that always count. */
const FEWEST = 3;
/** Part of an error that is rounding, below which it is not seen in an expansion. */
const QUIET = 0.02;
/** How far, in ln e, an error may lie off the straight line through the finer ones and be on it. */
const OFF_LINE = 0.1;
/** Finer rungs that an expansion goes through, at most. */
const MAX_TERMS = 4;

/**
 * Decides for every rung whether it counts for the slope, and if not, why. The rules, in this order:
 *
 * 1. Rungs excluded manually, that became non-finite, that have no error, or whose error is taken at another time, do not
 *    count; of those on the same grid the first does.
 * 2. Where a person chose a window, the rungs in it count.
 * 3. A rung whose error is larger than the solution does not.
 * 4. A rung is at the floor where its error is less than 5 times the size of rounding in it (20 times where a coarser one
 *    is), or than 20 times the error of the reference; one less than 30 times what the rounding of the method's decimals
 *    makes of it does not count either.
 * 5. Of the others the finest three count, and those finer than the first without much rounding; then every coarser one in
 *    turn that lies within 10 % of the straight line through the finer ones, or within 15 % of their expansion
 *    ln e = ln C + p ln h + a h + b h^2 and within a factor of two of its leading term. The first that does not, and all
 *    that are coarser, are not yet on it. Where the finest show no order, all count. What is coarser than a run that became
 *    non-finite, or whose error is larger than the solution, does not count either.
 *
 * @param points the rungs in any order of h
 * @param chosen first and last index of the window of a person, null for the rules
 */
export function windowOf(
  points: readonly WindowPoint[],
  chosen: { readonly from: number; readonly to: number } | null,
): readonly (LeftOut | null)[] {
  const out: (LeftOut | null)[] = points.map(
    (point, i) => unusable(point) ?? repeated(points, i) ?? outside(i, chosen),
  );
  if (chosen !== null) return out;
  let isBelow = false;
  const falling = points.map((_, i) => i).sort((a, b) => points[b]!.h - points[a]!.h);
  for (const i of falling) {
    out[i] ??= unclear(points[i]!, isBelow ? CLEAR_AGAIN : CLEAR_OF_ROUNDING);
    isBelow ||= out[i]?.kind === 'floor';
  }
  const clear = points
    .flatMap(({ h, error, rounding, reference }, rung): UncertainError[] =>
      out[rung] === null && error !== null ? [{ rung, h, error, uncertainty: rounding + reference }] : [],
    )
    .sort((a, b) => a.h - b.h);
  for (const { rung } of clear.slice(onExpansion(clear))) out[rung] = { kind: 'coarse' };
  // what is coarser than a run that failed says nothing of the order
  const failed = points.filter(({ nonFinite }, i) => nonFinite || out[i]?.kind === 'large');
  const finest = Math.min(Infinity, ...failed.map(({ h }) => h));
  points.forEach(({ h }, i) => {
    if (h > finest) out[i] ??= { kind: 'coarse' };
  });
  return out;
}

function unusable(point: WindowPoint): LeftOut | null {
  if (point.struck) return { kind: 'struck' };
  if (point.stopped) return { kind: 'stopped' };
  if (point.error === null || !(point.error > 0) || point.error === Infinity) return { kind: 'no error' };
  return point.otherTime ? { kind: 'other time' } : null;
}

function repeated(points: readonly WindowPoint[], i: number): LeftOut | null {
  const { h, steps } = points[i]!;
  const first = points.findIndex(
    (other) => other.h === h && other.steps === steps && unusable(other) === null,
  );
  return first < i && first >= 0 ? { kind: 'same grid' } : null;
}

function outside(i: number, chosen: { readonly from: number; readonly to: number } | null): LeftOut | null {
  return chosen === null || (i >= chosen.from && i <= chosen.to) ? null : { kind: 'outside' };
}

function unclear({ error, large, rounding, reference, defect }: WindowPoint, clear: number): LeftOut | null {
  if (large) return { kind: 'large' };
  const isClear = error !== null && error >= clear * rounding && error >= CLEAR_OF_REFERENCE * reference;
  if (!isClear) return { kind: 'floor' };
  return error >= CLEAR_OF_DEFECT * defect ? null : { kind: 'defect' };
}

/** How far, in ln e, an error lies off the straight line through others. */
function offLine(points: readonly UncertainError[], { h, error }: UncertainError): number {
  const line = leastSquares(
    points.map((point) => ln(point.h)),
    points.map((point) => ln(point.error)),
  );
  return line === null ? Infinity : Math.abs(ln(error) - line.intercept - line.slope * ln(h));
}

/**
 * How many of some errors, the finest first, are on one expansion; all where no order is seen. Errors with rounding in
 * them count, but do not decide over coarser ones where others are left for that.
 */
function onExpansion(points: readonly UncertainError[]): number {
  if (points.length < FEWEST || orderRange(points) === null) return points.length;
  const quiet = points.findIndex(({ error, uncertainty }) => uncertainty < QUIET * error);
  const first = quiet > 0 && points.length - quiet >= FEWEST ? quiet : 0;
  let count = first + FEWEST;
  for (; count < points.length; count += 1) {
    const point = points[count]!;
    const finer = points.slice(Math.max(first, count - MAX_TERMS), count);
    // errors that scatter, as those at a time between grid points, are on no smooth expansion, but on their line
    if (offLine(finer, point) < OFF_LINE) continue;
    const [whole, leading] = [logarithmAt(finer, point.h), logarithmAt(finer, point.h, true)];
    if (whole === null || leading === null) break;
    if (Math.abs(ln(point.error) - whole.value) > OFF + 2 * whole.noise) break;
    if (Math.abs(ln(point.error) - leading.value) > OFF_LEADING + 2 * leading.noise) break;
  }
  return count;
}

/** The order over the rungs that count: the least-squares slope of ln e over ln h. */
export interface OrderFit {
  readonly order: number;
  /** Standard error of the order; null for two rungs. */
  readonly standardError: number | null;
  /** e is about constant * h^order. */
  readonly constant: number;
  /** First and last rung that count. */
  readonly from: number;
  readonly to: number;
  /** All that count. */
  readonly rungs: readonly number[];
  readonly by: 'rules' | 'person';
}

/** Fits the order over the points that are not left out; null for fewer than two different step sizes. */
export function fitOrder(
  points: readonly { readonly h: number; readonly error: number | null }[],
  leftOut: readonly (LeftOut | null)[],
  by: OrderFit['by'] = 'rules',
): OrderFit | null {
  const rungs = points.flatMap((_, i) => (leftOut[i] === null ? [i] : []));
  const [from, to] = [rungs[0], rungs.at(-1)];
  const line = leastSquares(
    rungs.map((i) => ln(points[i]!.h)),
    rungs.map((i) => ln(points[i]!.error ?? NaN)),
  );
  if (line === null || from === undefined || to === undefined) return null;
  return {
    order: line.slope,
    standardError: line.standardError,
    constant: exp(line.intercept),
    from,
    to,
    rungs,
    by,
  };
}
