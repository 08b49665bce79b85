import { Refusal } from '../text/refusal.ts';
import { count } from '../text/number-text.ts';
/** What is done where h does not divide the interval. */
export const LAST_STEPS = ['fit', 'shorten', 'overrun'] as const;
/** How a run ends where h does not divide the interval: see LAST_STEPS. */
export type LastStep = (typeof LAST_STEPS)[number];

/** The points of a run: t[n] = start + n*h for n = 0..steps, but for a last step that is shorter. */
export interface Grid {
  readonly start: number;
  readonly h: number;
  readonly steps: number;
  /** The size of the last step where it is shorter than h; null where all steps are alike. */
  readonly shorter: number | null;
  /** The step size that was asked for. */
  readonly wished: number;
  /** Whether the requested step size divides the interval, up to rounding. */
  readonly divides: boolean;
}

/** Most steps of one run. */
export const MAX_STEPS = 1e8;

/** A requested step size or number of steps: one of both. */
export type GridRequest = { readonly h: number } | { readonly steps: number };

/**
 * Lays a grid over an interval. A step size that divides the interval up to rounding is used as it was
 * written (0.1 divides 1 although no binary number is 0.1). Where it does not, `fit` takes the nearest that
 * divides, `shorten` makes the last step shorter, and `overrun` stops at the first point past the end.
 *
 * @param start, end the interval, in units of the independent variable
 * @throws Refusal where the request is not a positive number or needs more than MAX_STEPS steps
 * @example layGrid(0, 1, { h: 0.3 }).steps // 3
 */
export function layGrid(
  start: number,
  end: number,
  gridRequest: GridRequest,
  lastStep: LastStep = 'fit',
): Grid {
  const length = end - start;
  if ('steps' in gridRequest) {
    const { steps } = gridRequest;
    if (!Number.isSafeInteger(steps) || steps < 1)
      throw new Refusal('grid', `the number of steps must be a positive integer, not ${steps}`);
    checkSteps(steps);
    return { start, h: length / steps, steps, shorter: null, wished: length / steps, divides: true };
  }
  const { h } = gridRequest;
  if (!(h > 0) || !Number.isFinite(h))
    throw new Refusal('grid', `the step size must be a positive number, not ${h}`);
  const quotient = length / h;
  const whole = Math.max(1, Math.round(quotient));
  // the ends themselves are rounded: their difference is no more exact than they are
  const rounding = (2 ** -52 * Math.max(Math.abs(start), Math.abs(end))) / h;
  const divides = Math.abs(quotient - whole) <= 1e-12 * whole + rounding;
  const steps = divides ? whole : lastStep === 'fit' ? nearestCount(length, h) : Math.ceil(quotient);
  checkSteps(steps);
  if (divides) return { start, h, steps, shorter: null, wished: h, divides };
  if (lastStep === 'fit') return { start, h: length / steps, steps, shorter: null, wished: h, divides };
  const shorter = lastStep === 'shorten' ? end - (start + (steps - 1) * h) : null;
  return { start, h, steps, shorter, wished: h, divides };
}

/** The number of steps whose size is nearest to a requested one; of two that are as near the larger. */
function nearestCount(length: number, h: number): number {
  const fewer = Math.max(1, Math.floor(length / h));
  return Math.abs(length / fewer - h) < Math.abs(length / (fewer + 1) - h) ? fewer : fewer + 1;
}

function checkSteps(steps: number): void {
  if (steps > MAX_STEPS)
    throw new Refusal('grid', `this step size needs ${count(steps)} steps; at most 100,000,000 are allowed`);
}

/** The size of the step from grid point n to n + 1. */
export function stepSizeAt(grid: Grid, n: number): number {
  return grid.shorter !== null && n === grid.steps - 1 ? grid.shorter : grid.h;
}

/**
 * The time of grid point n.
 *
 * @example timeAt(layGrid(0, 1, { steps: 4 }), 3) // 0.75
 */
export function timeAt(grid: Grid, n: number): number {
  if (n === grid.steps && grid.shorter !== null) return timeAt(grid, n - 1) + grid.shorter;
  return grid.start + n * grid.h;
}
