import { pow } from '../../../elementary/power.ts';
import { inspectMethod } from '../../../inspect/inspect-method.ts';
import { sizeOf } from '../../../inspect/stability/complex.ts';
import { growthAt } from '../../../inspect/stability/stability-limits.ts';
import { swingOf } from '../../judge/swing.ts';
import { isRelative } from '../../runs/error-choice.ts';
import type { RungResult } from '../../judge/method-result.ts';
import { realStabilityLimit } from '../../trial/stability-limit.ts';
import { indices, type MethodCase, sizesOf } from '../cases.ts';
import type { FactOf } from '../facts.ts';

/** How far above the line of the finer rungs a rung must be to count as unstable. */
const FAR_ABOVE = 3;

/**
 * Rungs that look as if they were not stable: far above the line of the others, larger than the solution, or stopped.
 */
function suspects({ result: { rungs, fit } }: MethodCase): readonly number[] {
  const line = (h: number): number => (fit === null ? Infinity : fit.constant * pow(h, fit.order));
  return indices(
    rungs,
    ({ stopped, error, h, leftOut }) =>
      (stopped !== null && stopped.step > 0) ||
      (leftOut?.kind === 'coarse' && error !== null && error > FAR_ABOVE * line(h)) ||
      leftOut?.kind === 'large',
  );
}

/** All rungs beyond the stability limit of the method for the fastest decay, where some of them look unstable. */
export function unstable(of: MethodCase): FactOf<'unstable'> | null {
  const { method, decay, result } = of;
  const { rungs } = result;
  const found = suspects(of);
  if (found.length === 0) return null;
  const limit = realStabilityLimit(method.method);
  const fastest = limit === null ? null : decay();
  if (limit === null || fastest === null) return null;
  const isBeyond = ({ h, stopped }: RungResult): boolean =>
    h > (limit / fastest) * 1.0001 && (stopped === null || stopped.step > 0);
  if (!found.some((i) => isBeyond(rungs[i]!))) return null;
  // a limit of nothing is below every h: only those are listed at which it shows
  const which = limit === 0 ? found : indices(rungs, isBeyond);
  const sizes = sizesOf(rungs, which);
  const h = Math.min(...sizes);
  const { stability } = inspectMethod(method.method);
  const growth = stability && growthAt(stability.polynomial, { re: -h * fastest, im: 0 });
  // a limit of nothing is no limit that a step could be below: its growth has to show
  if (limit === 0 && !(growth !== null && growth > GROWS)) return null;
  const figures = { sizes, limit, decay: fastest, growth, h };
  return { kind: 'unstable', rungs: which, tone: 'trouble', figures };
}

/** How much an error must grow in a step to be reported. */
const GROWS = 1.001;

/** Rungs at which a motion that swings, and does not grow itself, is outside of the stability region. */
export function oscillation(of: MethodCase): FactOf<'oscillation'> | null {
  const { method, result, spectrum } = of;
  const { rungs } = result;
  const found = suspects(of);
  // stability is computed only where it is needed
  if (found.length === 0 || unstable(of) !== null) return null;
  const { stability } = inspectMethod(method.method);
  if (stability === null) return null;
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

/** Rungs that are reported as unstable, of a decay or of an oscillation. */
export function reportedUnstable(of: MethodCase): readonly number[] {
  return unstable(of)?.rungs ?? oscillation(of)?.rungs ?? [];
}

/** Errors larger than the solution itself, where no instability is reported. */
export function large(of: MethodCase): FactOf<'large'> | null {
  const { study, truth, result } = of;
  const unstableRungs = reportedUnstable(of);
  const which = indices(result.rungs, ({ leftOut }) => leftOut?.kind === 'large').filter(
    (i) => !unstableRungs.includes(i),
  );
  if (which.length === 0) return null;
  const errors = which.map((i) => {
    const taken = result.rungs[i]!.taken;
    return taken === null ? 0 : taken.error * (isRelative(study.error) ? taken.size : 1);
  });
  const figures = {
    sizes: sizesOf(result.rungs, which),
    error: Math.max(...errors),
    swing: swingOf(study, truth),
  };
  return { kind: 'large', rungs: which, tone: 'trouble', figures };
}
