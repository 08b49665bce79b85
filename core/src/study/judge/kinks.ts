import { branchesOf } from '../../reference/switches.ts';
import type { Problem } from '../../problem/problem.ts';
import { problemKey } from '../../problem/problem-key.ts';
import { memoize } from '../../text/memoize.ts';
import type { Truth } from '../runs/truth.ts';

/** Looks along the interval for a change of branch. */
const LOOKS = 500;
/** Larger systems are not looked at. */
const MAX_COMPONENTS = 50;

/** Times that differ: a branch that is entered and left within rounding is one switch. */
function apart(times: readonly number[], margin: number): readonly number[] {
  return [...times].sort((a, b) => a - b).filter((t, i, all) => i === 0 || t - all[i - 1]! > 1000 * margin);
}

const known = memoize<readonly number[]>(8);

/**
 * Times inside the interval at which a right-hand side changes its branch along the solution: kinks and jumps of the
 * right-hand side.
 */
export function kinkTimes(problem: Problem, truth: Truth): readonly number[] {
  return known(problemKey(problem, truth.kind, truth.reached), () => kinksAlong(problem, truth));
}

function kinksAlong(problem: Problem, truth: Truth): readonly number[] {
  const { start, end, size } = problem;
  // a switch at an end spoils no order; rounding may put it a bit inside
  const margin = 1e-12 * (end - start);
  const inside = (t: number): boolean => t > start + margin && t < end - margin;
  if (truth.kind === 'taylor') return apart(truth.switches.filter(inside), margin);
  const branches = size > MAX_COMPONENTS ? null : branchesOf(problem);
  if (branches === null) return [];
  const state = new Float64Array(size);
  const at = (t: number): string => {
    for (let j = 0; j < size; j += 1) state[j] = truth.value(j, t);
    return branches(t, state).join();
  };
  const found: number[] = [];
  let low = start;
  let branch = at(low);
  for (let i = 1; i <= LOOKS; i += 1) {
    let high = start + ((end - start) * i) / LOOKS;
    const next = at(high);
    const after = high;
    if (next !== branch) {
      while (low + (high - low) / 2 > low && low + (high - low) / 2 < high) {
        const middle = low + (high - low) / 2;
        if (at(middle) === branch) low = middle;
        else high = middle;
      }
      found.push(high);
    }
    branch = next;
    low = after;
  }
  return apart(found.filter(inside), margin);
}
