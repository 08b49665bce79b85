import { drawnSolution } from './reference-solution.ts';
import type { DenseSolution } from './taylor-solution.ts';
import { exactSolution } from '../run/exact-solution.ts';
import { stateFunction } from '../compile/state-function.ts';
import type { Problem } from '../problem/problem.ts';

/** A solution as points, for a picture. */
export interface Portrait {
  /** `exact` as it was given, or how the reference was made. */
  readonly kind: 'exact' | 'taylor' | 'fine steps';
  readonly t: readonly number[];
  /** One list a component, for the first components of a large system. */
  readonly values: readonly (readonly number[])[];
  /** Time before the end of the interval at which it ends, and why; null where it comes to the end. */
  readonly ends: { readonly t: number; readonly why: NonNullable<DenseSolution['ending']> } | null;
  /** Short strokes along the right-hand side: over (t, y) for one component, over (y1, y2) at the start for two. */
  readonly field: readonly Stroke[];
}

/** A place and a direction: the right-hand side there. */
export interface Stroke {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

const POINTS = 400;
/** Components that a picture shows at most. */
export const MAX_SHOWN = 12;
const COLUMNS = 26;
const ROWS = 16;

function range(values: readonly number[]): readonly [number, number] {
  const finite = values.filter((v) => Number.isFinite(v));
  const low = Math.min(...finite);
  const high = Math.max(...finite);
  const room = 0.12 * (high - low) || 0.5;
  return [low - room, high + room];
}

function gridOf([low, high]: readonly [number, number], count: number): readonly number[] {
  return Array.from({ length: count }, (_, i) => low + ((i + 0.5) * (high - low)) / count);
}

function fieldOf(problem: Problem, values: readonly (readonly number[])[]): readonly Stroke[] {
  const rightHandSides = problem.blocks.map((block) => stateFunction(problem, block.rhs, block, 0));
  const [first, second] = rightHandSides;
  if (problem.size === 1 && first !== undefined)
    return gridOf([problem.start, problem.end], COLUMNS).flatMap((x) =>
      gridOf(range(values[0] ?? []), ROWS).map((y) => ({ x, y, dx: 1, dy: first(x, [y]) })),
    );
  if (problem.size !== 2 || first === undefined || second === undefined || problem.blocks.length !== 2)
    return [];
  return gridOf(range(values[0] ?? []), COLUMNS).flatMap((x) =>
    gridOf(range(values[1] ?? []), ROWS).map((y) => ({
      x,
      y,
      dx: first(problem.start, [x, y]),
      dy: second(problem.start, [x, y]),
    })),
  );
}

/**
 * The solution of a problem, exact where it is known and by reference where not, with the direction field.
 *
 * @example portrait(problem)
 */
export function portrait(problem: Problem): Portrait {
  const { start, end, size } = problem;
  const shown = Math.min(size, MAX_SHOWN);
  const places = Array.from({ length: shown }, (_, i) =>
    shown === size ? i : Math.round((i * (size - 1)) / (shown - 1)),
  );
  const exact = exactSolution(problem);
  const isExact = places.every((place) => exact.known(place));
  const reference = isExact ? null : drawnSolution(problem);
  const reached = reference?.solution.reached ?? end;
  const last = reached < end ? start + (reached - start) * 0.999 : end;
  const t = Array.from({ length: POINTS + 1 }, (_, i) => start + ((last - start) * i) / POINTS);
  const values: number[][] = places.map(() => []);
  const state = new Float64Array(size);
  for (const time of t) {
    if (reference !== null) reference.solution.at(time, state);
    places.forEach((place, i) =>
      values[i]!.push(reference === null ? exact.value(place, time) : state[place]!),
    );
  }
  return {
    kind: reference?.kind ?? 'exact',
    t,
    values,
    ends: reached < end ? { t: reached, why: reference?.solution.ending ?? 'stuck' } : null,
    field: fieldOf(problem, values).filter(({ dx, dy }) => Number.isFinite(dx) && Number.isFinite(dy)),
  };
}
