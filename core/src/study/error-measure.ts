import { componentNames, type Problem } from '../problem/problem.ts';
import { exactSolution } from '../run/exact.ts';
import { type Grid, timeAt } from '../run/grid.ts';
import { goTo, type RunState } from '../run/integrate.ts';
import { travel } from '../run/long-run.ts';

/** Where and of what the error of a run is taken. */
export interface ErrorChoice {
  /** At the end, at the grid point nearest to a time, the maximum over the grid, or the root mean square. */
  readonly at: 'end' | 'max' | 'rms' | { readonly t: number };
  /** `norm`, the Euclidean norm over all components, or the name of one. */
  readonly of: string;
  readonly scale: 'absolute' | 'relative';
}

export const DEFAULT_ERROR: ErrorChoice = { at: 'end', of: 'norm', scale: 'absolute' };

/** The error at one grid point; null where no exact solution is known. */
export type PointError = (t: number, state: ArrayLike<number>) => number | null;

/**
 * The error at a grid point against the exact solution.
 *
 * @returns a message where `of` names no component
 */
export function pointError(problem: Problem, choice: ErrorChoice): PointError | { readonly message: string } {
  const exact = exactSolution(problem);
  const names = componentNames(problem);
  const place = choice.of === 'norm' ? null : names.indexOf(choice.of);
  if (place === -1)
    return { message: `there is no component ${choice.of}; there are ${names.slice(0, 6).join(', ')}` };
  const places = place === null ? names.map((_, j) => j) : [place];
  return (t, state) => {
    let sum = 0;
    let size = 0;
    let difference = NaN;
    for (const j of places) {
      if (!exact.known(j)) return null;
      const value = exact.value(j, t);
      difference = state[j]! - value;
      sum += difference * difference;
      size += value ** 2;
    }
    const error = places.length === 1 ? Math.abs(difference) : Math.sqrt(sum);
    return choice.scale === 'absolute' ? error : error / Math.sqrt(size);
  };
}

/** The grid point at which an error "at t" is taken: the nearest one. */
function nearestPoint(grid: Grid, t: number): number {
  return Math.min(grid.steps, Math.max(0, Math.round((t - grid.start) / grid.h)));
}

/**
 * Runs to the end and answers the chosen error; null where the run left the numbers or nothing is known to compare
 * with. Yields the steps that were done, many times a second.
 */
export function* errorOfRun(
  at: RunState,
  error: PointError,
  choice: ErrorChoice,
): Generator<number, number | null> {
  const { grid, state } = at;
  const here = (): number | null => error(timeAt(grid, at.n), state);
  let result: number | null;
  if (choice.at === 'end') {
    yield* travel(at, grid.steps);
    result = here();
  } else if (typeof choice.at === 'object') {
    yield* travel(at, nearestPoint(grid, choice.at.t));
    result = here();
    yield* travel(at, grid.steps);
  } else {
    let largest = 0;
    let squares = 0;
    for (;;) {
      const e = here();
      if (e === null) largest = NaN;
      else {
        largest = Math.max(largest, e);
        squares += e * e;
      }
      if (at.n === grid.steps || at.stopped !== null) break;
      goTo(at, at.n + 1);
      if (at.n % 20_000 === 0) yield 20_000;
    }
    result = choice.at === 'max' ? largest : Math.sqrt(squares / (grid.steps + 1));
  }
  return at.stopped !== null || result === null || Number.isNaN(result) ? null : result;
}
