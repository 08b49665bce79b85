import type { Method } from '../method/method.ts';
import { memoize } from '../text/memoize.ts';
import { kindOf, type MethodKind } from './form/kind.ts';
import type { LinearMethod, NotLinear } from './form/linear-method.ts';
import { readLinear } from './form/read-linear.ts';
import { type MultistepCoefficients, multistepOf, type Tableau, tableauOf } from './form/tableau.ts';
import { highestOrder } from './order/highest-order.ts';
import { type ProvedOrder, proveOrder } from './order/prove-order.ts';
import { dimensionSlips } from './slips/dimension-slips.ts';
import { type NearMiss, nearMisses } from './slips/near-misses.ts';
import { growthSlips, shiftSlips, startSlips, unusedSlips, weightSlips } from './slips/other-slips.ts';
import type { Slip } from './slips/slip.ts';
import { type StabilityLimits, stabilityLimits } from './stability/stability-limits.ts';
import { type StabilityPolynomial, stabilityPolynomial } from './stability/stability-polynomial.ts';

/** How far a method is stable, and the polynomials that say so. */
export interface Stability extends StabilityLimits {
  readonly polynomial: StabilityPolynomial;
}

/** What can be proved of a method from its text, without running it. */
export interface Inspection {
  /** Null where the text is not linear: then only trial tells. */
  readonly kind: MethodKind | null;
  readonly why: NotLinear | null;
  readonly linear: LinearMethod | null;
  /** For any problem; null where no order can be proved. */
  readonly order: ProvedOrder | null;
  /** For x'' = a(t, x), where a does not depend on the velocity; null for methods of first order. */
  readonly orderWithoutVelocity: ProvedOrder | null;
  readonly tableau: Tableau | null;
  readonly multistep: MultistepCoefficients | null;
  /** Null where it is not known from the text. */
  readonly stability: Stability | null;
  readonly slips: readonly Slip[];
  readonly nearMisses: readonly NearMiss[];
}

function inspected(method: Method): Inspection {
  const linear = readLinear(method);
  if ('why' in linear)
    return {
      kind: null,
      why: linear,
      linear: null,
      order: null,
      orderWithoutVelocity: null,
      tableau: null,
      multistep: null,
      stability: null,
      slips: unusedSlips(method),
      nearMisses: [],
    };
  const order = proveOrder(linear);
  const free = 'x' in linear.next ? proveOrder(linear, 'without velocity') : null;
  const best = free !== null && order !== null && free.order > order.order ? free : order;
  const canRise =
    order !== null &&
    free === null &&
    order.order < highestOrder(kindOf(linear), linear.stages.length, linear.depth);
  const dimension = dimensionSlips(method, linear);
  const polynomial = dimension.length === 0 ? stabilityPolynomial(linear) : null;
  return {
    kind: kindOf(linear),
    why: null,
    linear,
    order,
    orderWithoutVelocity: free,
    tableau: dimension.length === 0 ? tableauOf(linear) : null,
    multistep: dimension.length === 0 ? multistepOf(linear) : null,
    stability: polynomial && { polynomial, ...stabilityLimits(polynomial) },
    slips: [
      ...dimension,
      ...(dimension.length === 0 ? [...weightSlips(linear), ...shiftSlips(linear)] : []),
      ...unusedSlips(method),
      ...startSlips(method, best),
      ...growthSlips(method, order),
    ].sort((a, b) => a.at.from - b.at.from),
    nearMisses: canRise ? nearMisses(method, linear, order) : [],
  };
}

const known = memoize<Inspection>(200);

/**
 * Reads a method as an exact linear form and says what it is: kind, coefficients, order with the conditions that fail,
 * stability, likely mistakes and typos. Nothing is run.
 *
 * @example inspectMethod(heun).order?.order // 2
 */
export function inspectMethod(method: Method): Inspection {
  return known(method.text, () => inspected(method));
}
