import { firstRemark, indices, type MethodCase, sizesOf, type StudyCase } from '../cases.ts';
import type { FactOf } from '../facts.ts';
import { toldUnstable } from './stability-rules.ts';

/** The method cannot be used for this problem. */
export function refused({ result }: MethodCase): FactOf<'refused'> | null {
  if (result.refused === null) return null;
  return { kind: 'refused', rungs: [], tone: 'trouble', figures: { why: result.refused } };
}

/** Runs that leave the numbers, or cannot be begun: those that do for one reason together, told by the coarsest. */
export function leftTheNumbers({ study, result }: MethodCase): readonly FactOf<'left the numbers'>[] {
  const { rungs, refused: all } = result;
  if (all !== null) return [];
  const groups = new Map<string, number[]>();
  for (const i of indices(rungs, (rung) => rung.stopped !== null)) {
    const { step, stage, why } = rungs[i]!.stopped!;
    const reason = JSON.stringify(step === 0 ? [why] : [stage, why.replace(/[-\d.e]+/g, '')]);
    groups.set(reason, [...(groups.get(reason) ?? []), i]);
  }
  return [...groups.values()].flatMap((which) => {
    const stopped = rungs[which[0] ?? -1]?.stopped;
    if (stopped == null) return [];
    const figures = { ...stopped, sizes: sizesOf(rungs, which), independent: study.problem.independent };
    return [{ kind: 'left the numbers', rungs: which, tone: 'trouble', figures }];
  });
}

/** Coarse rungs that are not on the expansion of the finer ones, and that are not unstable. */
export function coarse(of: MethodCase): FactOf<'coarse'> | null {
  const { rungs } = of.result;
  const told = toldUnstable(of);
  const which = indices(rungs, (rung) => rung.leftOut?.kind === 'coarse').filter((i) => !told.includes(i));
  if (which.length === 0) return null;
  return { kind: 'coarse', rungs: which, tone: 'plain', figures: { sizes: sizesOf(rungs, which) } };
}

/** Rungs whose step sizes come to one grid: they count once. */
export function sameGrid({ methods }: StudyCase): readonly FactOf<'same grid'>[] {
  const rungs = methods.find(({ refused }) => refused === null)?.rungs ?? [];
  const which = indices(rungs, ({ leftOut }) => leftOut?.kind === 'same grid');
  return [...new Set(which.map((i) => rungs[i]!.h))].map((h) => {
    const own = which.filter((i) => rungs[i]!.h === h);
    const figures = { sizes: own.map((i) => rungs[i]!.wished), h };
    return { kind: 'same grid', rungs: own, tone: 'plain', figures };
  });
}

/** Rungs that a person struck out. */
export function struck({ result: { rungs } }: MethodCase): FactOf<'struck'> | null {
  const which = indices(rungs, (rung) => rung.leftOut?.kind === 'struck');
  if (which.length === 0) return null;
  return { kind: 'struck', rungs: which, tone: 'plain', figures: { sizes: sizesOf(rungs, which) } };
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

/** An error at a time that is not a grid point of some rungs: those of which the same is to be said together. */
export function elsewhere({ study, result: { rungs } }: MethodCase): readonly FactOf<'time'>[] {
  if (typeof study.error.at !== 'object') return [];
  const which = indices(rungs, (rung) => rung.taken !== null && rung.taken.how !== 'grid');
  const groups = new Map<string, number[]>();
  for (const i of which) {
    const { taken } = rungs[i]!;
    const key = taken?.how === 'nearest' ? String(taken.t) : 'between';
    groups.set(key, [...(groups.get(key) ?? []), i]);
  }
  return [...groups.values()].map((own) => {
    const figures = { sizes: sizesOf(rungs, own), remark: firstRemark(rungs, own).remark };
    return { kind: 'time', rungs: own, tone: 'plain', figures };
  });
}
