import { checkExact, type ExactCheck } from '../../problem/check-exact.ts';
import { problemKey } from '../../problem/problem-key.ts';
import type { Problem } from '../../problem/problem.ts';
import { memoize } from '../../text/memoize.ts';

const known = memoize<ExactCheck | null>(20);

/** What came of putting the exact solution into the equations; made once for each problem. */
export function exactCheck(problem: Problem): ExactCheck | null {
  return known(problemKey(problem), () => checkExact(problem));
}
