import { unitRoundoff } from '../../../compile/precision.ts';
import type { RungResult } from '../../judge/method-result.ts';
import { swingOf } from '../../judge/swing.ts';
import { isRelative } from '../../runs/error-choice.ts';
import { knownRounding } from '../../runs/measured-rounding.ts';
import { precisionOf } from '../../runs/study.ts';
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
function isOfReference({ taken, rounding }: RungResult): boolean {
  return (taken?.doubt ?? 0) > (rounding?.size ?? 0);
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
  if (first?.error == null || first.rounding?.isMeasured !== true || !someAbove(of) || isOfReference(first))
    return null;
  const known = result.rungs.flatMap(({ error, steps }) => (error === null ? [] : [{ error, steps }]));
  const least = known.reduce((best, one) => (one.error < best.error ? one : best));
  const size = isRelative(study.error) ? 1 : swingOf(study, truth);
  const rounding = knownRounding(first.rounding) ?? first.rounding.size;
  const figures = {
    steps: first.steps,
    rounding,
    error: first.error,
    roundings: rounding / (unitRoundoff(precisionOf(study, of.method)) * size),
    least,
  };
  return { kind: 'floor', rungs: which, tone: 'plain', figures };
}

/** Part of an error below which its rounding is not worth a line. */
const WORTH = 1e-3;

/** How much of the error at the finest step size is rounding, where a run with more digits tells. */
export function roundingPart({ result: { rungs } }: MethodCase): FactOf<'rounding part'> | null {
  const known = indices(
    rungs,
    ({ error, rounding, leftOut }) =>
      error !== null && rounding?.beside != null && leftOut?.kind !== 'struck',
  );
  const finest = known.reduce<number | null>(
    (best, i) => (best === null || rungs[i]!.h < rungs[best]!.h ? i : best),
    null,
  );
  const rung = finest === null ? undefined : rungs[finest];
  if (finest === null || rung?.error == null || rung.rounding?.beside == null) return null;
  const { error, steps } = rung;
  const { difference, digits } = rung.rounding.beside;
  if (error === 0 || difference < WORTH * error) return null;
  const figures = { steps, rounding: difference, error, digits };
  return { kind: 'rounding part', rungs: [finest], tone: 'plain', figures };
}

/** Where the errors stop falling because of the reference. */
export function referenceReached(of: MethodCase): FactOf<'reference'> | null {
  const { truth, result } = of;
  const which = floorRungs(of);
  const first = result.rungs[which[0] ?? -1];
  if (first === undefined || truth.kind === 'exact' || !isOfReference(first)) return null;
  const figures = { kind: 'reached', steps: first.steps, error: truth.error } as const;
  return { kind: 'reference', rungs: which, tone: 'plain', figures };
}

/** Whether a run with more digits shows that an error is more than its rounding, which a bound alone would leave open. */
function isMoreThanRounding({ error, rounding }: RungResult): boolean {
  return rounding?.beside != null && error !== null && error > 2 * rounding.beside.difference;
}

/** Every error is of the size of rounding. */
export function roundingOnly(of: MethodCase): FactOf<'rounding only'> | null {
  const { truth, result } = of;
  const known = indices(result.rungs, ({ error }) => error !== null);
  const small = known.filter(
    (i) => result.rungs[i]!.leftOut?.kind === 'floor' || result.rungs[i]!.error === 0,
  );
  if (known.length < 2 || small.length < known.length || truth.kind !== 'exact') return null;
  if (known.some((i) => isMoreThanRounding(result.rungs[i]!))) return null;
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
