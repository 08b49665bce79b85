import { observedOrder } from '../../judge/order.ts';
import type { MethodResult } from '../../judge/method-result.ts';
import { promisedOrder } from '../../trial/promised-order.ts';
import type { MethodCase } from '../cases.ts';
import type { FactOf } from '../facts.ts';
import type { Cause } from '../figures.ts';

/** How sure an order must be, at least, to be told from its promise. */
const TELLS_APART = 0.25;
/** A slope less sure than this is no order. */
const SCATTERED = 0.2;
/** Nearer than that an order is its promise. */
const AGREES = 0.05;
/** A step of so many times of the fastest decay is not small for it. */
const NOT_SMALL = 0.5;
/** Orders come nearer to the promise where the finest one is off by less than this part of the fitted one. */
const APPROACHES = 0.7;

/** A fitted order beside its promise. */
interface Compared {
  readonly fit: NonNullable<MethodResult['fit']>;
  readonly promised: number;
  /** Whether that is what theory says on this problem alone. */
  readonly here: boolean;
  /** -1, 0 or 1 as it is below the promise, agrees with it, or is above. */
  readonly side: -1 | 0 | 1;
}

/** Null where nothing can be said. */
function besidePromise({ fit, promised: promise, predicted }: MethodResult): Compared | null {
  if (fit === null || fit.standardError === null || promise.kind !== 'order') return null;
  // what theory says on this problem, where it says it
  const promised = predicted?.order ?? promise.order;
  const off = fit.order - promised;
  if (fit.standardError > SCATTERED) return null;
  const isNear = Math.abs(off) <= Math.max(TELLS_APART, 3 * fit.standardError);
  return { fit, promised, here: promised !== promise.order, side: isNear ? 0 : off < 0 ? -1 : 1 };
}

/** Three or more rungs on a line whose slope is the order of the formula. */
export function asPromised({ result }: MethodCase): FactOf<'as promised'> | null {
  const compared = besidePromise(result);
  if (compared?.side !== 0) return null;
  const { fit, promised, here } = compared;
  const { order, standardError, rungs } = fit;
  const agrees = Math.abs(order - promised) <= Math.max(AGREES, 3 * (standardError ?? 0));
  const figures = { order, standardError, promised, here, count: rungs.length, agrees };
  return { kind: 'as promised', rungs, tone: 'good', figures };
}

/** A slope clearly above the order of the formula on a general problem. */
export function betterThanPromised({ result }: MethodCase): FactOf<'better than promised'> | null {
  const compared = besidePromise(result);
  if (compared?.side !== 1) return null;
  const { order, standardError, rungs } = compared.fit;
  const figures = { order, standardError, promised: compared.promised };
  return { kind: 'better than promised', rungs, tone: 'plain', figures };
}

/** Errors that do not fall like a power of h. */
export function scattered({ study, result, kinks }: MethodCase): FactOf<'scattered'> | null {
  const { fit } = result;
  if (fit?.standardError == null || fit.standardError <= SCATTERED) return null;
  const { order, standardError, rungs } = fit;
  const figures = { order, standardError, kinks: kinks(), independent: study.problem.independent };
  return { kind: 'scattered', rungs, tone: 'trouble', figures };
}

/** Two rungs give a slope, and nothing to check it by. */
export function twoRungs({ result: { fit } }: MethodCase): FactOf<'two rungs'> | null {
  if (fit === null || fit.rungs.length !== 2) return null;
  return { kind: 'two rungs', rungs: fit.rungs, tone: 'plain', figures: { order: fit.order } };
}

/** The first steps' method, if it is of lower order than fits the formula: its name and its order. */
function poorStart({
  study,
  method,
  result,
}: MethodCase): { readonly name: string; readonly order: number } | null {
  const { promised } = result;
  if (method.method.depth === 0 || promised.kind !== 'order' || study.error.at === 'local') return null;
  const name = study.start.instead ?? method.method.startWith?.name ?? 'exact';
  const starter = name === 'exact' ? null : study.start.find(name);
  const own = starter && promisedOrder(starter, study.problem);
  return own?.kind === 'order' && own.order + 1 < promised.order ? { name, order: own.order } : null;
}

/** The order between the finest two rungs that count. */
function finestOrder({ rungs, fit }: MethodResult): number | null {
  const [fine, coarse] = (fit?.rungs ?? []).map((i) => rungs[i]!).sort((a, b) => a.h - b.h);
  return fine === undefined || coarse === undefined
    ? null
    : observedOrder(coarse.h, coarse.error, fine.h, fine.error);
}

/** A cause that explains the fitted order by itself. */
function sureCause(of: MethodCase, order: number): Cause | null {
  const kinks = of.kinks();
  if (kinks.length > 0) return { kind: 'kinks', kinks, independent: of.study.problem.independent };
  const start = poorStart(of);
  return start !== null && Math.abs(order - start.order - 1) <= TELLS_APART
    ? { kind: 'starter', ...start }
    : null;
}

/** A slope below the order of the formula: on its way to it, or lost, with the cause where that is sure. */
function belowPromise(of: MethodCase): FactOf<'order lost'> | FactOf<'not yet'> | null {
  const { result } = of;
  const compared = besidePromise(result);
  if (compared?.side !== -1) return null;
  const { fit, promised } = compared;
  const { order, standardError, rungs } = fit;
  const lost = (cause: Cause): FactOf<'order lost'> => ({
    kind: 'order lost',
    rungs,
    tone: 'trouble',
    figures: { order, standardError, promised, cause },
  });
  const sure = sureCause(of, order);
  if (sure !== null) return lost(sure);
  const finest = finestOrder(result);
  if (finest !== null && Math.abs(finest - promised) < APPROACHES * Math.abs(order - promised))
    return { kind: 'not yet', rungs, tone: 'plain', figures: { order, standardError, promised, finest } };
  const rate = of.decay();
  const smallest = Math.min(...rungs.map((rung) => result.rungs[rung]!.h));
  return rate !== null && smallest * rate > NOT_SMALL
    ? lost({ kind: 'decay', times: smallest * rate, rate })
    : lost({ kind: 'unknown' });
}

export function orderLost(of: MethodCase): FactOf<'order lost'> | null {
  const found = belowPromise(of);
  return found?.kind === 'order lost' ? found : null;
}

export function notYet(of: MethodCase): FactOf<'not yet'> | null {
  const found = belowPromise(of);
  return found?.kind === 'not yet' ? found : null;
}

/** On a test system the formula as typed does not converge. */
export function formula({ result: { promised } }: MethodCase): FactOf<'formula'> | null {
  const diverges = promised.kind === 'diverges';
  if (!diverges && (promised.kind !== 'order' || promised.order > 0)) return null;
  return { kind: 'formula', rungs: [], tone: 'trouble', figures: { diverges } };
}
