import { timeAxis } from '../../../problem/time-text.ts';
import { pow } from '../../../elementary/power.ts';
import { inspectMethod } from '../../../inspect/inspect-method.ts';
import { sizeOf } from '../../../inspect/stability/complex.ts';
import { wrongDerivativeIn } from '../../judge/wrong-derivatives.ts';
import { clearPlaces, clearRungs } from '../../judge/clear-rungs.ts';
import { observedOrder } from '../../judge/order.ts';
import type { MethodResult } from '../../judge/method-result.ts';
import { gridMeasureOf, isRelative } from '../../runs/error-choice.ts';
import { proofFor, expectedOrder } from '../../trial/trial-order.ts';
import type { MethodCase } from '../cases.ts';
import type { FactOf } from '../facts.ts';
import type { Cause, ExpectedOrder, NoOrder, OrderTrend } from '../figures.ts';
import { predicted } from './predicted-rules.ts';

/** A range wider than that, and that part of the order, agrees with no expected order. */
const TELLS = { least: 0.3, part: 0.08 } as const;
/** A range narrower than that is reported as an order that is not the promised one. */
const SURE = 0.25;
/** Orders from one step size to the next that change by less than that are steady. */
const STEADY = 0.02;
/** Where there are kinks, a lower order is none. */
const MIN_BY_KINKS = 0.5;
/** A step of so many times of the fastest decay is not small for it. */
const NOT_SMALL = 0.5;
/** An error so many times its leading term is ruled by other terms. */
const OTHER_TERMS = 2;

/** Where the orders between neighbouring rungs go; null for fewer than three rungs. */
function trendOf(result: MethodResult): OrderTrend | null {
  const rungs = clearRungs(result.rungs);
  const all = rungs.flatMap((rung, i) => {
    const before = rungs[i - 1];
    const order = before && observedOrder(before.h, before.error, rung.h, rung.error);
    return order == null ? [] : [order];
  });
  if (all.length < 2) return null;
  const orders = all.slice(-4);
  const changes = orders.slice(1).map((order, i) => order - orders[i]!);
  const goes = changes.every((change) => Math.abs(change) <= STEADY)
    ? 'steady'
    : changes.every((change) => change > -STEADY)
      ? 'rising'
      : changes.every((change) => change < STEADY)
        ? 'falling'
        : 'up and down';
  return { orders, goes };
}

/** What theory says of the order: on this problem, or of the formula; null where it says nothing. */
function expectedOrderOf({
  study,
  result: { promised, predicted: theory },
}: MethodCase): ExpectedOrder | null {
  const local = study.error.at === 'local';
  // a formula of order 0 promises nothing, though errors of single steps fall with h
  if (promised.kind !== 'order' || promised.order <= (local ? 1 : 0)) return null;
  const isHere = theory !== null && theory.order !== promised.order;
  return isHere
    ? { promised: theory.order, by: 'theory here', local }
    : { promised: promised.order, by: promised.by, local };
}

/** An error with more than this part of rounding is not held against its leading term. */
const ROUNDED = 0.05;

/**
 * The finest rung that counts, and how many times its leading term its error is; null where rounding is in it, and for
 * relative errors over the grid, which a zero of the solution may rule.
 */
function besideTheory({ study, result }: MethodCase): { readonly h: number; readonly times: number } | null {
  const { predicted: theory } = result;
  const finest = clearRungs(result.rungs).at(-1);
  if (theory === null || finest?.error == null) return null;
  if ((finest.rounding?.size ?? 0) > ROUNDED * finest.error) return null;
  if (isRelative(study.error) && gridMeasureOf(study.error) !== null) return null;
  return { h: finest.h, times: finest.error / (theory.constant * pow(finest.h, theory.order)) };
}

/** Whether the leading term is what mostly rules at the finest h, as far as theory knows it. */
function isRuled(of: MethodCase): boolean {
  const beside = besideTheory(of);
  return beside === null || (beside.times < OTHER_TERMS && beside.times > 1 / OTHER_TERMS);
}

/** An order whose range holds what theory says. */
export function asExpected(of: MethodCase): FactOf<'as promised'> | null {
  const { result, kinks } = of;
  const [expected, orderTrend, { order }] = [expectedOrderOf(of), trendOf(result), result];
  if (expected === null || orderTrend === null || order === null || !isRuled(of)) return null;
  const { value, low, high, rungs } = order;
  const agrees =
    low <= expected.promised &&
    expected.promised <= high &&
    high - low <= TELLS.least + TELLS.part * expected.promised;
  if (!agrees) return null;
  // where a kink lies within its step decides over an error: two orders, or some that go up and down, agree with nothing
  const isOpen = orderTrend.goes === 'up and down' || orderTrend.orders.length < 3;
  if (isOpen && kinks().length > 0) return null;
  return {
    kind: 'as promised',
    rungs,
    tone: 'good',
    figures: { value, low, high, ...expected, ...orderTrend },
  };
}

/** A sure order that is not what theory says of the formula, where theory does not say what it is on this problem. */
function another(of: MethodCase): {
  readonly order: NonNullable<MethodResult['order']>;
  readonly expected: ExpectedOrder;
} | null {
  const { result } = of;
  const [expected, { order }] = [expectedOrderOf(of), result];
  if (expected === null || order === null || result.predicted !== null) return null;
  const differs = expected.promised < order.low || expected.promised > order.high;
  return differs && order.high - order.low <= SURE ? { order, expected } : null;
}

/** An order above that of the formula, where that is because its leading term is zero. */
export function betterThanExpected(of: MethodCase): FactOf<'better than promised'> | null {
  const found = another(of);
  if (found === null || found.order.low < found.expected.promised || !of.result.leadingZero) return null;
  const { value, low, high, rungs } = found.order;
  return {
    kind: 'better than promised',
    rungs,
    tone: 'plain',
    figures: { value, low, high, ...found.expected, cause: { kind: 'zero', order: found.expected.promised } },
  };
}

/** The starting method, if it is of lower order than fits the formula: its name and its order. */
function poorStart({
  study,
  method,
  result,
}: MethodCase): { readonly name: string; readonly order: number } | null {
  const { promised } = result;
  if (method.method.depth === 0 || promised.kind !== 'order' || study.error.at === 'local') return null;
  const name = study.start.instead ?? method.method.startWith?.name ?? 'exact';
  const starter = name === 'exact' ? null : study.start.find(name);
  const own = starter && expectedOrder(starter, study.problem);
  return own?.kind === 'order' && own.order + 1 < promised.order ? { name, order: own.order } : null;
}

/** What explains an order below that of the formula, where that is sure. */
function causeOf(of: MethodCase): Cause {
  const range = of.result.order;
  const derivative = wrongDerivativeIn(of.method.method, of.study.problem);
  if (derivative !== null) return { kind: 'typed', derivative };
  const kinks = of.kinks();
  if (kinks.length > 0) return { kind: 'kinks', kinks, axis: timeAxis(of.study.problem) };
  const start = poorStart(of);
  if (start !== null && range !== null && range.low <= start.order + 1 && start.order + 1 <= range.high)
    return { kind: 'starter', ...start };
  const rate = of.decay();
  const smallest = clearRungs(of.result.rungs).at(-1)?.h ?? NaN;
  return rate !== null && smallest * rate > NOT_SMALL
    ? { kind: 'decay', times: smallest * rate, rate }
    : { kind: 'unknown' };
}

/** An order below that of the formula, where the reason is sure and does not end at a smaller h. */
export function orderLost(of: MethodCase): FactOf<'order lost'> | null {
  const found = another(of);
  if (found === null || found.order.high > found.expected.promised) return null;
  const { value, low, high, rungs } = found.order;
  // a step that holds a kink at one place of a grid for several rungs shows no order at all
  if (of.kinks().length > 0 && value < MIN_BY_KINKS) return null;
  const cause = causeOf(of);
  if (cause.kind === 'decay' || cause.kind === 'unknown') return null;
  if (cause.kind === 'kinks' && trendOf(of.result)?.goes !== 'steady') return null;
  const figures = { value, low, high, ...found.expected, cause };
  return { kind: 'order lost', rungs, tone: 'trouble', figures };
}

/** Errors at the finest h that are far from their leading term: other terms still rule them. */
export function notYet(of: MethodCase): FactOf<'not yet'> | null {
  const { result } = of;
  const [beside, orderTrend, { predicted: theory }] = [besideTheory(of), trendOf(result), result];
  if (beside === null || orderTrend === null || theory === null || isRuled(of)) return null;
  const rungs = clearPlaces(result.rungs);
  return {
    kind: 'not yet',
    rungs,
    tone: 'plain',
    figures: { ...beside, ...orderTrend, order: theory.order },
  };
}

/** What is known of errors that do not show the order that is expected. */
function knownOf(of: MethodCase, cause: Cause): NoOrder {
  if (cause.kind === 'kinks') return 'unknown';
  const { result } = of;
  // the finest error is near its leading term, whatever the others show; and three show little
  if (predicted(of) !== null || clearRungs(result.rungs).length <= 3) return 'orders';
  return besideTheory(of) === null ? 'unknown' : 'not yet';
}

/** Three rungs or more that show no order, or none that agrees with theory or is sure to be another. */
export function noOrder(of: MethodCase): FactOf<'no order'> | null {
  const { result } = of;
  const [expected, orderTrend] = [expectedOrderOf(of), trendOf(result)];
  if (expected === null || orderTrend === null) return null;
  if (asExpected(of) !== null || betterThanExpected(of) !== null || orderLost(of) !== null) return null;
  if (notYet(of) !== null) return null;
  const cause = causeOf(of);
  const figures = { ...orderTrend, ...expected, cause, says: knownOf(of, cause) };
  return { kind: 'no order', rungs: clearPlaces(result.rungs), tone: 'plain', figures };
}

/** Two rungs give a slope, and nothing to check it by. */
export function twoRungs({ result }: MethodCase): FactOf<'two rungs'> | null {
  const [coarse, fine, ...more] = clearRungs(result.rungs);
  if (coarse === undefined || fine === undefined || more.length > 0) return null;
  const order = observedOrder(coarse.h, coarse.error, fine.h, fine.error);
  if (order === null) return null;
  const rungs = clearPlaces(result.rungs);
  return { kind: 'two rungs', rungs, tone: 'plain', figures: { order } };
}

/** A formula whose runs tend to no solution: proved from its text, or seen on a test system. */
export function formula({ study, method, result: { promised } }: MethodCase): FactOf<'formula'> | null {
  const diverges = promised.kind === 'diverges';
  const isLocal = study.error.at === 'local';
  if (!diverges && (promised.kind !== 'order' || promised.order > (isLocal ? 1 : 0))) return null;
  const proof = proofFor(method.method, study.problem);
  const isProved = proof !== null && !proof.atLeast;
  const roots = diverges && isProved ? (inspectMethod(method.method).order?.zero?.roots ?? []) : [];
  const figures = {
    diverges,
    by: isProved ? ('proof' as const) : ('trial' as const),
    root: roots.length === 0 ? null : Math.max(...roots.map(sizeOf)),
  };
  return { kind: 'formula', rungs: [], tone: 'trouble', figures };
}
