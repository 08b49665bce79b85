import type { RateLeaf } from '../../program/rate-tree.ts';
import { RateTrees } from '../../program/rate-tree.ts';
import type { Bound, Tree } from '../../formula/expression.ts';
import { runningError } from '../../formula/running-error.ts';
import { blockAt, type Problem } from '../../problem/problem.ts';
import { problemKey } from '../../problem/problem-key.ts';
import { norm } from '../../run/norm.ts';
import { attempt } from '../../text/refusal.ts';
import { memoize } from '../../text/memoize.ts';
import type { Truth } from './truth.ts';

/** What rounding within the formulas of a problem can do: to its rates, and to its exact solution at a time. */
export interface RateNoise {
  /** Bound for the rounding of the rates along the solution, over all components. */
  readonly rates: number;
  /** Bound for the rounding of the exact values at a time, over some components. */
  readonly exactAt: (t: number, places: readonly number[]) => number;
}

/** Rounding of rates is reported from so many roundings of the rates and values themselves on: sums of larger terms that cancel. */
const CANCELS = 100;
/** Times at which the rates are looked at, and components of each block. */
const LOOKS = 16;
const MAX_ELEMENTS = 12;

const UNIT = 2 ** -53;

const known = memoize<RateNoise>(8);

/** Rounding in single evaluations of rates and exact solution, as sums that cancel make it: along the solution. */
export function rateNoise(problem: Problem, truth: Truth): RateNoise {
  return known(problemKey(problem, truth.kind), () => noiseOf(problem, truth));
}

function noiseOf(problem: Problem, truth: Truth): RateNoise {
  const trees = new RateTrees(problem);
  const errorOf = (tree: Tree<Bound<RateLeaf>>, t: number): number => {
    const found = attempt(() =>
      runningError(tree, ({ to }) => {
        if (to.kind === 'time') return t;
        if (to.kind === 'constant') return to.value;
        return to.kind === 'component' ? truth.value(to.place, t) : NaN;
      }),
    );
    return found.ok && Number.isFinite(found.value.error) ? found.value.error : 0;
  };
  const elements = problem.blocks.flatMap((block) => {
    const stride = Math.ceil(block.size / MAX_ELEMENTS);
    return Array.from({ length: Math.ceil(block.size / stride) }, (_, i) => ({
      tree: trees.at(block.rate, block, i * stride),
      weight: Math.sqrt(stride),
    }));
  });
  let [rates, size] = [0, 0];
  const places = Array.from({ length: problem.size }, (_, place) => place);
  for (let i = 0; i <= LOOKS; i += 1) {
    const t = problem.start + ((problem.end - problem.start) * i) / LOOKS;
    if (t > truth.reached) break;
    rates = Math.max(rates, norm(elements.map(({ tree, weight }) => weight * errorOf(tree, t))));
    size = Math.max(size, norm(places.map((place) => truth.value(place, t))));
  }
  const span = Math.min(1, problem.end - problem.start);
  if (rates < CANCELS * UNIT * (size / span)) rates = 0;
  const exactAt = (t: number, places: readonly number[]): number =>
    truth.kind !== 'exact' || places.length > MAX_ELEMENTS
      ? 0
      : norm(
          places.map((place) => {
            const block = blockAt(problem, place);
            if (block?.exact == null) return 0;
            return errorOf(trees.at(block.exact, block, place - block.offset), t);
          }),
        );
  return { rates, exactAt };
}
