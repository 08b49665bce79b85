import { problemKey } from '../../problem/problem-key.ts';
import { norm } from '../../run/norm.ts';
import { memoize } from '../../text/memoize.ts';
import type { Study } from '../runs/study.ts';
import { placesOf, type Truth } from '../runs/truth.ts';

/** Times at which a solution is looked at: fewer for many components. */
const LOOKS = { most: 1024, least: 64, values: 50_000 } as const;
/** How often the stretch about the largest value that was seen is narrowed, by a third each time. */
const ROUNDS = 24;

const known = memoize<number>(8);

/** The largest size of the components that an error is of, along the solution; NaN where there is none. */
export function swingOf({ problem, error }: Study, truth: Truth): number {
  const places = placesOf(problem, error.of);
  if ('message' in places) return NaN;
  return known(problemKey(problem, truth.kind, truth.reached, error.of), () => {
    const sizeAt = (t: number): number => norm(places.map((place) => truth.value(place, t)));
    const looks = Math.max(LOOKS.least, Math.min(LOOKS.most, Math.floor(LOOKS.values / places.length)));
    const width = (problem.end - problem.start) / looks;
    let [largest, at] = [NaN, problem.start];
    for (let i = 0; i <= looks; i += 1) {
      const t = problem.start + width * i;
      const size = sizeAt(t);
      if (size > largest || Number.isNaN(largest)) [largest, at] = [size, t];
    }
    // a peak lies between the neighbours of the largest value
    let [low, high] = [Math.max(problem.start, at - width), Math.min(problem.end, at + width)];
    for (let i = 0; i < ROUNDS; i += 1) {
      const [left, right] = [low + (high - low) / 3, high - (high - low) / 3];
      if (sizeAt(left) < sizeAt(right)) low = left;
      else high = right;
    }
    const peak = sizeAt((low + high) / 2);
    return peak > largest ? peak : largest;
  });
}
