import { ln } from '../../src/elementary/logarithm.ts';
import { pow } from '../../src/elementary/power.ts';
import { norm } from '../../src/run/norm.ts';
import type { Cause, Figures, OrderTrend } from '../../src/study/findings/figures.ts';
import { expectedOrder } from '../../src/study/trial/trial-order.ts';
import {
  clear,
  type Claimed,
  clearError,
  counting,
  errorsAt,
  finerOrders,
  runsAt,
  slopesAt,
  type Verdict,
} from './claimed.ts';
import { steepness } from './steepness.ts';

function inRange(orders: readonly number[], low: number, high: number): Verdict {
  const last = orders.at(-1);
  if (last === undefined || (last > low - 0.1 && last < high + 0.1)) return null;
  return `finer runs show ${orders.join(', ')}`;
}

/** Orders between successive step sizes that are not those of the errors. */
function trendClaim(of: Claimed, { orders }: OrderTrend): Verdict {
  const rungs = clear(of);
  const all = rungs.slice(1).map(({ h, error }, i) => ln(rungs[i]!.error! / error!) / ln(rungs[i]!.h / h));
  const last = all.slice(-orders.length);
  return orders.every((order, i) => Math.abs(order - (last[i] ?? NaN)) < 1e-9)
    ? null
    : `the errors give ${all.join(', ')}`;
}

/** Whether the slope of the right-hand sides along the solution has a jump at a time, or they have one themselves. */
function isKink(of: Claimed, t: number): boolean {
  const { start, end } = of.study.problem;
  const bend = (d: number): number => {
    const [before, at, after] = [t - d, t, t + d].map((time) => slopesAt(of, time));
    return norm(Array.from(at!, (g, j) => after![j]! - 2 * g + before![j]!)) / d;
  };
  const width = 1e-3 * (end - start);
  return bend(width / 10) > 0.2 * bend(width) && bend(width / 10) > 0;
}

function causeClaim(of: Claimed, cause: Cause): Verdict {
  const { study, method } = of;
  switch (cause.kind) {
    case 'kinks': {
      const smooth = cause.kinks.find((t) => !isKink(of, t));
      return smooth === undefined ? null : `nothing bends at ${smooth}`;
    }
    case 'starter': {
      const own = study.start.find(cause.name);
      const order = own && expectedOrder(own, study.problem);
      if (order?.kind !== 'order' || order.order !== cause.order)
        return 'the starting method has another order';
      const counts = counting(of)
        .slice(-2)
        .map(({ steps }) => steps);
      const [coarse, fine] = errorsAt(
        { ...study, start: { ...study.start, instead: 'exact' } },
        method,
        counts,
      );
      const [before, after] = counting(of).slice(-2);
      if (coarse == null || fine == null || before === undefined || after === undefined) return null;
      const ratio = ln(before.h / after.h);
      return ln(coarse / fine) / ratio > ln(before.error! / after.error!) / ratio + 0.2
        ? null
        : 'exact starting values change nothing';
    }
    case 'decay': {
      const steepest = steepness(of);
      const { h } = counting(of).at(-1)!;
      if (Math.abs(cause.times / (cause.rate * h) - 1) > 1e-9) return `h times the rate is ${cause.rate * h}`;
      return steepest !== null && cause.rate > 1.1 * steepest
        ? `nothing decays faster than ${steepest}`
        : null;
    }
    case 'typed': {
      // with the derivative that is computed from the right-hand side the order is the expected one
      const problem = { ...study.problem, typed: [], text: `${study.problem.text}\n(nothing typed)` };
      const [fine, finer] = errorsAt({ ...study, problem }, method, [256, 512]);
      const expected = of.own.promised.kind === 'order' ? of.own.promised.order : NaN;
      return fine == null || finer == null || Math.abs(ln(fine / finer) / ln(2) - expected) < 0.2
        ? null
        : 'without it the order is no other';
    }
    case 'zero':
    case 'unknown':
      return null;
  }
}

/** What is said of orders that agree with theory, or with a reason do not. */
export function asExpected({ low, high, promised, ...rest }: Figures['as promised'], of: Claimed): Verdict {
  if (promised < low || promised > high) return 'the range does not hold the expected order';
  const wrong = trendClaim(of, rest);
  if (wrong !== null || of.study.error.at === 'local') return wrong;
  const orders = finerOrders(of);
  // nearer to the expected order than the last one
  const isNearer =
    Math.abs((orders.at(-1) ?? NaN) - promised) < Math.abs((rest.orders.at(-1) ?? NaN) - promised);
  return isNearer ? null : inRange(orders, Math.min(low, promised), Math.max(high, promised));
}

export function anotherOrder({ low, high, cause }: Figures['order lost'], of: Claimed): Verdict {
  return causeClaim(of, cause) ?? inRange(finerOrders(of), low, high);
}

export function noOrder({ cause, says, promised, ...trend }: Figures['no order'], of: Claimed): Verdict {
  const wrong = trendClaim(of, trend) ?? causeClaim(of, cause);
  if (wrong !== null || says !== 'not yet') return wrong;
  // an order that stays as it is, and is another, will not become the expected one
  const [last = NaN, finer = NaN] = [trend.orders.at(-1), finerOrders(of).at(-1)];
  return Math.abs(last - finer) < 0.02 && Math.abs(finer - promised) > 0.3
    ? `finer runs show ${finer}`
    : null;
}

export function twoSizes({ order }: Figures['two rungs'], of: Claimed): Verdict {
  const rungs = counting(of);
  if (rungs.length !== 2) return `${rungs.length} step sizes count`;
  return trendClaim(of, { orders: [order], goes: 'steady' });
}

export function beside({ order, times, h, ...trend }: Figures['not yet'], of: Claimed): Verdict {
  const rung = of.own.rungs.find((r) => r.h === h);
  const part = (rung?.error ?? NaN) / ((of.own.predicted?.constant ?? NaN) * pow(h, order));
  if (!(Math.abs(part / times - 1) < 1e-9)) return `it is ${part} times`;
  // nearer to its leading term at a much smaller h, as far as rounding lets
  for (const k of [64, 16, 8]) {
    const finer = clearError(of.study, of.method, k * (rung?.steps ?? 1));
    if (finer === null) continue;
    const next = finer / ((of.own.predicted?.constant ?? NaN) * pow(h / k, order));
    return Math.abs(ln(next)) < Math.abs(ln(times)) ? trendClaim(of, trend) : `h/${k} gives ${next} times`;
  }
  return trendClaim(of, trend);
}

export function leadingTerm({ constant, order, off, h }: Figures['predicted'], of: Claimed): Verdict {
  const { start, end } = of.study.problem;
  const error = of.own.rungs.find((rung) => rung.h === h)?.error ?? NaN;
  if (!(Math.abs(error / (constant * pow(h, order)) - 1) <= off + 1e-9)) return 'it is further off';
  const steps = Math.round((end - start) / h);
  for (const k of [16, 8, 4]) {
    const finer = clearError(of.study, of.method, k * steps);
    if (finer === null) continue;
    const part = finer / (constant * pow(h / k, order));
    return Math.abs(part - 1) <= Math.max(2 * off, 0.08)
      ? null
      : `h/${k} gives ${part} times the leading term`;
  }
  return null;
}

export function leadingZero({ order }: Figures['leading zero'], of: Claimed): Verdict {
  return inRange(finerOrders(of), order - 0.2, order + 0.2);
}

/** Errors to both sides of the time at which the leading term changes its sign, at an h as small as rounding lets; the solution goes on past the end. */
export function leadingSign({ t }: Figures['leading sign'], of: Claimed): Verdict {
  const { study, method } = of;
  const { start, end } = study.problem;
  const finest = Math.max(...of.own.rungs.map(({ steps }) => steps));
  for (const k of [4, 2, 1]) {
    const [before = 0, after = 0] = [-0.1, 0.1].map((part) => {
      const until = Math.max(start, t + part * (end - start));
      const problem = { ...study.problem, end: until };
      const [rung] = runsAt({ ...study, problem, error: { ...study.error, at: 'end' } }, method, [
        k * finest,
      ]);
      const isClear = (rung?.taken?.error ?? 0) > 100 * (rung?.rounding?.size ?? 0);
      return isClear ? Math.sign(rung?.taken?.signed ?? 0) : 0;
    });
    if (before * after !== 0) return before === after ? 'errors on both sides have one sign' : null;
  }
  return null;
}

/** Runs that converge would have errors that fall to nothing. */
export function slip(_: Figures['formula'], of: Claimed): Verdict {
  const error = { ...of.study.error, at: 'end' } as const;
  const errors = errorsAt({ ...of.study, error }, of.method, [64, 256, 1024]);
  const [coarse, , fine] = errors;
  return coarse == null || fine == null || fine > 0.5 * coarse ? null : `errors fall: ${errors.join(', ')}`;
}
