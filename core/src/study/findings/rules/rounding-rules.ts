import { unitRoundoff } from '../../../compile/precision.ts';
import type { RungResult } from '../../judge/method-result.ts';
import { swingOf } from '../../judge/swing.ts';
import { isRelative } from '../../runs/error-choice.ts';
import { digitsFor } from '../../trial/trial-order.ts';
import { indices, type MethodCase, sizesOf } from '../cases.ts';
import type { FactOf } from '../facts.ts';

/** Rungs from the first at the floor on, all of whose finer ones are there too; from coarse to fine. */
function floorRungs({ result: { rungs } }: MethodCase): readonly number[] {
  const known = [
    ...indices(rungs, ({ error, leftOut }) => error !== null && leftOut?.kind !== 'struck'),
  ].sort((a, b) => rungs[b]!.h - rungs[a]!.h);
  const isThere = (i: number): boolean => rungs[i]!.leftOut?.kind === 'floor' || rungs[i]!.error === 0;
  const last = known.findLastIndex((i) => !isThere(i));
  return known.slice(last + 1);
}

/** Whether an error is mostly that of the reference, and not of rounding. */
function isOfReference({ truth, study }: MethodCase, { taken, rounding }: RungResult): boolean {
  const size = isRelative(study.error) ? 1 : (taken?.size ?? 0);
  return truth.error * size > (rounding?.size ?? 0);
}

/** Whether there are errors that are above rounding and the reference. */
function someAbove({ result: { rungs } }: MethodCase): boolean {
  return rungs.some(({ error, leftOut }) => error !== null && error > 0 && leftOut?.kind !== 'floor');
}

/** From where on a good part of the error is rounding. */
export function floor(of: MethodCase): FactOf<'floor'> | null {
  const { study, truth, result } = of;
  const which = floorRungs(of);
  const first = result.rungs[which[0] ?? -1];
  if (
    first?.error == null ||
    first.rounding?.isMeasured !== true ||
    !someAbove(of) ||
    isOfReference(of, first)
  )
    return null;
  const known = result.rungs.flatMap(({ error, steps }) => (error === null ? [] : [{ error, steps }]));
  const least = known.reduce((best, one) => (one.error < best.error ? one : best));
  const size = isRelative(study.error) ? 1 : swingOf(study, truth);
  const figures = {
    steps: first.steps,
    rounding: first.rounding.size,
    error: first.error,
    roundings: first.rounding.size / (unitRoundoff(study.start.precision) * size),
    least,
  };
  return { kind: 'floor', rungs: which, tone: 'plain', figures };
}

/** Where the errors stop falling because of the reference. */
export function referenceReached(of: MethodCase): FactOf<'reference'> | null {
  const { truth, result } = of;
  const which = floorRungs(of);
  const first = result.rungs[which[0] ?? -1];
  if (first === undefined || truth.kind === 'exact' || !isOfReference(of, first)) return null;
  const figures = { kind: 'reached', steps: first.steps, error: truth.error } as const;
  return { kind: 'reference', rungs: which, tone: 'plain', figures };
}

/** Every error is of the size of rounding. */
export function roundingOnly(of: MethodCase): FactOf<'rounding only'> | null {
  const { truth, result } = of;
  const known = indices(result.rungs, ({ error }) => error !== null);
  const small = known.filter(
    (i) => result.rungs[i]!.leftOut?.kind === 'floor' || result.rungs[i]!.error === 0,
  );
  if (known.length < 2 || small.length < known.length || truth.kind !== 'exact') return null;
  return { kind: 'rounding only', rungs: known, tone: 'plain', figures: {} };
}

/** Step sizes at which the rounding of the method's decimals shows in its error. */
export function roundedCoefficients({ study, method, result }: MethodCase): FactOf<'digits'> | null {
  const within = digitsFor(method.method, study.problem);
  const rungs = indices(result.rungs, ({ leftOut }) => leftOut?.kind === 'defect');
  if (within === null || rungs.length === 0) return null;
  const { digits, defect, proof, exact } = within;
  const h = Math.max(...sizesOf(result.rungs, rungs));
  const figures = { digits, defect, order: proof.order, exact: exact.order, h };
  return { kind: 'digits', rungs, tone: 'trouble', figures };
}
