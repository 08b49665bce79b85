import type { RhsLeaf } from '../../program/rhs-tree.ts';
import { RhsTrees } from '../../program/rhs-tree.ts';
import type { Bound, Tree } from '../../formula/expression.ts';
import { runningError } from '../../formula/running-error.ts';
import { blockAt, type Problem } from '../../problem/problem.ts';
import { problemKey } from '../../problem/problem-key.ts';
import { norm } from '../../run/norm.ts';
import { attempt } from '../../text/refusal.ts';
import { memoize } from '../../text/memoize.ts';
import type { Truth } from './truth.ts';

/**
 * What rounding within the formulas of a problem can do: to its right-hand sides, and to its exact solution at a time.
 */
export interface RhsNoise {
  /**
   * Bound for the rounding of the right-hand sides over all components: at a time, or the largest along the solution for
   * null.
   */
  readonly rightHandSidesAt: (t: number | null) => number;
  /** Bound for the rounding of the exact values at a time, over some components. */
  readonly exactAt: (t: number, places: readonly number[]) => number;
}

/**
 * Rounding of right-hand sides is reported from so many roundings of the right-hand sides and values themselves on:
 * sums of larger terms that cancel.
 */
const CANCELS = 100;
/** Times are far from zero from so many lengths of the interval on. */
const FAR = 10;
/** Times at which the right-hand sides are looked at, and components of each block. */
const LOOKS = 16;
const MAX_ELEMENTS = 12;

const UNIT = 2 ** -53;

const known = memoize<RhsNoise>(8);

/**
 * Rounding in single evaluations of right-hand sides and exact solution, as sums that cancel make it: along the
 * solution.
 */
export function rhsNoise(problem: Problem, truth: Truth): RhsNoise {
  return known(problemKey(problem, truth.kind), () => noiseOf(problem, truth));
}

function noiseOf(problem: Problem, truth: Truth): RhsNoise {
  const trees = new RhsTrees(problem);
  // times of stages and grid points are rounded themselves, which shows far from zero
  const timeError = (t: number): number =>
    Math.abs(t) > FAR * (problem.end - problem.start) ? UNIT * Math.abs(t) : 0;
  const errorOf = (tree: Tree<Bound<RhsLeaf>>, t: number, ofTime: number): number => {
    const found = attempt(() =>
      runningError(tree, ({ to }) => {
        if (to.kind === 'time') return { value: t, error: ofTime };
        if (to.kind === 'constant') return { value: to.value, error: 0 };
        return { value: to.kind === 'component' ? truth.value(to.place, t) : NaN, error: 0 };
      }),
    );
    return found.ok && Number.isFinite(found.value.error) ? found.value.error : 0;
  };
  const elements = problem.blocks.flatMap((block) => {
    const stride = Math.ceil(block.size / MAX_ELEMENTS);
    return Array.from({ length: Math.ceil(block.size / stride) }, (_, i) => ({
      tree: trees.at(block.rhs, block, i * stride),
      weight: Math.sqrt(stride),
    }));
  });
  let [largest, size] = [0, 0];
  const places = Array.from({ length: problem.size }, (_, place) => place);
  const rhsAt = (t: number): number =>
    norm(elements.map(({ tree, weight }) => weight * errorOf(tree, t, timeError(t))));
  const sizeAt = (t: number): number => norm(places.map((place) => truth.value(place, t)));
  for (let i = 0; i <= LOOKS; i += 1) {
    const t = problem.start + ((problem.end - problem.start) * i) / LOOKS;
    if (t > truth.reached) break;
    largest = Math.max(largest, rhsAt(t));
    size = Math.max(size, sizeAt(t));
  }
  const span = Math.min(1, problem.end - problem.start);
  const counted = (noise: number, of: number): number => (noise < CANCELS * UNIT * (of / span) ? 0 : noise);
  const rightHandSidesAt = (t: number | null): number =>
    t === null || t > truth.reached ? counted(largest, size) : counted(rhsAt(t), sizeAt(t));
  const exactAt = (t: number, places: readonly number[]): number =>
    truth.kind !== 'exact' || places.length > MAX_ELEMENTS
      ? 0
      : norm(
          places.map((place) => {
            const block = blockAt(problem, place);
            if (block?.exact == null) return 0;
            // the end is as it was typed
            const ofTime = t === problem.end ? 0 : timeError(t);
            return errorOf(trees.at(block.exact, block, place - block.offset), t, ofTime);
          }),
        );
  return { rightHandSidesAt, exactAt };
}
