import type { Method } from '../../method/method.ts';
import { memoize } from '../../text/memoize.ts';
import { lineStarts, placeOf, type Span } from '../../text/place.ts';
import {
  effectiveProof,
  exactProof,
  inspectMethod,
  type Inspection,
  type OrdersOn,
} from '../inspect-method.ts';
import { suggestedOrder } from '../order/highest-order.ts';
import type { ProvedOrder } from '../order/prove-order.ts';
import { digitSlips } from './digit-slips.ts';
import { dimensionSlips } from './dimension-slips.ts';
import { type NearMiss, nearMisses, stepMisses, type Trial } from './near-misses.ts';
import { growthSlips, shiftSlips, startSlips, unusedSlips, weightSlips } from './other-slips.ts';
import type { Slip } from './slip.ts';

/** Likely mistakes of a text, in the order of their places, and single changes that would raise its order. */
export interface MethodSlips {
  readonly slips: readonly Slip[];
  readonly nearMisses: readonly NearMiss[];
}

/** Whether times and values are shifted differently without a loss of order, as in Lobatto IIIB methods. */
function isShiftedOnPurpose({ autonomous }: OrdersOn, order: ProvedOrder | null): boolean {
  return order !== null && order.order >= 2 && autonomous === order.order;
}

/**
 * What lacks its h, with the repairs that are proved: at the place of the likeliest one, which may be where a slope is defined
 * and not where it is used.
 */
function mended({ text }: Method, slips: readonly Slip[], misses: readonly NearMiss[]): readonly Slip[] {
  const [best] = misses;
  if (best === undefined) return slips;
  const starts = lineStarts(text);
  const lineOf = ({ at }: { readonly at: Span }): number => placeOf(starts, at.from).line;
  const repairs = misses.map(({ repair }) => repair);
  const isThere = slips.find((slip) => lineOf(slip) === lineOf(best));
  if (isThere === undefined) return [{ kind: 'dimension', message: best.message, at: best.at, repairs }];
  return slips.map((slip) => (slip === isThere ? { ...slip, repairs } : slip));
}

/** Slips of a text that is a linear form. */
function ofForm(method: Method, inspection: Inspection & Pick<Trial, 'linear'>): MethodSlips {
  const { linear, order, withinDigits: within, ordersOn } = inspection;
  const dimension = dimensionSlips(method, linear);
  const isConsistent = dimension.length === 0;
  const proof = effectiveProof(inspection);
  const unused = unusedSlips(method);
  const suggested = suggestedOrder(linear, unused.length);
  const trial: Trial = { method, linear, proof, suggested };
  const canRise = proof !== null && proof.order < suggested.most;
  const exact = exactProof(inspection);
  const isShifted = isConsistent && within?.shiftsAgree !== true && !isShiftedOnPurpose(ordersOn, order);
  return {
    slips: [
      ...mended(method, dimension, isConsistent ? [] : stepMisses(trial)),
      ...(isConsistent && within === null ? weightSlips(linear) : []),
      ...(isShifted ? shiftSlips(linear) : []),
      ...(exact === null ? [] : digitSlips(method, exact, within)),
      ...unused,
      ...startSlips(method, proof),
      ...growthSlips(method, proof),
    ].sort((a, b) => a.at.from - b.at.from),
    nearMisses: canRise ? nearMisses(trial) : [],
  };
}

const known = memoize<MethodSlips>(200);

/**
 * Likely mistakes in a method, each with its repairs where some are proved: a slope without its h, weights that do not add
 * up, a stage at another time than its value, decimals that are meant as fractions, an unused line, a weak starting method;
 * and numbers, names, indices or signs of which another would raise the order. Every repair is proved from the changed text,
 * so that this may take longer than the inspection itself.
 *
 * @example findSlips(heun).slips // []
 */
export function findSlips(method: Method): MethodSlips {
  return known(method.text, () => {
    const inspection = inspectMethod(method);
    const { linear } = inspection;
    return linear === null
      ? { slips: unusedSlips(method), nearMisses: [] }
      : ofForm(method, { ...inspection, linear });
  });
}
