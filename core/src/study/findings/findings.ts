import { ln } from '../../elementary/logarithm.ts';
import { pow } from '../../elementary/power.ts';
import { checkTyped, typedCheckSentence } from '../../reference/check-typed.ts';
import { stepSizeText } from '../../text/number-text.ts';
import { unitRoundoff } from '../../compile/precision.ts';
import type { Comparison } from '../judge/comparison.ts';
import { isRelative } from '../runs/error-choice.ts';
import { count, indices, number, orderText, remarks, steps, time } from './finding-words.ts';
import { kinkTimes } from '../judge/kinks.ts';
import { observedOrder } from '../judge/order.ts';
import { promisedOrder } from '../trial/promised-order.ts';
import type { BestStep, RoundOff } from '../judge/round-off.ts';
import { fastestDecay, realStabilityLimit } from '../trial/stability-limit.ts';
import type { Study, StudyMethod } from '../study.ts';
import type { MethodResult } from '../study-result.ts';
import type { Truth } from '../runs/truth.ts';

/**
 * A sentence about a study, with the rungs it speaks of. Every rule below makes one kind of finding, and keeps
 * silent where it is not sure: no finding is better than a wrong one.
 */
export interface Finding {
  readonly kind: FindingKind;
  /** Index of the method it is about; null for the study as a whole. */
  readonly method: number | null;
  /** Indices of the rungs of that method (or of every method) that it speaks of. */
  readonly rungs: readonly number[];
  readonly tone: 'good' | 'trouble' | 'plain';
  readonly sentence: string;
}

export type FindingKind =
  | 'refused'
  | 'left the numbers'
  | 'as promised'
  | 'scattered'
  | 'two rungs'
  | 'better than promised'
  | 'order lost'
  | 'not yet'
  | 'formula'
  | 'unstable'
  | 'coarse'
  | 'floor'
  | 'rounding only'
  | 'struck'
  | 'sign'
  | 'last step'
  | 'time'
  | 'near zero'
  | 'reference'
  | 'typed derivative'
  | 'comparison';

/** What the rules about one method look at. */
interface Case {
  readonly study: Study;
  readonly truth: Truth;
  readonly method: StudyMethod;
  readonly result: MethodResult;
  /** Times of kinks and the fastest decay of the problem: looked for when a rule wants them, once a study. */
  readonly kinks: () => readonly number[];
  readonly decay: () => number | null;
}

/** A value that is made when it is first asked for. */
function once<V>(make: () => V): () => V {
  let made: { readonly value: V } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** A finding of a rule about one method; the caller says which method it is. */
type Found = Omit<Finding, 'method'> | null;

/** How sure an order must be, at least, to be told from its promise. */
const TELLS_APART = 0.25;

/** A slope less sure than this is no order. */
const SCATTERED = 0.2;
/** Nearer than that an order is its promise. */
const AGREES = 0.05;

/** -1, 0 or 1 as a fitted order is below its promise, agrees with it, or is above; null where nothing can be said. */
function besidePromise({ fit, promised }: MethodResult): -1 | 0 | 1 | null {
  if (fit === null || fit.standardError === null || promised.kind !== 'order') return null;
  const off = fit.order - promised.order;
  if (fit.standardError > SCATTERED) return null;
  if (Math.abs(off) <= Math.max(TELLS_APART, 3 * fit.standardError)) return 0;
  return off < 0 ? -1 : 1;
}

/** Rule: the method cannot be used for this problem. */
function refused({ result }: Case): Found {
  if (result.refused === null) return null;
  return {
    kind: 'refused',
    rungs: [],
    tone: 'trouble',
    sentence: `cannot be run on this problem: ${result.refused}`,
  };
}

/** Rule: runs that leave the numbers, told by the coarsest. */
function leftTheNumbers({ study, result: { rungs, refused: all } }: Case): Found {
  const which = indices(rungs, (rung) => rung.stopped !== null);
  const stopped = which.map((i) => rungs[i]!.stopped!)[0];
  if (all !== null || stopped === undefined) return null;
  const { step, t, stage, why } = stopped;
  const sentence =
    step === 0
      ? `cannot be run at ${steps(rungs, which)}: ${why}`
      : `leaves the numbers at ${steps(rungs, which)}: in step ${count(step)} from ${study.problem.independent} = ${time(t)}, ${stage}: ${why}`;
  return { kind: 'left the numbers', rungs: which, tone: 'trouble', sentence };
}

/** Rule: three or more rungs on a line whose slope is the order of the formula. */
function asPromised({ result }: Case): Found {
  const { fit, promised } = result;
  if (fit === null || promised.kind !== 'order' || besidePromise(result) !== 0) return null;
  const shown = `order ${orderText(fit.order, fit.standardError)} over ${fit.rungs.length} rungs`;
  const agrees = Math.abs(fit.order - promised.order) <= Math.max(AGREES, 3 * (fit.standardError ?? 0));
  return {
    kind: 'as promised',
    rungs: fit.rungs,
    tone: 'good',
    sentence: agrees
      ? `${shown}, as the formula promises`
      : `${shown}, near the ${promised.order} that the formula promises for small h`,
  };
}

/** The kinks of the rate along the solution, in words; null where there are none. */
function kinksText({ study, kinks }: Case): string | null {
  const { independent } = study.problem;
  const [first, second, ...more] = kinks().map(time);
  if (first === undefined) return null;
  if (second === undefined) return `the rate has a kink at ${independent} = ${first}`;
  const rest = more.length > 0 ? ` and ${more.length} more` : '';
  return `the rate has kinks at ${independent} = ${first}, ${second}${rest}`;
}

/** Rule: errors that do not fall like a power of h. */
function scattered(of: Case): Found {
  const { fit } = of.result;
  if (fit?.standardError == null || fit.standardError <= SCATTERED) return null;
  const kinks = kinksText(of);
  const slope = orderText(fit.order, fit.standardError);
  return {
    kind: 'scattered',
    rungs: fit.rungs,
    tone: 'trouble',
    sentence: `the errors scatter too far about their line, slope ${slope}, for an order${kinks === null ? '' : `; ${kinks}`}`,
  };
}

/** Rule: two rungs give a slope, and nothing to check it by. */
function twoRungs({ result: { fit } }: Case): Found {
  if (fit === null || fit.rungs.length !== 2) return null;
  const sentence = `slope ${fit.order.toFixed(2)} between two rungs; a third is needed to trust it`;
  return { kind: 'two rungs', rungs: fit.rungs, tone: 'plain', sentence };
}

/** Rule: a slope clearly above the order of the formula on a general problem. */
function betterThanPromised({ result }: Case): Found {
  const { fit, promised } = result;
  if (fit === null || promised.kind !== 'order' || besidePromise(result) !== 1) return null;
  return {
    kind: 'better than promised',
    rungs: fit.rungs,
    tone: 'plain',
    sentence: `order ${orderText(fit.order, fit.standardError)} here, better than the ${promised.order} that the formula has on problems in general`,
  };
}

/** The first steps' method, if it is of lower order than fits the formula: its name and its order. */
function poorStart({
  study,
  method,
  result,
}: Case): { readonly name: string; readonly order: number } | null {
  const { promised } = result;
  if (method.method.depth === 0 || promised.kind !== 'order' || study.error.at === 'local') return null;
  const name = study.start.instead ?? method.method.startWith?.name ?? 'exact';
  const starter = name === 'exact' ? null : study.start.find(name);
  const own = starter && promisedOrder(starter, study.problem);
  return own?.kind === 'order' && own.order + 1 < promised.order ? { name, order: own.order } : null;
}

/** Times at which the fastest decay is looked for, as parts of the interval. */
const PARTS = [0, 0.25, 0.5, 0.75, 1];

/** The fastest decay of the problem along its solution; null where there is none, or none is found for sure. */
function decayOf({ problem }: Study, truth: Truth): number | null {
  const rates = PARTS.flatMap((part) => {
    const t = problem.start + part * (problem.end - problem.start);
    const state = Array.from({ length: problem.size }, (_, j) => truth.value(j, t));
    return state.every((value) => Number.isFinite(value)) ? [fastestDecay(problem, t, state)] : [];
  });
  const decay = Math.max(...rates.map((rate) => rate ?? -Infinity));
  return decay > 0 ? decay : null;
}

/** A step of so many times of the fastest decay is not small for it. */
const NOT_SMALL = 0.5;

/** Orders come nearer to the promise where the finest one is off by less than this part of the fitted one. */
const APPROACHES = 0.7;

/** The order between the finest two rungs that count. */
function finestOrder({ rungs, fit }: MethodResult): number | null {
  const [fine, coarse] = (fit?.rungs ?? []).map((i) => rungs[i]!).sort((a, b) => a.h - b.h);
  return fine === undefined || coarse === undefined
    ? null
    : observedOrder(coarse.h, coarse.error, fine.h, fine.error);
}

/** Rule: a slope clearly below the order of the formula; with its cause where that is sure. */
function orderLost(of: Case): Found {
  const { result } = of;
  const { fit, promised } = result;
  if (fit === null || promised.kind !== 'order' || besidePromise(result) !== -1) return null;
  const shown = orderText(fit.order, fit.standardError);
  const lost = (sentence: string): Found => ({
    kind: 'order lost',
    rungs: fit.rungs,
    tone: 'trouble',
    sentence,
  });
  const kinks = kinksText(of);
  if (kinks !== null)
    return lost(`order lost: ${shown}, where the formula promises ${promised.order}; ${kinks}`);
  const start = poorStart(of);
  if (start !== null && Math.abs(fit.order - start.order - 1) <= TELLS_APART)
    return lost(
      `order ${shown} instead of ${promised.order}: started with ${start.name}, whose local error of order ${start.order + 1} shows`,
    );
  const last = finestOrder(result);
  if (last !== null && Math.abs(last - promised.order) < APPROACHES * Math.abs(fit.order - promised.order))
    return {
      kind: 'not yet',
      rungs: fit.rungs,
      tone: 'plain',
      sentence: `order ${shown} so far, ${last.toFixed(2)} at the finest rungs, on the way to the ${promised.order} that the formula promises: take smaller h`,
    };
  const decay = of.decay();
  const finest = Math.min(...fit.rungs.map((rung) => result.rungs[rung]!.h));
  const stiff =
    decay !== null && finest * decay > NOT_SMALL
      ? `; the finest h is still ${number(finest * decay)} times 1/${time(decay)}, the time of the fastest decay`
      : '';
  return lost(`order ${shown}, where the formula promises ${promised.order}${stiff}`);
}

/** Rule: on a test system the formula as typed does not converge. */
function formula({ result: { promised } }: Case): Found {
  const slip = 'look for a forgotten h, a wrong index or a wrong weight';
  if (promised.kind === 'diverges')
    return {
      kind: 'formula',
      rungs: [],
      tone: 'trouble',
      sentence: `the errors of the formula as typed grow as h falls, on a test system too: it is not stable; ${slip}`,
    };
  if (promised.kind !== 'order' || promised.order > 0) return null;
  return {
    kind: 'formula',
    rungs: [],
    tone: 'trouble',
    sentence: `the formula as typed does not converge, on a test system either: ${slip}`,
  };
}

/** How far above the line of the finer rungs a rung must be to count as unstable. */
const FAR_ABOVE = 3;
/** Digits of an error ten times as large as the solution itself. */
const BEYOND_ALL_SIZE = -1;

/** Rule: rungs far above the line, whose h is beyond the stability limit of the method for the fastest decay. */
function unstable({ method, decay: fastest, result: { rungs, fit } }: Case): Found {
  const line = (h: number): number => (fit === null ? 0 : fit.constant * pow(h, fit.order));
  const suspects = indices(
    rungs,
    ({ stopped, error, digits, h, leftOut }) =>
      (stopped !== null && stopped.step > 0) ||
      (leftOut?.kind === 'coarse' && error !== null && error > FAR_ABOVE * line(h)) ||
      (digits !== null && digits < BEYOND_ALL_SIZE),
  );
  if (suspects.length === 0) return null;
  const limit = realStabilityLimit(method.method);
  if (limit === null) return null;
  const decay = fastest();
  if (decay === null) return null;
  const largest = limit / decay;
  const which = suspects.filter((i) => rungs[i]!.h > largest * 1.0001);
  if (which.length === 0) return null;
  return {
    kind: 'unstable',
    rungs: which,
    tone: 'trouble',
    sentence: `${steps(rungs, which)} ${which.length === 1 ? 'is' : 'are'} beyond the stability limit ${time(limit)}/${time(decay)} = ${time(largest)}`,
  };
}

/** Rule: coarse rungs that the window leaves out, and that are not unstable. */
function coarse(of: Case): Found {
  const { rungs } = of.result;
  const told = unstable(of)?.rungs ?? [];
  const which = indices(rungs, (rung) => rung.leftOut?.kind === 'coarse').filter((i) => !told.includes(i));
  if (which.length === 0) return null;
  return {
    kind: 'coarse',
    rungs: which,
    tone: 'plain',
    sentence: `${steps(rungs, which)} ${which.length === 1 ? 'lies' : 'lie'} off the line of the finer rungs and ${which.length === 1 ? 'is' : 'are'} left out of the order`,
  };
}

/** The least error by the model of rounding, in the precision of the study and in the other one. */
function leastErrorText({ best, single, double }: RoundOff, isSingle: boolean): string {
  const at = ({ error, h }: BestStep): string => `${number(error)} at h = ${number(h)}`;
  const other = isSingle ? `double precision ${at(double)}` : `single precision ${at(single)}`;
  return `the least error, by C h^p + R/h^q, is ${at(best)}; in ${other}`;
}

/** Rule: where the errors stop falling, because of rounding or because of the reference. */
function floor({ study, truth, result: { rungs, roundOff, fit } }: Case): Found {
  const which = indices(rungs, (rung) => rung.leftOut?.kind === 'floor');
  const first = rungs[which.reduce((best, i) => (best < 0 || rungs[i]!.h > rungs[best]!.h ? i : best), -1)];
  if (first === undefined || (fit === null && which.length === rungs.length)) return null;
  const at = `N = ${count(first.steps)}`;
  const unit = unitRoundoff(study.start.precision);
  if (truth.error > 4 * unit)
    return {
      kind: 'reference',
      rungs: which,
      tone: 'plain',
      sentence: `from ${at} on errors are those of the reference, which is exact to ${number(truth.error)} only`,
    };
  const best = roundOff === null ? '' : `; ${leastErrorText(roundOff, study.start.precision === 'single')}`;
  return {
    kind: 'floor',
    rungs: which,
    tone: 'plain',
    sentence: `the floor of rounding is reached at ${at}${best}`,
  };
}

/** Rule: every error is of the size of rounding. */
function roundingOnly({ truth, result: { rungs } }: Case): Found {
  const known = indices(rungs, (rung) => rung.error !== null);
  const small = known.filter((i) => rungs[i]!.leftOut?.kind === 'floor' || rungs[i]!.error === 0);
  if (known.length < 2 || small.length < known.length || truth.kind !== 'exact') return null;
  const sentence = 'the errors are of the size of rounding at every h';
  return { kind: 'rounding only', rungs: known, tone: 'plain', sentence };
}

/** Rule: rungs that a person struck out. */
function struck({ result: { rungs } }: Case): Found {
  const which = indices(rungs, (rung) => rung.leftOut?.kind === 'struck');
  if (which.length === 0) return null;
  return {
    kind: 'struck',
    rungs: which,
    tone: 'plain',
    sentence: `struck out by hand: ${steps(rungs, which)}`,
  };
}

/** Rule: an error that changes its sign between two rungs is small by chance near there. */
function sign({ result: { rungs, fit } }: Case): Found {
  if (fit === null) return null;
  const usable = [...indices(rungs, ({ leftOut }) => leftOut === null || leftOut.kind === 'coarse')].sort(
    (a, b) => rungs[b]!.h - rungs[a]!.h,
  );
  for (const [k, i] of usable.entries()) {
    const j = usable[k + 1];
    const [one, other] = [rungs[i]!, j === undefined ? null : rungs[j]!];
    if (j === undefined || one.taken?.signed == null || other?.taken?.signed == null) continue;
    if (one.taken.signed * other.taken.signed >= 0) continue;
    const low = Math.abs(one.taken.signed) < Math.abs(other.taken.signed) ? i : j;
    const off = ln(rungs[low]!.error! / (fit.constant * pow(rungs[low]!.h, fit.order)));
    if (Math.abs(off) < 0.3) continue;
    return {
      kind: 'sign',
      rungs: [i, j],
      tone: 'plain',
      sentence: `the error changes its sign between h = ${stepSizeText(one.h)} and ${stepSizeText(other.h)}, so that it is small there by chance`,
    };
  }
  return null;
}

/** Rule: rungs that ended past the interval, each with what that does to its error. */
function lastStep({ result: { rungs } }: Case): Found {
  const which = indices(
    rungs,
    (rung) => !rung.divides && rung.remark !== null && rung.leftOut?.kind === 'other time',
  );
  if (which.length === 0) return null;
  return {
    kind: 'last step',
    rungs: which,
    tone: 'trouble',
    sentence: remarks(rungs, which),
  };
}

/** Rule: an error at a time that is no grid point of some rungs. */
function elsewhere({ study, result: { rungs } }: Case): Found {
  const which = indices(rungs, (rung) => rung.taken !== null && rung.taken.how !== 'grid');
  const [first] = which;
  if (first === undefined || typeof study.error.at !== 'object') return null;
  return {
    kind: 'time',
    rungs: which,
    tone: 'plain',
    sentence: `at ${steps(rungs, which)}: ${rungs[first]!.remark ?? ''}`,
  };
}

const RULES: readonly ((of: Case) => Found)[] = [
  refused,
  leftTheNumbers,
  formula,
  asPromised,
  scattered,
  twoRungs,
  betterThanPromised,
  orderLost,
  unstable,
  coarse,
  lastStep,
  elsewhere,
  sign,
  floor,
  roundingOnly,
  struck,
];

/** Rule: what errors are taken against, where no exact solution is given. */
function reference({ problem }: Study, truth: Truth): Finding | null {
  if (truth.kind === 'exact') return null;
  const { independent, start, end } = problem;
  if (!(truth.reached > start))
    return {
      kind: 'reference',
      method: null,
      rungs: [],
      tone: 'trouble',
      sentence: `no exact solution is given, and no reference can be made: the rates have no series at ${independent} = ${time(start)}; see the columns that need none`,
    };
  const ended =
    truth.reached < end
      ? `; it ends at ${independent} = ${time(truth.reached)}, where ${truth.stuck ? 'it needs too many steps' : 'the solution leaves the numbers'}`
      : '';
  const how = truth.kind === 'taylor' ? 'Taylor series of order 24' : 'RK4 in many small steps';
  const kinks = truth.switches.length > 0 ? ', broken at every kink of the rate' : '';
  return {
    kind: 'reference',
    method: null,
    rungs: [],
    tone: 'plain',
    sentence: `no exact solution is given; errors are against a reference by ${how}${kinks}, exact to about ${number(truth.error)} of its size${ended}`,
  };
}

/** An exact value this small beside the largest on the way is near zero. */
const NEAR_ZERO = 1e-6;

/** Rule: relative errors of a value near zero. */
function nearZero(study: Study, truth: Truth, methods: readonly MethodResult[]): Finding | null {
  const rung = methods.flatMap(({ rungs }) => rungs).find(({ taken }) => taken?.t != null);
  if (!isRelative(study.error) || rung?.taken?.t == null) return null;
  const { problem } = study;
  const places = problem.blocks.flatMap((block) =>
    study.error.of === 'norm' || study.error.of === block.name ? [block.offset] : [],
  );
  const largest = Math.max(
    ...Array.from({ length: 33 }, (_, i) => problem.start + ((problem.end - problem.start) * i) / 32).flatMap(
      (t) => places.map((place) => Math.abs(truth.value(place, t))),
    ),
  );
  if (!(rung.taken.size < NEAR_ZERO * largest)) return null;
  return {
    kind: 'near zero',
    method: null,
    rungs: [],
    tone: 'trouble',
    sentence: `the exact value at ${problem.independent} = ${time(rung.taken.t)} is ${number(rung.taken.size)}, next to zero: relative errors there say little`,
  };
}

/** Rule: h that do not divide the interval, under a rule that mends it. */
function mended(methods: readonly MethodResult[]): Finding | null {
  const rungs = methods.find(({ refused: why }) => why === null)?.rungs ?? [];
  const which = indices(
    rungs,
    (rung) => !rung.divides && rung.remark !== null && (rung.shorter !== null || rung.h !== rung.wished),
  );
  if (which.length === 0) return null;
  return {
    kind: 'last step',
    method: null,
    rungs: which,
    tone: 'plain',
    sentence: remarks(rungs, which),
  };
}

/** Rule: derivatives typed by hand that are not those of the rates. */
function typedWrong({ problem }: Study): readonly Finding[] {
  return checkTyped(problem)
    .filter(({ agrees }) => !agrees)
    .map((check) => ({
      kind: 'typed derivative',
      method: null,
      rungs: [],
      tone: 'trouble',
      sentence: typedCheckSentence(problem, check),
    }));
}

/** Rule: what each method costs for one error. */
function comparison(methods: readonly MethodResult[], compared: Comparison | null): Finding | null {
  const [best, ...others] = compared?.needs ?? [];
  if (compared === null || best === undefined || others.length + compared.short.length === 0) return null;
  const title = (i: number): string => methods[i]?.title ?? '';
  const rest = others.map((need) => `${title(need.method)} ${count(need.evaluations)}`);
  const short =
    compared.short.length === 0 ? '' : `; ${compared.short.map(title).join(', ')} do not come so far`;
  return {
    kind: 'comparison',
    method: null,
    rungs: [],
    tone: 'plain',
    sentence: `for an error of ${time(compared.wished)}, ${title(best.method)} needs ${count(best.evaluations)} evaluations${rest.length > 0 ? `, ${rest.join(', ')}` : ''}${short}`,
  };
}

/** All findings of a study: those of each method in turn, then those of the study. */
export function findingsOf(
  study: Study,
  truth: Truth | null,
  methods: readonly MethodResult[],
  compared: Comparison | null,
): readonly Finding[] {
  if (truth === null) return [];
  const kinks = once(() => kinkTimes(study.problem, truth));
  const decay = once(() => decayOf(study, truth));
  const own = methods.flatMap((result, i) => {
    const method = study.methods[i];
    if (method === undefined) return [];
    return RULES.flatMap((rule) => {
      const found = rule({ study, truth, method, result, kinks, decay });
      return found === null ? [] : [{ ...found, method: i }];
    });
  });
  const whole = [
    mended(methods),
    nearZero(study, truth, methods),
    reference(study, truth),
    comparison(methods, compared),
  ].filter((finding) => finding !== null);
  return [...own, ...typedWrong(study), ...whole];
}
