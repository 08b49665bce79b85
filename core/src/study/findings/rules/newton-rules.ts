import { timeAxis } from '../../../problem/time-text.ts';
import { indices, type MethodCase, sizesOf } from '../cases.ts';
import type { FactOf } from '../facts.ts';

/** Rungs at which Newton's method converges only where its corrections are made smaller. */
export function damped({ result: { rungs } }: MethodCase): FactOf<'damped'> | null {
  const which = indices(rungs, (rung) => rung.damped > 0);
  if (which.length === 0) return null;
  const sum = (of: (i: number) => number): number => which.reduce((total, i) => total + of(i), 0);
  const figures = {
    sizes: sizesOf(rungs, which),
    times: sum((i) => rungs[i]!.damped),
    steps: sum((i) => rungs[i]!.steps),
  };
  return { kind: 'damped', rungs: which, tone: 'plain', figures };
}

/** Rungs at which Newton's method took a solution that does not grow out of the values before. */
export function leap({ study, result: { rungs } }: MethodCase): FactOf<'leap'> | null {
  const which = indices(rungs, (rung) => rung.leap !== null);
  const found = rungs[which[0] ?? -1]?.leap;
  if (found == null) return null;
  const figures = { sizes: sizesOf(rungs, which), leap: found, axis: timeAxis(study.problem) };
  return { kind: 'leap', rungs: which, tone: 'trouble', figures };
}
