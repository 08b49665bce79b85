import { exp } from '../../elementary/exponential.ts';
import { ln } from '../../elementary/logarithm.ts';
import { leastSquares, type Line } from './order.ts';

/** Why a rung does not count for the order. */
export type LeftOut =
  | { readonly kind: 'struck' }
  /** It left the numbers, or could not be run. */
  | { readonly kind: 'stopped' }
  /** There is no error, or none at all is left. */
  | { readonly kind: 'no error' }
  /** Its error is taken at another time than that of the other rungs. */
  | { readonly kind: 'other time' }
  /** Its error is of the size of rounding, or of the reference's own error. */
  | { readonly kind: 'floor' }
  /** It lies off the line of the finer rungs: h is not yet small enough. */
  | { readonly kind: 'coarse' }
  /** A person chose a window, and it lies outside. */
  | { readonly kind: 'outside' };

/** What the rules need of a rung. */
export interface WindowPoint {
  readonly h: number;
  readonly steps: number;
  /** Null where the run left the numbers, or nothing is known to compare with. */
  readonly error: number | null;
  readonly stopped: boolean;
  readonly struck: boolean;
  readonly otherTime: boolean;
  /** What rounding of the values adds to the error once. */
  readonly unit: number;
  /** Estimated error of the reference the values are compared with; 0 for an exact solution. */
  readonly reference: number;
}

/** An error must be this many times what rounding can have made, to show its own order. */
const CLEAR_OF_ROUNDING = 20;
/** How far, in ln e, a coarser rung may lie off the line of the finer ones. */
const OFF_THE_LINE = 0.15;
/** Above this, in ln e, a rung is not scattered but out of range altogether. */
const FAR_ABOVE = 2.3;
/** Near the floor an order below this part of the usual one is no order. */
const HARDLY_FALLING = 0.5;

/** What rounding can have added in a run, as errors of single operations pile up like a random walk; or the reference. */
function roundingOf({ unit, steps, reference }: WindowPoint): number {
  return Math.max(unit * Math.sqrt(Math.max(1, steps)), reference);
}

/** Whether an error could be bent by rounding, should that pile up step by step in one direction. */
function nearFloor(point: WindowPoint & { readonly e: number }): boolean {
  const { unit, steps, reference, e } = point;
  return e < Math.max(1000 * Math.max(unit * Math.sqrt(steps), reference), 100 * unit * steps);
}

/**
 * Decides for every rung whether it counts for the order, and if not, why. The rules, in this order:
 *
 * 1. Rungs that a person struck out, that left the numbers, that have no error, or whose error is taken at another
 *    time, do not count.
 * 2. Where a person chose a window, the rungs in it count.
 * 3. A rung is at the floor where its error is below 20 times what rounding can have made (one rounding of the
 *    values for each root of the number of steps, or the error of the reference), or, near that (1,000 times; or
 *    100 roundings for each step), where the error falls less than half as fast as it mostly did; all finer rungs
 *    are then at the floor as well.
 * 4. Of the others the finest three count, and then every coarser one in turn that lies within 15 % of the line
 *    through those that count so far; the first that does not, and all that are coarser, are not yet on the line.
 *    Where the finest three themselves are no line, all count, as there is no range in which the errors fall like a
 *    power of h; but if the third lies ten times above the line of the finest two, these two alone do.
 * 5. Where leaving the finest rungs near the floor out makes rule 4 count more rungs, they are at the floor, too.
 *
 * @param points the rungs in any order of h
 * @param chosen first and last index of the window of a person, null for the rules
 */
export function windowOf(
  points: readonly WindowPoint[],
  chosen: { readonly from: number; readonly to: number } | null,
): readonly (LeftOut | null)[] {
  const out: (LeftOut | null)[] = points.map((point, i) => unusable(point) ?? outside(i, chosen));
  if (chosen !== null) return out;
  const usable = points
    .map((point, i) => ({ ...point, i, e: point.error ?? NaN }))
    .filter(({ i }) => out[i] === null)
    .sort((a, b) => b.h - a.h);
  const { from, to } = stretchOf(usable.slice(0, firstAtFloor(usable)));
  for (const { i } of usable.slice(to)) out[i] = { kind: 'floor' };
  for (const { i } of usable.slice(0, from)) out[i] = { kind: 'coarse' };
  return out;
}

function unusable(point: WindowPoint): LeftOut | null {
  if (point.struck) return { kind: 'struck' };
  if (point.stopped) return { kind: 'stopped' };
  if (point.error === null || !(point.error > 0) || point.error === Infinity) return { kind: 'no error' };
  return point.otherTime ? { kind: 'other time' } : null;
}

function outside(i: number, chosen: { readonly from: number; readonly to: number } | null): LeftOut | null {
  return chosen === null || (i >= chosen.from && i <= chosen.to) ? null : { kind: 'outside' };
}

type Usable = WindowPoint & { readonly e: number };

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}

/** Place of the first rung at the floor, from coarse to fine. */
function firstAtFloor(points: readonly Usable[]): number {
  const orders: number[] = [];
  for (const [k, point] of points.entries()) {
    if (point.e < CLEAR_OF_ROUNDING * roundingOf(point)) return k;
    const before = points[k - 1];
    if (before === undefined || before.h === point.h) continue;
    const order = ln(before.e / point.e) / ln(before.h / point.h);
    if (nearFloor(point) && order < HARDLY_FALLING * median(orders)) return k;
    orders.push(order);
  }
  return points.length;
}

function lineThrough(points: readonly Usable[]): Line | null {
  return leastSquares(
    points.map(({ h }) => ln(h)),
    points.map(({ e }) => ln(e)),
  );
}

/** How far a point lies above a line, in ln e. */
function off(line: Line, { h, e }: Usable): number {
  return ln(e) - line.intercept - line.slope * ln(h);
}

/** The rungs that count, from..to-1, of those clear of the floor: rules 4 and 5. */
function stretchOf(points: readonly Usable[]): { readonly from: number; readonly to: number } {
  let best = { from: firstOnLine(points), to: points.length };
  for (let to = points.length - 1; to >= 3 && nearFloor(points[to]!); to -= 1) {
    const from = firstOnLine(points.slice(0, to));
    if (to - from > best.to - best.from && isLine(points.slice(from, to))) best = { from, to };
  }
  return best;
}

function isLine(points: readonly Usable[]): boolean {
  const line = lineThrough(points);
  return line !== null && points.every((point) => Math.abs(off(line, point)) <= OFF_THE_LINE);
}

/** Place of the first rung that lies on the line of those after it, from coarse to fine. */
function firstOnLine(points: readonly Usable[]): number {
  let first = Math.max(0, points.length - 3);
  if (points.length > 2 && !isLine(points.slice(first))) {
    const two = lineThrough(points.slice(-2));
    return two !== null && off(two, points[first]!) > FAR_ABOVE ? points.length - 2 : 0;
  }
  while (first > 0) {
    const line = lineThrough(points.slice(first));
    if (line === null || Math.abs(off(line, points[first - 1]!)) > OFF_THE_LINE) break;
    first -= 1;
  }
  return first;
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
