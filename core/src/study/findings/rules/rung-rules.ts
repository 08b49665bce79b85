import { inspectMethod } from '../../../inspect/inspect-method.ts';
import { sizeOf } from '../../../inspect/stability/complex.ts';
import { growthAt } from '../../../inspect/stability/stability-limits.ts';
import { unitRoundoff } from '../../../compile/precision.ts';
import { ln } from '../../../elementary/logarithm.ts';
import { pow } from '../../../elementary/power.ts';
import { realStabilityLimit } from '../../trial/stability-limit.ts';
import { firstRemark, indices, type MethodCase, sizesOf } from '../cases.ts';
import type { FactOf } from '../facts.ts';

/** How far above the line of the finer rungs a rung must be to count as unstable. */
const FAR_ABOVE = 3;
/** Digits of an error ten times as large as the solution itself. */
const BEYOND_ALL_SIZE = -1;
/** An error that is off its line by less than this, as a logarithm, is not small by chance. */
const BY_CHANCE = 0.3;

/** The method cannot be used for this problem. */
export function refused({ result }: MethodCase): FactOf<'refused'> | null {
  if (result.refused === null) return null;
  return { kind: 'refused', rungs: [], tone: 'trouble', figures: { why: result.refused } };
}

/** Runs that leave the numbers, told by the coarsest. */
export function leftTheNumbers({ study, result }: MethodCase): FactOf<'left the numbers'> | null {
  const { rungs, refused: all } = result;
  const which = indices(rungs, (rung) => rung.stopped !== null);
  const stopped = rungs[which[0] ?? -1]?.stopped;
  if (all !== null || stopped == null) return null;
  const figures = { ...stopped, sizes: sizesOf(rungs, which), independent: study.problem.independent };
  return { kind: 'left the numbers', rungs: which, tone: 'trouble', figures };
}

/** Rungs that look as if they were not stable: far above the line of the others, or larger than the solution by far. */
function suspects({ result: { rungs, fit } }: MethodCase): readonly number[] {
  const line = (h: number): number => (fit === null ? 0 : fit.constant * pow(h, fit.order));
  return indices(
    rungs,
    ({ stopped, error, digits, h, leftOut }) =>
      (stopped !== null && stopped.step > 0) ||
      (leftOut?.kind === 'coarse' && error !== null && error > FAR_ABOVE * line(h)) ||
      (digits !== null && digits < BEYOND_ALL_SIZE),
  );
}

/** Rungs far above the line, whose h is beyond the stability limit of the method for the fastest decay. */
export function unstable(of: MethodCase): FactOf<'unstable'> | null {
  const { method, decay, result } = of;
  const { rungs } = result;
  const found = suspects(of);
  if (found.length === 0) return null;
  const limit = realStabilityLimit(method.method);
  const fastest = limit === null ? null : decay();
  if (limit === null || fastest === null) return null;
  const which = found.filter((i) => rungs[i]!.h > (limit / fastest) * 1.0001);
  if (which.length === 0) return null;
  const figures = { sizes: sizesOf(rungs, which), limit, decay: fastest };
  return { kind: 'unstable', rungs: which, tone: 'trouble', figures };
}

/** How much an error must grow in a step to be told of. */
const GROWS = 1.001;

/** Rungs at which a motion that swings, and does not grow itself, is outside of the stability region. */
export function oscillation(of: MethodCase): FactOf<'oscillation'> | null {
  const { method, result, spectrum } = of;
  const { rungs } = result;
  const found = suspects(of);
  const { stability } = inspectMethod(method.method);
  if (found.length === 0 || stability === null || unstable(of) !== null) return null;
  const swinging = spectrum().filter(
    ({ re, im }) => re <= 1e-9 * sizeOf({ re, im }) && Math.abs(im) > Math.abs(re),
  );
  const growthOf = (h: number): readonly number[] =>
    swinging.map(({ re, im }) => growthAt(stability.polynomial, { re: h * re, im: h * im }));
  const which = found.filter((i) => growthOf(rungs[i]!.h).some((growth) => growth > GROWS));
  const sizes = sizesOf(rungs, which);
  if (which.length === 0) return null;
  const h = Math.min(...sizes);
  const growths = growthOf(h);
  const growth = Math.max(...growths);
  const { re, im } = swinging[growths.indexOf(growth)]!;
  return { kind: 'oscillation', rungs: which, tone: 'trouble', figures: { sizes, re, im, growth, h } };
}

/** Coarse rungs that the window leaves out, and that are not unstable. */
export function coarse(of: MethodCase): FactOf<'coarse'> | null {
  const { rungs } = of.result;
  const told = unstable(of)?.rungs ?? oscillation(of)?.rungs ?? [];
  const which = indices(rungs, (rung) => rung.leftOut?.kind === 'coarse').filter((i) => !told.includes(i));
  if (which.length === 0) return null;
  return { kind: 'coarse', rungs: which, tone: 'plain', figures: { sizes: sizesOf(rungs, which) } };
}

/** Rungs where the errors stop falling, and the number of steps of the coarsest of them. */
function floorRungs({
  result: { rungs, fit },
}: MethodCase): { which: readonly number[]; steps: number } | null {
  const which = indices(rungs, (rung) => rung.leftOut?.kind === 'floor');
  const first = rungs[which.reduce((best, i) => (best < 0 || rungs[i]!.h > rungs[best]!.h ? i : best), -1)];
  if (first === undefined || (fit === null && which.length === rungs.length)) return null;
  return { which, steps: first.steps };
}

function isOfReference({ study, truth }: MethodCase): boolean {
  return truth.error > 4 * unitRoundoff(study.start.precision);
}

/** Where the errors stop falling because of rounding. */
export function floor(of: MethodCase): FactOf<'floor'> | null {
  const found = floorRungs(of);
  if (found === null || isOfReference(of)) return null;
  const { roundOff } = of.result;
  const isSingle = of.study.start.precision === 'single';
  const best = roundOff && {
    own: roundOff.best,
    other: isSingle ? roundOff.double : roundOff.single,
    otherPrecision: isSingle ? ('double' as const) : ('single' as const),
  };
  return { kind: 'floor', rungs: found.which, tone: 'plain', figures: { steps: found.steps, best } };
}

/** Where the errors stop falling because of the reference. */
export function referenceReached(of: MethodCase): FactOf<'reference'> | null {
  const found = floorRungs(of);
  if (found === null || !isOfReference(of)) return null;
  const figures = { kind: 'reached', steps: found.steps, error: of.truth.error } as const;
  return { kind: 'reference', rungs: found.which, tone: 'plain', figures };
}

/** Every error is of the size of rounding. */
export function roundingOnly({ truth, result: { rungs } }: MethodCase): FactOf<'rounding only'> | null {
  const known = indices(rungs, (rung) => rung.error !== null);
  const small = known.filter((i) => rungs[i]!.leftOut?.kind === 'floor' || rungs[i]!.error === 0);
  if (known.length < 2 || small.length < known.length || truth.kind !== 'exact') return null;
  return { kind: 'rounding only', rungs: known, tone: 'plain', figures: {} };
}

/** Rungs that a person struck out. */
export function struck({ result: { rungs } }: MethodCase): FactOf<'struck'> | null {
  const which = indices(rungs, (rung) => rung.leftOut?.kind === 'struck');
  if (which.length === 0) return null;
  return { kind: 'struck', rungs: which, tone: 'plain', figures: { sizes: sizesOf(rungs, which) } };
}

/** An error that changes its sign between two rungs is small by chance near there. */
export function sign({ result: { rungs, fit } }: MethodCase): FactOf<'sign'> | null {
  if (fit === null) return null;
  const usable = [...indices(rungs, ({ leftOut }) => leftOut === null || leftOut.kind === 'coarse')].sort(
    (a, b) => rungs[b]!.h - rungs[a]!.h,
  );
  for (const [k, i] of usable.entries()) {
    const j = usable[k + 1];
    const [one, other] = [rungs[i]!, j === undefined ? null : rungs[j]!];
    if (j === undefined || one.taken?.signed == null || other?.taken?.signed == null) continue;
    if (one.taken.signed * other.taken.signed >= 0) continue;
    const low = rungs[Math.abs(one.taken.signed) < Math.abs(other.taken.signed) ? i : j]!;
    if (Math.abs(ln(low.error! / (fit.constant * pow(low.h, fit.order)))) < BY_CHANCE) continue;
    return { kind: 'sign', rungs: [i, j], tone: 'plain', figures: { between: [one.h, other.h] } };
  }
  return null;
}

/** Rungs that ended past the interval, each with what that does to its error. */
export function lastStep({ result: { rungs } }: MethodCase): FactOf<'last step'> | null {
  const which = indices(
    rungs,
    (rung) => !rung.divides && rung.remark !== null && rung.leftOut?.kind === 'other time',
  );
  if (which.length === 0) return null;
  return { kind: 'last step', rungs: which, tone: 'trouble', figures: firstRemark(rungs, which) };
}

/** An error at a time that is no grid point of some rungs. */
export function elsewhere({ study, result: { rungs } }: MethodCase): FactOf<'time'> | null {
  const which = indices(rungs, (rung) => rung.taken !== null && rung.taken.how !== 'grid');
  if (which.length === 0 || typeof study.error.at !== 'object') return null;
  const figures = { sizes: sizesOf(rungs, which), remark: firstRemark(rungs, which).remark };
  return { kind: 'time', rungs: which, tone: 'plain', figures };
}
