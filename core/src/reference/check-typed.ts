import { factorial } from '../formula/factorial.ts';
import { short } from '../text/number-text.ts';
import { primed } from '../text/primes.ts';
import type { Span } from '../text/place.ts';
import type { Problem, TypedDerivative } from '../problem/problem.ts';
import { atTime, type TimeAxis } from '../problem/time-text.ts';
import { exactSolution } from '../run/exact-solution.ts';
import { stateFunction } from '../compile/state-function.ts';
import { jetFunction } from '../compile/jets/jet-function.ts';
import { branchesOf } from './switches.ts';
import { taylorSolution } from './taylor-solution.ts';

/**
 * A derivative typed by hand beside the one made from the right-hand sides, where they differ most along the solution.
 */
export interface TypedCheck {
  /** As it is written: `level''`. */
  readonly derivative: string;
  readonly unknown: string;
  readonly order: number;
  readonly at: Span;
  readonly agrees: boolean;
  /** Where the two differ most, and what they are there. */
  readonly t: number;
  readonly typed: number;
  readonly made: number;
}

/** Times at which the two are compared. */
const POINTS = 97;
/** Fewest times all the same. */
const FEWEST = 5;
/** About how many operations the Taylor series of one comparison take; large systems are compared at fewer times. */
const MAX_OPERATIONS = 1_000_000;
/** Components times squared order of a series, beyond which nothing is compared. */
const LARGEST = 40_000;
/** A difference below this, relative to the larger of the two, is rounding. */
const ROUNDING = 1e-9;

/**
 * Of the reference solution along which they are compared, and the most steps it may take: they are compared as far as
 * it comes.
 */
const TOLERANCE = 1e-18;
const MAX_STEPS = 300;

/** The states of the solution, exact where it is known in full and by reference where not. */
function solutionOf(problem: Problem): (t: number, state: Float64Array) => void {
  const exact = exactSolution(problem);
  const places = Array.from({ length: problem.size }, (_, j) => j);
  if (!places.every((place) => exact.known(place)))
    return taylorSolution(problem, TOLERANCE, { branches: branchesOf(problem), most: MAX_STEPS }).at;
  return (t, state) => places.forEach((place) => (state[place] = exact.value(place, t)));
}

function checkOne(problem: Problem, typed: TypedDerivative, at: ReturnType<typeof solutionOf>): TypedCheck {
  const { unknown, order } = typed;
  const block = problem.blocks.find((b) => b.unknown.name === unknown && b.derivative === 0);
  const place = block?.offset ?? 0;
  const value = stateFunction(problem, typed.value);
  const series = jetFunction(problem, order);
  const state = new Float64Array(problem.size);
  const out = new Float64Array((order + 1) * problem.size);
  const looks = Math.floor(MAX_OPERATIONS / (problem.size * order ** 2));
  const times = Math.max(FEWEST, Math.min(POINTS, looks));
  const points = Array.from({ length: times }, (_, i) => {
    // away from both ends, where roots and quotients may be singular
    const t = problem.start + ((problem.end - problem.start) * (i + 0.5)) / times;
    at(t, state);
    series(t, state, out);
    const made = factorial(order) * out[order * problem.size + place]!;
    const below = factorial(order - 1) * out[(order - 1) * problem.size + place]!;
    return { t, typed: value(t, state), made, below };
  }).filter(({ typed: byHand, made }) => Number.isFinite(byHand) && Number.isFinite(made));
  const length = problem.end - problem.start;
  const largest = points.reduce(
    (most, { made, below }) => Math.max(most, Math.abs(made), Math.abs(below) / length),
    Number.MIN_VALUE,
  );
  // next to a zero of the derivative the two may differ by what rounding does to their terms
  const part = ({ typed: byHand, made }: (typeof points)[number]): number =>
    Math.abs(made - byHand) / (Math.max(Math.abs(made), Math.abs(byHand)) + 1e-3 * largest);
  const worst = points.reduce<(typeof points)[number] | null>(
    (most, point) => (most === null || part(point) > part(most) ? point : most),
    null,
  );
  return {
    derivative: primed(unknown, order),
    unknown,
    order,
    at: typed.at,
    agrees: worst !== null && part(worst) <= ROUNDING,
    t: worst?.t ?? problem.start,
    typed: worst?.typed ?? NaN,
    made: worst?.made ?? NaN,
  };
}

/**
 * Compares every derivative that a problem gives by hand with the one made from its right-hand sides, along the solution.
 *
 * @returns one entry a typed derivative; none where nothing is typed, or for systems too large for Taylor series
 * @example checkTyped(problem) // []
 */
export function checkTyped(problem: Problem): readonly TypedCheck[] {
  const compared = problem.typed.filter(({ order }) => problem.size * order ** 2 <= LARGEST);
  if (compared.length === 0) return [];
  const at = solutionOf(problem);
  return compared.map((typed) => checkOne(problem, typed, at));
}

/**
 * The outcome of one comparison in a sentence.
 *
 * @example checkTyped(problem).map((check) => typedCheckSentence(problem, check)) // []
 */
export function typedCheckSentence(
  axis: TimeAxis,
  check: Omit<TypedCheck, 'at' | 'unknown' | 'order'>,
): string {
  const { derivative, agrees, t, typed, made } = check;
  if (agrees) return `${derivative} as typed agrees with the derivative computed from the right-hand side`;
  return `${derivative} as typed is ${short(typed, 6)} at ${atTime(t, axis)}, but the derivative computed from the right-hand side is ${short(made, 6)} there`;
}
