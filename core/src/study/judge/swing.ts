import { norm } from '../../run/norm.ts';
import type { Study } from '../runs/study.ts';
import { placesOf, type Truth } from '../runs/truth.ts';

/** Times at which a solution is looked at. */
const LOOKS = 64;

/** The largest size of the components that an error is of, along the solution; NaN where there is none. */
export function swingOf({ problem, error }: Study, truth: Truth): number {
  const places = placesOf(problem, error.of);
  if ('message' in places) return NaN;
  let largest = NaN;
  for (let i = 0; i <= LOOKS; i += 1) {
    const t = problem.start + ((problem.end - problem.start) * i) / LOOKS;
    const size = norm(places.map((place) => truth.value(place, t)));
    if (size > largest || Number.isNaN(largest)) largest = size;
  }
  return largest;
}
