import { hasExact, type Problem } from '../problem/problem.ts';
import type { Study } from './runs/study.ts';
import { type Truth, truthOf } from './runs/truth.ts';
import { stepLimits } from './step-limits.ts';

/** What a run is compared with in plots: `reference` where no exact solution of the component is typed. */
export interface TruthCurve {
  readonly kind: 'exact' | 'reference';
  /** Estimated error of a reference, relative to the largest component; 0 for an exact solution. */
  readonly error: number;
  /** At the times of the curves; NaN where a reference does not reach. */
  readonly values: readonly number[];
}

/** Components of the largest problem for which a plot waits for a reference. */
const MAX_REFERRED = 200;

/** What the components of a problem are compared with in plots. */
export interface TruthOfPlaces {
  /** Values at some times; null where nothing is known of the component at a place. */
  readonly at: (place: number, times: readonly number[]) => readonly number[] | null;
  readonly curve: (place: number, times: readonly number[]) => TruthCurve | null;
}

/**
 * The exact solution of every component that has one, and a reference for the others.
 *
 * @example truthOfPlaces(problem).at(0, [0]) // [4]
 */
export function truthOfPlaces(problem: Problem): TruthOfPlaces {
  const found = new Map<number, Truth | null>();
  const of = (place: number): Truth | null => {
    const known = found.get(place);
    if (known !== undefined) return known;
    const block = problem.blocks.find((b) => place >= b.offset && place < b.offset + b.size);
    const isDear = block?.exact == null && problem.size > MAX_REFERRED;
    const truth = isDear ? null : truthOf(problem, [place], problem.end);
    found.set(place, truth);
    return truth;
  };
  const at: TruthOfPlaces['at'] = (place, times) => {
    const truth = of(place);
    return truth && times.map((t) => (t <= truth.reached ? truth.value(place, t) : NaN));
  };
  return {
    at,
    curve: (place, times) => {
      const [truth, values] = [of(place), at(place, times)];
      if (truth === null || values === null) return null;
      return { kind: truth.kind === 'exact' ? 'exact' : 'reference', error: truth.error, values };
    },
  };
}

/**
 * The stability limits of the methods of a study; none is looked for where that takes a dear reference.
 *
 * @example limitsOf(study)
 */
export function limitsOf(study: Study): readonly (number | null)[] {
  const { problem, methods } = study;
  if (!hasExact(problem) && problem.size > MAX_REFERRED) return methods.map(() => null);
  return stepLimits(study);
}
