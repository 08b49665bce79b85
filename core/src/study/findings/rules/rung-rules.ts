import { timeAxis } from '../../../problem/time-text.ts';
import { firstRemark, indices, type MethodCase, sizesOf, type StudyCase } from '../cases.ts';
import type { FactOf } from '../facts.ts';
import { reportedUnstable } from './stability-rules.ts';

/** The method cannot be used for this problem. */
export function refused({ result }: MethodCase): FactOf<'refused'> | null {
  if (result.refused === null) return null;
  return { kind: 'refused', rungs: [], tone: 'trouble', figures: { why: result.refused } };
}

/** Runs that become non-finite, or cannot be begun: those that do for one reason together, reported by the coarsest. */
export function nonFiniteText({ study, result }: MethodCase): readonly FactOf<'left the numbers'>[] {
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
    const figures = { ...stopped, sizes: sizesOf(rungs, which), axis: timeAxis(study.problem) };
    return [{ kind: 'left the numbers', rungs: which, tone: 'trouble', figures }];
  });
}

/** Some rungs of each method of a study as one fact of it; methods with the same step sizes are named together. */
function excluded<K extends 'coarse' | 'struck'>(
  kind: K,
  of: StudyCase,
  rungsOf: (of: MethodCase) => readonly number[],
): readonly (Omit<FactOf<'coarse' | 'struck'>, 'kind'> & { readonly kind: K })[] {
  const groups = new Map<string, { readonly titles: string[]; readonly sizes: readonly number[] }>();
  const all = new Set<number>();
  let ran = 0;
  for (const [i, result] of of.methods.entries()) {
    const method = of.study.methods[i];
    if (method === undefined || result.refused !== null) continue;
    ran += 1;
    const which = rungsOf({ ...of, method, result });
    if (which.length === 0) continue;
    which.forEach((rung) => all.add(rung));
    const sizes = sizesOf(result.rungs, which);
    const group = groups.get(sizes.join()) ?? { titles: [], sizes };
    group.titles.push(result.title);
    groups.set(sizes.join(), group);
  }
  if (groups.size === 0) return [];
  const named = [...groups.values()].map(({ titles, sizes }) => ({
    titles: titles.length === ran ? [] : titles,
    sizes,
  }));
  return [{ kind, rungs: [...all].sort((a, b) => a - b), tone: 'plain', figures: { of: named } }];
}

/** Coarse rungs that are not on the expansion of the finer ones, and that are not unstable. */
export function coarse(of: StudyCase): readonly FactOf<'coarse'>[] {
  return excluded('coarse', of, (one) => {
    const unstableRungs = reportedUnstable(one);
    const which = indices(one.result.rungs, (rung) => rung.leftOut?.kind === 'coarse');
    return which.filter((i) => !unstableRungs.includes(i));
  });
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

/** Rungs excluded manually. */
export function struck(of: StudyCase): readonly FactOf<'struck'>[] {
  return excluded('struck', of, ({ result: { rungs } }) =>
    indices(rungs, (rung) => rung.leftOut?.kind === 'struck'),
  );
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
