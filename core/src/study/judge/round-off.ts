import { exp } from '../../elementary/exponential.ts';
import { ln } from '../../elementary/logarithm.ts';
import { pow } from '../../elementary/power.ts';
import type { Precision } from '../../compile/precision.ts';
import { leastSquares } from './order.ts';
import type { OrderFit } from './window.ts';

/** Where rounding takes over: e is about C h^p + R/h^q. */
export interface RoundOff {
  /** R, the error that rounding makes at h = 1 by the model. */
  readonly size: number;
  /** q, from 0 (a floor that stays level) to 1 (every step adds its rounding). */
  readonly exponent: number;
  /** The step of least error and the error there, in the precision of the study. */
  readonly best: BestStep;
  /** The same as it would be in single and in double precision. */
  readonly single: BestStep;
  readonly double: BestStep;
}

export interface BestStep {
  readonly h: number;
  readonly error: number;
}

/** How much coarser single precision rounds: 2^-24 to 2^-53. */
const SINGLE_TO_DOUBLE = 2 ** 29;
/** Below this exponent the floor counts as level. */
const LEVEL = 0.05;

/** The least value of C h^p + R/h^q; for a level floor, the step at which both parts are alike. */
function bestStep(constant: number, order: number, size: number, exponent: number): BestStep {
  const h =
    exponent < LEVEL
      ? pow(size / constant, 1 / order)
      : pow((exponent * size) / (order * constant), 1 / (order + exponent));
  return { h, error: constant * pow(h, order) + size / pow(h, exponent) };
}

/**
 * Fits the model e = C h^p + R/h^q: C and p are those of the fitted order, R and q come from the rungs at the floor.
 * With two such rungs q is taken as 1/2, the growth of a random walk; with more it is fitted, between 0 and 1.
 *
 * Source: P. Henrici, Discrete Variable Methods in Ordinary Differential Equations (1962), section 1.4.
 *
 * @returns null where fewer than two rungs show the floor, or no order is known
 */
export function fitRoundOff(
  fit: OrderFit | null,
  floor: readonly { readonly h: number; readonly error: number | null }[],
  precision: Precision,
): RoundOff | null {
  const seen = floor.flatMap(({ h, error }) =>
    error !== null && error > 0 ? [{ x: ln(h), y: ln(error) }] : [],
  );
  if (fit === null || !(fit.order > 0.5) || seen.length < 2) return null;
  const line = leastSquares(
    seen.map(({ x }) => x),
    seen.map(({ y }) => y),
  );
  const exponent = seen.length === 2 || line === null ? 0.5 : Math.min(1, Math.max(0, -line.slope));
  const size = exp(seen.reduce((sum, { x, y }) => sum + y + exponent * x, 0) / seen.length);
  const { constant, order } = fit;
  const at = (factor: number): BestStep => bestStep(constant, order, factor * size, exponent);
  const isSingle = precision === 'single';
  return {
    size,
    exponent,
    best: at(1),
    single: at(isSingle ? 1 : SINGLE_TO_DOUBLE),
    double: at(isSingle ? 1 / SINGLE_TO_DOUBLE : 1),
  };
}
